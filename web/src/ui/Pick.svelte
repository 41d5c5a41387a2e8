<script lang="ts" generics="T extends string">
  // One of a few: the chosen one is a black segment.
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    options: { value: T; text: string; hint?: string }[];
    value: T;
    pick: (value: T) => void;
    extra?: Snippet<[T]>;
  }
  let { label, options, value, pick, extra }: Props = $props();
</script>

<div class="pick" role="radiogroup" aria-label={label}>
  {#each options as option (option.value)}
    <button
      type="button"
      role="radio"
      aria-checked={option.value === value}
      class:on={option.value === value}
      title={option.hint}
      onclick={() => pick(option.value)}
    >
      {option.text}{@render extra?.(option.value)}
    </button>
  {/each}
</div>
