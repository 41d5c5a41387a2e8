<script lang="ts">
  // An outcome's shape: told apart without colour, always beside its word.
  let { of, size = 11 }: { of: string; size?: number } = $props();
</script>

<svg width={size} height={size} viewBox="0 0 11 11" fill="none" aria-hidden="true">
  {#if of === 'new'}
    <rect x=".5" y=".5" width="10" height="10" fill="currentColor" />
  {:else if of === 'changed'}
    <rect x="1.1" y="1.1" width="8.8" height="8.8" stroke="currentColor" stroke-width="1.2" />
    <path d="M10.5.5v10H.5z" fill="currentColor" />
  {:else if of === 'unchanged'}
    <rect x="1.1" y="1.1" width="8.8" height="8.8" stroke="currentColor" stroke-width="1.3" />
  {:else if of === 'skipped'}
    <path d="M0 5.5h11" stroke="currentColor" stroke-width="2.4" />
  {:else if of === 'rejected'}
    <path d="M1.2 1.2l8.6 8.6M9.8 1.2L1.2 9.8" stroke="currentColor" stroke-width="2.5" />
  {:else if of === 'removed'}
    <path
      d="M1.1 3.6V1.1h2.5M7.4 1.1h2.5v2.5M9.9 7.4v2.5H7.4M3.6 9.9H1.1V7.4"
      stroke="currentColor"
      stroke-width="1.4"
    />
    <path d="M3.2 5.5h4.6" stroke="currentColor" stroke-width="1.4" />
  {:else if of === 'waiting'}
    <path d="M5.5.9l4.6 4.6-4.6 4.6L.9 5.5z" stroke="currentColor" stroke-width="1.5" />
    <rect x="4.3" y="4.3" width="2.4" height="2.4" fill="currentColor" />
  {:else if of === 'check'}
    <path d="M1 5.8l3 3L10 2" stroke="currentColor" stroke-width="2" />
  {:else if of === 'arrow'}
    <path d="M0 5.5h9M6.2 2l3.5 3.5L6.2 9" stroke="currentColor" stroke-width="1.4" />
  {/if}
</svg>
