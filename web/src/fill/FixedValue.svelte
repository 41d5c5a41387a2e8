<script lang="ts">
  // The value that all records get: one of those that the field allows, where it says which.
  interface Props {
    /** The values that may be chosen; none if it is typed. */
    allowed: string[];
    value: string;
    label: string;
    set: (value: string) => void;
  }
  let { allowed, value, label, set }: Props = $props();

  /** What a plan says already is kept in sight, even if it is not allowed. */
  const choices = $derived(allowed.includes(value) ? allowed : [value, ...allowed]);
</script>

{#if allowed.length}
  <select class="entry m" aria-label={label} {value} onchange={(e) => set(e.currentTarget.value)}>
    {#each choices as choice (choice)}
      <option value={choice}>{choice || 'choose…'}</option>
    {/each}
  </select>
{:else}
  <input
    class="entry m"
    aria-label={label}
    placeholder="the same for all"
    {value}
    onchange={(e) => set(e.currentTarget.value)}
  />
{/if}

<style>
  .entry {
    height: 24px;
    max-width: 160px;
  }
</style>
