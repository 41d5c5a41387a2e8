<script lang="ts">
  // Titles of the columns in which outcomes are counted; in a narrow window their signs alone.
  import type { Outcome } from '../api/types';
  import Slip from '../ui/Slip.svelte';
  import { OUTCOMES, outcomeWord } from '../ui/words';

  let { outcomes = OUTCOMES, kind = '' }: { outcomes?: readonly Outcome[]; kind?: string } =
    $props();
</script>

{#each outcomes as outcome (outcome)}<th class="r"
    ><span class="o {outcome}"
      ><Slip of={outcome} /><span class="word">{outcomeWord(outcome, kind)}</span></span
    ></th
  >{/each}

<style>
  @media (max-width: 1150px) {
    .word {
      position: absolute;
      clip-path: inset(50%);
    }
  }
</style>
