<script lang="ts">
  // What a blank and a bad value mean for this field.
  import type { FieldInfo, Fill } from '../api/types';

  let { field, fill, put }: { field: FieldInfo; fill: Fill; put: (fill: Fill) => void } = $props();
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
    <select
      class="ed"
      value={fill.onlyNew ? 'own' : fill.blankOnMatch}
      onchange={(e) => {
        const to = e.currentTarget.value;
        put(
          to === 'own'
            ? { ...fill, onlyNew: true }
            : { ...fill, onlyNew: false, blankOnMatch: to as Fill['blankOnMatch'] },
        );
      }}
    >
      <option value="keep">blank keeps</option>
      {#if field.nullable}<option value="clear">blank clears</option>{/if}
      <option value="own">always keeps its own</option>
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
