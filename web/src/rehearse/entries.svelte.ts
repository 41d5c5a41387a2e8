import { api, got } from '../api/client';
import type { LedgerEntry, ProblemGroup } from '../api/types';
import { Pages } from '../ui/pages.svelte';
import { letters } from '../ui/widths';

const PAGE = 100;

/** The value of a field as it stands once the row is written, or stood. */
export function held(entry: LedgerEntry, field: number): string {
  return entry.after[field] ?? entry.before?.[field] ?? '';
}

function longestOf(entries: LedgerEntry[], field: number): number {
  return Math.max(0, ...entries.map((e) => letters(held(e, field))));
}

/**
 * Entries of one kind only: of a line, that change a field, or that have a problem in one; and of
 * which table.
 */
export interface Only {
  /** The table's place in the plan, from 0; the first if it is not said. */
  table?: number;
  line?: number;
  changed?: string;
  problem?: ProblemGroup['code'];
  field?: string;
  /** The problem in words. */
  said?: string;
}

/** Entries of a ledger that fit what is looked for, fetched as they are looked at. */
export class Entries {
  private readonly pages: Pages<LedgerEntry[]>;
  private outcome = '';
  private search = '';
  private only: Only = {};
  /** Names of the fields whose values entries hold. */
  fields = $state.raw<string[]>([]);
  /** Letters of the longest value of each field, among the first entries. */
  longest = $state.raw<number[]>([]);
  /** How many entries fit; not known before the first page has come. */
  total = $state<number | undefined>();

  /**
   * @param run whose ledger it is
   * @param destination its place in the plan, from 0
   * @param parts true if rows that wait for an answer are no rejected ones
   */
  constructor(
    private readonly run: number,
    private readonly destination: number,
    private readonly parts: boolean,
    failed: (error: unknown) => void,
  ) {
    this.pages = new Pages((page) => this.fetch(page), failed);
  }

  /** Looks for entries of an outcome, of those that wait, or of all if it is '', that hold a text. */
  find(outcome: string, search: string, only: Only = {}) {
    this.only = only;
    this.outcome = outcome;
    this.search = search;
    this.total = undefined;
    this.pages.renew();
    this.pages.want(0, 0);
  }

  at(entry: number): LedgerEntry | undefined {
    return this.pages.at(Math.floor(entry / PAGE))?.[entry % PAGE];
  }

  /** Sees to it that entries come, from one to the one before another. */
  want(from: number, to: number) {
    if (to > from) this.pages.want(Math.floor(from / PAGE), Math.floor((to - 1) / PAGE));
  }

  /** What is looked for, as the server wants it said. */
  private get wanted() {
    const waits = this.outcome === 'waiting';
    const parted = this.parts && (waits || this.outcome === 'rejected');
    return {
      outcome: (waits ? 'rejected' : this.outcome) || undefined,
      waiting: parted ? waits : undefined,
      search: this.search || undefined,
      line: this.only.line ? [this.only.line] : undefined,
      changed: this.only.changed,
      problem: this.only.problem,
      field: this.only.field,
    };
  }

  private async fetch(page: number): Promise<LedgerEntry[]> {
    const { wanted } = this;
    const query = {
      ...wanted,
      destination: this.destination,
      offset: page * PAGE,
      limit: PAGE,
    };
    const path = { id: this.run };
    const found = await got(api.GET('/api/runs/{id}/ledger', { params: { path, query } }));
    // something else may be looked for meanwhile
    if (JSON.stringify(wanted) === JSON.stringify(this.wanted)) {
      this.fields = found.fields;
      this.total = found.total;
      if (!page) this.longest = found.fields.map((_, i) => longestOf(found.entries, i));
    }
    return found.entries;
  }
}
