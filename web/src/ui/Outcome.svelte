<script lang="ts">
  import type { Outcome } from '../api/types';
  import Slip from './Slip.svelte';
  import { capital } from './words';

  let { of }: { of: Outcome } = $props();
</script>

<span class="o {of}"><Slip {of} />{capital(of)}</span>
