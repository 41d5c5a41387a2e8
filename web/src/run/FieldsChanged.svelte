<script lang="ts">
  // The fields that change in most records, each with its share of them.
  import type { RunReport } from '../api/types';
  import { count } from '../ui/words';

  interface Props {
    into: RunReport['destinations'][number];
    /** Fields that are shown at most. */
    most?: number;
  }
  let { into, most = 7 }: Props = $props();
  const others = $derived(into.fieldsChanged.length - most);
</script>

<div class="fields">
  {#each into.fieldsChanged.slice(0, most) as field (field.field)}
    <span class="m">{field.field}</span>
    <span class="bar tiny"
      ><i class="x-changed" style="width: {(100 * field.records) / Math.max(1, into.changed)}%"
      ></i></span
    >
    <b class="r">{count(field.records)}</b>
  {/each}
  {#if others > 0}<span class="q">{others === 1 ? '1 other' : `${others} others`}</span>{/if}
</div>

<style>
  .fields {
    display: grid;
    grid-template-columns: 122px 1fr 52px;
    gap: 4px 8px;
    padding: 2px 12px 12px;
    align-items: center;
  }
</style>
