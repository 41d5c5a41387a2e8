<script lang="ts">
  // A proportional bar; each part has a texture of its own, so that it survives grey print.
  interface Part {
    name: string;
    rows: number;
  }
  let { parts, tiny = false, label }: { parts: Part[]; tiny?: boolean; label: string } = $props();
  const shown = $derived(parts.filter((p) => p.rows > 0));
</script>

<div class="bar" class:tiny role="img" aria-label={label}>
  {#each shown as part (part.name)}
    <i class="x-{part.name}" style="flex: {part.rows} 0 0"></i>
  {/each}
</div>
