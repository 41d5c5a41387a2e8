import { api, got } from '../api/client';
import type { Connection, LedgerPage, RecordPage, TableCount, TableInfo } from '../api/types';
import { tell } from '../ui/toaster';

/** Records that are shown at once. */
export const PAGE = 100;

/** What is looked at: a table, or the records of it that a run touched, or a single one. */
export interface Wanted {
  connection: string;
  table: string;
  run: number | string | null;
  outcome: string | null;
  key: number | string | null;
}

/** The records of a table as they are: a page of them, and the one in hand. */
export class RecordsState {
  connections = $state.raw<Connection[]>([]);
  tables = $state.raw<TableCount[]>([]);
  info = $state.raw<TableInfo | null>(null);
  page = $state.raw<RecordPage | null>(null);
  /** Index of the page's first record among all. */
  offset = $state(0);
  /** Index of the record in hand on the page. */
  at = $state(0);
  /** True if one record is shown at a time. */
  single = $state(false);

  private wanted: Wanted | null = null;
  private search = '';
  private asked = 0;

  readonly record = $derived(this.page?.records[this.at]);
  readonly total = $derived(this.page?.total ?? 0);

  async loadConnections() {
    try {
      this.connections = await got(api.GET('/api/connections'));
    } catch (error) {
      tell(error);
    }
  }

  /** Lists a connection's tables; gives the one with the most records, null if there is none. */
  async loadTables(name: string): Promise<string | null> {
    try {
      this.tables = await got(
        api.GET('/api/connections/{name}/tables', { params: { path: { name } } }),
      );
    } catch (error) {
      tell(error);
      return null;
    }
    const fuller = (a: TableCount, b: TableCount) => ((b.records ?? 0) > (a.records ?? 0) ? b : a);
    return this.tables.length ? this.tables.reduce(fuller).name : null;
  }

  /** Looks at something else, from its beginning. */
  async look(wanted: Wanted, search: string) {
    this.wanted = wanted;
    this.search = search;
    this.offset = 0;
    this.at = 0;
    this.single = wanted.key != null;
    if (wanted.connection && wanted.table) await this.load();
  }

  async turn(by: number) {
    this.offset = Math.max(0, this.offset + by);
    this.at = 0;
    await this.load();
  }

  move(by: number) {
    this.at = Math.max(0, Math.min((this.page?.records.length ?? 1) - 1, this.at + by));
  }

  private async load() {
    if (!this.wanted) return;
    const mine = ++this.asked;
    const { connection, table, run, outcome, key } = this.wanted;
    try {
      const info = await got(
        api.GET('/api/connections/{name}/tables/{table}', {
          params: { path: { name: connection, table } },
        }),
      );
      const touched = run == null ? null : await this.touched(Number(run), outcome ?? 'new');
      const keys = touched
        ? touched.entries.map((e) => e.recordKey ?? '')
        : key == null
          ? undefined
          : [String(key)];
      const found = await got(
        api.GET('/api/connections/{connection}/tables/{table}/records', {
          params: {
            path: { connection, table },
            query: {
              search: this.search || undefined,
              key: keys,
              offset: keys ? 0 : this.offset,
              limit: PAGE,
            },
          },
        }),
      );
      // an answer that is late must not replace a newer one
      if (mine !== this.asked) return;
      this.info = info;
      this.page = touched ? { ...found, total: touched.total } : found;
    } catch (error) {
      if (mine === this.asked) tell(error);
    }
  }

  /** The lines of a run's ledger with an outcome. */
  private async touched(run: number, outcome: string): Promise<LedgerPage> {
    return await got(
      api.GET('/api/runs/{id}/ledger', {
        params: { path: { id: run }, query: { outcome, offset: this.offset, limit: PAGE } },
      }),
    );
  }
}
