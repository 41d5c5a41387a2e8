<script lang="ts">
  // How the other fields of a linked record are filled that is made because it is missing.
  import type { FieldInfo, Origin } from '../api/types';
  import { many } from '../ui/words';
  import PopUp from '../ui/PopUp.svelte';
  import CreateFields from './CreateFields.svelte';
  import { lacking } from './origins';

  type Link = NonNullable<Origin['link']>;
  interface Props {
    link: Link;
    table: string;
    /** Fields of the other table. */
    linked: FieldInfo[];
    columns: string[];
    change: (link: Link) => void;
  }
  let { link, table, linked, columns, change }: Props = $props();
  const open = $derived(lacking(linked, link).length);
</script>

<PopUp
  words={open
    ? `its record needs ${many(open, 'more value')}`
    : `its record: ${many(link.create.length, 'more value')}`}
  waiting={open > 0}
  side="right"
  width={470}
>
  <CreateFields {link} {table} {linked} {columns} {change} />
</PopUp>
