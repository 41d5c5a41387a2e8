<script lang="ts">
  // How the other fields of a linked record are filled that is made because it is missing.
  import type { ComponentProps } from 'svelte';
  import { many } from '../ui/words';
  import PopUp from '../ui/PopUp.svelte';
  import CreateFields from './CreateFields.svelte';
  import { lacking } from './origins';

  let { link, linked, ...rest }: ComponentProps<typeof CreateFields> = $props();
  const open = $derived(lacking(linked, link).length);
</script>

<PopUp
  words={link.whenMissing === 'ask'
    ? `if added: ${many(link.create.length, 'more value')}`
    : open
      ? `its record needs ${many(open, 'more value')}`
      : `its record: ${many(link.create.length, 'more value')}`}
  waiting={open > 0 && link.whenMissing === 'create'}
  side="right"
  width={470}
>
  <CreateFields {link} {linked} {...rest} />
</PopUp>
