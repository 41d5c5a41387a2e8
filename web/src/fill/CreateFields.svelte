<script lang="ts">
  // The fields of a linked record that is made because it is missing, and what fills each.
  import type { FieldInfo, Fill, Origin } from '../api/types';
  import { fieldWords } from '../ui/words';
  import FixedValue from './FixedValue.svelte';
  import { allowedWords, lookedUp, needs, required, usualSteps } from './origins';

  type Link = NonNullable<Origin['link']>;
  interface Props {
    link: Link;
    table: string;
    /** Fields of the other table. */
    linked: FieldInfo[];
    columns: string[];
    change: (link: Link) => void;
  }
  let { link, table, linked, columns, change }: Props = $props();

  const others = $derived(
    linked
      .filter((f) => !f.generated && !lookedUp(link).includes(f.name))
      .sort((a, b) => Number(needs(b, link)) - Number(needs(a, link))),
  );
  function put(field: FieldInfo, origin: Origin | null) {
    const create = link.create.filter((c) => c.field !== field.name);
    if (origin) {
      const fill: Fill = {
        field: field.name,
        origin,
        steps: field.type === 'text' && origin.kind === 'fixed' ? [] : usualSteps(field),
        whenBlank: required(field) ? 'reject' : 'leave',
        blankOnMatch: 'keep',
        whenBad: 'reject',
        onlyNew: false,
      };
      create.push(fill);
    }
    change({ ...link, create });
  }

  function pick(field: FieldInfo, value: string) {
    if (value === '') put(field, null);
    else if (value === 'fixed') put(field, { kind: 'fixed', value: allowedWords(field)[0] ?? '' });
    else put(field, { kind: 'column', column: value.slice(1) });
  }
</script>

<b>A new record of <span class="m">{table}</span> gets</b>
{#if !link.with.length}
  <div class="one q2"><span class="m">{link.by}</span><span>what it is looked up by</span></div>
{/if}
{#each others as f (f.name)}
  {@const origin = link.create.find((c) => c.field === f.name)?.origin}
  <div class="one">
    <span><span class="m">{f.name}</span> <i class="q">{fieldWords(f)}</i></span>
    <span class="value">
      <select
        class="entry"
        aria-label="New {table}: {f.name}"
        value={origin?.kind === 'fixed' ? 'fixed' : origin?.column ? `c${origin.column}` : ''}
        onchange={(e) => pick(f, e.currentTarget.value)}
      >
        <option value="">{needs(f, link) ? 'nothing yet' : 'left to the database'}</option>
        <option value="fixed">always…</option>
        {#each columns as column (column)}<option value="c{column}">{column}</option>{/each}
      </select>
      {#if origin?.kind === 'fixed'}
        <FixedValue
          allowed={allowedWords(f)}
          value={origin.value ?? ''}
          label="Value of {f.name}"
          set={(value) => put(f, { kind: 'fixed', value })}
        />
      {/if}
    </span>
  </div>
{/each}

<style>
  .one {
    display: grid;
    grid-template-columns: var(--name, 190px) minmax(0, 1fr);
    gap: 8px;
    align-items: center;
  }
  .one i {
    font-style: normal;
    white-space: normal;
  }
  .value {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 6px;
  }
  .entry {
    height: 24px;
    max-width: 130px;
  }
</style>
