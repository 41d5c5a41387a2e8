<script lang="ts">
  // How a series of numbers goes.
  import type { Origin } from '../api/types';

  type Series = NonNullable<Origin['series']>;
  let { series, change }: { series: Series; change: (series: Series) => void } = $props();

  function whole(text: string): number | undefined {
    return /^-?\d{1,15}$/.test(text.trim()) ? Number(text) : undefined;
  }
</script>

<label
  >from
  <input
    class="ed m"
    aria-label="First number"
    placeholder="the highest"
    title="left blank: goes on after the highest in the table"
    value={series.start ?? ''}
    onchange={(e) => change({ ...series, start: whole(e.currentTarget.value) })}
  /></label
>
<label
  >by
  <input
    class="ed m short"
    aria-label="Step"
    value={series.step ?? 1}
    onchange={(e) => change({ ...series, step: whole(e.currentTarget.value) || 1 })}
  /></label
>
<label
  >behind
  <input
    class="ed m short"
    aria-label="Prefix"
    placeholder="nothing"
    value={series.prefix ?? ''}
    onchange={(e) => change({ ...series, prefix: e.currentTarget.value || undefined })}
  /></label
>
<label
  >digits
  <input
    class="ed m short"
    aria-label="Fewest digits"
    value={series.width ?? ''}
    onchange={(e) => change({ ...series, width: whole(e.currentTarget.value) })}
  /></label
>

<style>
  .ed {
    width: 90px;
    color: var(--ink);
    background: transparent;
  }
  .short {
    width: 54px;
  }
</style>
