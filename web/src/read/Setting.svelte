<script lang="ts">
  // One setting of the reading: its name, what it is, why so, and the way back to finding it.
  import type { Snippet } from 'svelte';
  import type { Evidence } from '../api/types';

  interface Props {
    name: string;
    evidence?: Evidence[];
    /** True if a person has said it. */
    said?: boolean;
    again?: () => void;
    children: Snippet;
  }
  let { name, evidence = [], said = false, again, children }: Props = $props();
</script>

<dt>{name}</dt>
<dd>
  {@render children()}
  {#if said}
    <p>
      as you said{#if again}, <button class="go" onclick={again}>find it again</button>{/if}
    </p>
  {:else}
    {#each evidence as e (e.value + e.because)}<p>{e.because}</p>{/each}
  {/if}
</dd>

<style>
  dt,
  dd {
    padding: 9px 12px 9px 16px;
    border-bottom: 1px solid var(--rule);
  }
  dt {
    color: var(--ink-2);
    padding-right: 0;
  }
  dd {
    padding-left: 6px;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  p {
    color: var(--ink-2);
  }
</style>
