<script lang="ts">
  // A field's value; a link's key stands with what the linked record is called.
  import type { FieldInfo } from '../api/types';
  import { labels } from './labels.svelte';

  interface Props {
    value: string | null | undefined;
    field: FieldInfo | undefined;
    connection: string | undefined;
  }
  let { value, field, connection }: Props = $props();

  const label = $derived(
    field?.link && value && connection ? labels.of(connection, field.link.table, value) : '',
  );
</script>

{#if label && label !== value}<span class="key">{value}</span>{label}{:else}{value ?? ''}{/if}

<style>
  .key {
    color: var(--ink-3);
    font-weight: 400;
    margin-right: 6px;
  }
</style>
