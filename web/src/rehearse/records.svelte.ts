// What else a row makes: its entries in the other tables of a plan.
import { SvelteMap, SvelteSet } from 'svelte/reactivity';
import { api, got } from '../api/client';
import type { LedgerEntry, Outcome } from '../api/types';
import { awaits } from './asked';

/** Entries that are kept before all are forgotten. */
const KEPT = 20_000;
/** Entries that are asked for at once: of a line there may be several. */
const MOST = 500;

/** How often rows came to an outcome; those that wait for an answer are no rejected ones. */
export interface Fate {
  of: Outcome;
  waiting: boolean;
  records: number;
}

/** What became of the records that a row makes in a table, each outcome once. */
export function fates(kind: string, entries: LedgerEntry[]): Fate[] {
  const fates: Fate[] = [];
  for (const entry of entries) {
    const waiting = awaits(kind, entry);
    const known = fates.find((f) => f.of === entry.outcome && f.waiting === waiting);
    if (known) known.records++;
    else fates.push({ of: entry.outcome, waiting, records: 1 });
  }
  return fates;
}

/** The entries of rows in all tables, fetched as they are looked at. */
export class RowRecords {
  private readonly known = new SvelteMap<string, LedgerEntry[]>();
  private readonly asked = new SvelteSet<string>();
  /** By table, the names of the fields whose values its entries hold. */
  readonly fields = new SvelteMap<number, string[]>();

  /**
   * @param run whose ledger it is
   * @param failed is told what keeps entries from coming
   */
  constructor(
    private readonly run: number,
    private readonly failed: (error: unknown) => void,
  ) {}

  /** The entries of a row in a table; undefined as long as nobody knows. */
  of(row: LedgerEntry, table: number): LedgerEntry[] | undefined {
    return this.known.get(`${table} ${row.line}`)?.filter((e) => e.row === row.row);
  }

  /** Sees to it that the entries of lines come that a table has. */
  async want(lines: number[], table: number) {
    const wanted = lines.filter((line) => !this.asked.has(`${table} ${line}`));
    if (!wanted.length) return;
    if (this.known.size > KEPT) {
      this.known.clear();
      this.asked.clear();
    }
    wanted.forEach((line) => this.asked.add(`${table} ${line}`));
    try {
      const query = { destination: table, line: wanted, limit: MOST };
      const path = { id: this.run };
      const found = await got(api.GET('/api/runs/{id}/ledger', { params: { path, query } }));
      this.fields.set(table, found.fields);
      for (const line of wanted) {
        const own = found.entries.filter((e) => e.line === line);
        this.known.set(`${table} ${line}`, own);
      }
    } catch (error) {
      this.failed(error);
    }
  }
}
