// The records that rows may speak of, fetched as they are looked at.
import { SvelteMap } from 'svelte/reactivity';
import { api, got } from '../api/client';
import type { OpenPlan } from '../plan/plan.svelte';
import { tell } from '../ui/toaster';

/** Candidates of one row that are shown beside it. */
export const SHOWN = 4;

export class Candidates {
  /** Values by field of the table, by the record's key. */
  readonly known = new SvelteMap<string, Record<string, string | null>>();

  constructor(private open: OpenPlan) {}

  async want(keys: string[]) {
    const wanted = keys.slice(0, SHOWN).filter((k) => !this.known.has(k));
    if (!wanted.length) return;
    const path = {
      connection: this.open.plan.connection ?? '',
      table: this.open.view.table.name,
    };
    try {
      const page = await got(
        api.GET('/api/connections/{connection}/tables/{table}/records', {
          params: { path, query: { key: wanted } },
        }),
      );
      for (const record of page.records) {
        this.known.set(
          record.key,
          Object.fromEntries(page.fields.map((f, i) => [f, record.values[i] ?? null])),
        );
      }
    } catch (error) {
      tell(error);
    }
  }
}
