<script lang="ts">
  // What a blank and a bad value mean for this field.
  import type { FieldInfo, Fill } from '../api/types';

  let { field, fill, put }: { field: FieldInfo; fill: Fill; put: (fill: Fill) => void } = $props();
  const isSized = $derived(
    ['whole', 'decimal', 'date', 'datetime', 'time'].includes(field.type) && !field.link,
  );
  const whenThere = $derived(
    fill.onlyNew ? 'own' : fill.never ? `never-${fill.never}` : fill.blankOnMatch,
  );
  function putWhenThere(to: string) {
    const usual: Fill = { ...fill, onlyNew: false, never: undefined };
    if (to === 'own') put({ ...usual, onlyNew: true });
    else if (to === 'never-lower') put({ ...usual, never: 'lower' });
    else if (to === 'never-raise') put({ ...usual, never: 'raise' });
    else put({ ...usual, blankOnMatch: to as Fill['blankOnMatch'] });
  }
  const asksDefault = $derived(fill.whenBlank === 'default' || fill.whenBad === 'default');
</script>

<div class="policy q2">
  <label
    >blank
    <select
      class="ed"
      value={fill.whenBlank}
      onchange={(e) => put({ ...fill, whenBlank: e.currentTarget.value as Fill['whenBlank'] })}
    >
      <option value="leave">{field.hasDefault ? 'database’s default' : 'stays blank'}</option>
      <option value="default">default</option>
      <option value="reject">reject the row</option>
    </select></label
  >
  <label
    >if there already
    <select class="ed" value={whenThere} onchange={(e) => putWhenThere(e.currentTarget.value)}>
      <option value="keep">blank keeps</option>
      {#if field.nullable}<option value="clear">blank clears</option>{/if}
      <option value="own">always keeps its own</option>
      {#if isSized}
        <option value="never-lower"
          >is never made {field.type.startsWith('date') ? 'earlier' : 'lower'}</option
        >
        <option value="never-raise"
          >is never made {field.type.startsWith('date') ? 'later' : 'higher'}</option
        >
      {/if}
    </select></label
  >
  {#if fill.origin.kind !== 'link'}<label
      >bad
      <select
        class="ed"
        value={fill.whenBad}
        onchange={(e) => put({ ...fill, whenBad: e.currentTarget.value as Fill['whenBad'] })}
      >
        {#if field.choices}<option value="ask">ask for each word</option>{/if}
        <option value="reject">reject the row</option>
        {#if field.nullable || field.hasDefault}<option value="blank">leave blank</option>{/if}
        <option value="default">default</option>
      </select></label
    >{/if}
  {#if asksDefault}
    <label
      >default <input
        class="ed m"
        value={fill.defaultValue ?? ''}
        onchange={(e) => put({ ...fill, defaultValue: e.currentTarget.value })}
      /></label
    >
  {/if}
</div>

<style>
  .policy {
    display: contents;
  }
  .ed {
    color: var(--ink);
    font-weight: 600;
    background: transparent;
  }
  input.ed {
    width: 110px;
  }
</style>
