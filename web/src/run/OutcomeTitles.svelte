<script lang="ts">
  // Titles of the columns in which outcomes are counted; in a narrow window their signs alone.
  import Slip from '../ui/Slip.svelte';
  import { capital, OUTCOMES } from '../ui/words';
</script>

{#each OUTCOMES as outcome (outcome)}<th class="r"
    ><span class="o {outcome}"
      ><Slip of={outcome} /><span class="word">{capital(outcome)}</span></span
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
