import { createRouter } from 'sv-router';
import Desk from './desk/Desk.svelte';
import Files from './files/Files.svelte';
import Phrasebooks from './phrasebooks/Phrasebooks.svelte';
import Plans from './plan/Plans.svelte';
import PlanShell from './plan/PlanShell.svelte';
import Records from './records/Records.svelte';
import Connections from './records/Connections.svelte';
import Record from './run/Record.svelte';
import Runs from './run/Runs.svelte';
import NotFound from './ui/NotFound.svelte';

export const { p, navigate, isActive, route } = createRouter({
  '/': Desk,
  '/plans': Plans,
  '/plans/:id/:stop': PlanShell,
  '/runs': Runs,
  '/runs/:id/record': Record,
  '/files': Files,
  '/records': Records,
  '/records/:connection/:table': Records,
  '/phrasebooks': Phrasebooks,
  '/phrasebooks/:id': Phrasebooks,
  '/connections': Connections,
  '*notfound': NotFound,
});
