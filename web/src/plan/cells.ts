import { api, got } from '../api/client';
import type { OpenPlan } from './plan.svelte';

/** The cells of a row by their columns, as the plan corrects them; blank ones are empty. */
export async function cellsOf(open: OpenPlan, row: number): Promise<Record<string, string>> {
  const params = { path: { id: open.view.id }, query: { from: row, count: 1 } };
  const window = await got(api.GET('/api/plans/{id}/window', { params }));
  const names = open.view.source.columns.map((c) => c.name);
  return Object.fromEntries(names.map((name, at) => [name, window[0]?.cells[at]?.text ?? '']));
}
