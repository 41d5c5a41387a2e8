import { api, ApiError, bring, got, peekAt } from '../api/client';
import type {
  Connection,
  Peek,
  PlanSummary,
  Proposal,
  Reached,
  RunView,
  Source,
} from '../api/types';
import { tell } from '../ui/toaster';
import { untilRead } from './reached';

/** Bytes from which on the first rows are asked for while the file is still on its way. */
const LARGE = 4_000_000;

/** Where a proposal leads: a plan and the stop that is looked at first. */
export interface Begun {
  plan: number;
  stop: 'fill' | 'read';
}

/** What lies on the desk: what was done last, and the file that is being brought in. */
export class DeskState {
  runs = $state.raw<RunView[]>([]);
  plans = $state.raw<PlanSummary[]>([]);
  connections = $state.raw<Connection[]>([]);
  loaded = $state(false);
  /** Name of the connection that the file goes into. */
  connection = $state('');

  /** Name of the file on its way. */
  arriving = $state('');
  /** Part of it that is here, from 0 to 1; null if none is on its way. */
  share = $state<number | null>(null);
  /** Its first rows. */
  peek = $state.raw<Peek | null>(null);
  /** How far it is read. */
  reached = $state.raw<Reached | null>(null);
  refusal = $state.raw<{ name: string; why: string } | null>(null);

  source = $state.raw<Source | null>(null);
  proposals = $state.raw<Proposal[]>([]);
  /** Tables of the connection. */
  tables = $state.raw<string[]>([]);

  async load() {
    try {
      [this.runs, this.plans, this.connections] = await Promise.all([
        got(api.GET('/api/runs', { params: { query: { limit: 12 } } })),
        got(api.GET('/api/plans')),
        got(api.GET('/api/connections')),
      ]);
      this.connection = this.connections[0]?.name ?? '';
    } catch (error) {
      tell(error);
    }
    this.loaded = true;
  }

  /** Looks what has been brought in meanwhile. */
  async loadRuns() {
    try {
      this.runs = await got(api.GET('/api/runs', { params: { query: { limit: 12 } } }));
    } catch {
      // those that were shown stay
    }
  }

  /** Brings a file in, and proposes what could become of it. */
  async take(file: File | undefined) {
    if (!file) return;
    this.refusal = null;
    this.source = null;
    this.proposals = [];
    this.arriving = file.name;
    this.share = 0;
    try {
      if (file.size > LARGE) void this.peekInto(file);
      let brought = await bring(file, (share) => (this.share = share));
      if (brought.state === 'reading') brought = await this.readThrough(brought.id);
      this.source = brought;
      await this.propose();
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error);
      if (!(error instanceof ApiError && error.code === 'signed-out'))
        this.refusal = { name: file.name, why };
    } finally {
      this.share = null;
      this.peek = null;
    }
  }

  private async peekInto(file: File) {
    try {
      const first = await peekAt(file);
      this.peek = this.share === null ? null : first;
    } catch {
      // it is a courtesy; the file itself says what is wrong with it
    }
  }

  /** Shows the first rows while a large file is read to its end. */
  private async readThrough(id: number): Promise<Source> {
    const path = { id };
    this.peek ??= await got(api.GET('/api/sources/{id}/peek', { params: { path } }));
    try {
      await untilRead(id, (reached) => (this.reached = reached));
      return await got(api.GET('/api/sources/{id}', { params: { path } }));
    } finally {
      this.reached = null;
    }
  }

  /** What a connection other than the one at hand is called; null for that one. */
  elsewhere(connection: string | undefined): string | null {
    if (!connection || connection === this.connection) return null;
    return this.connections.find((c) => c.name === connection)?.shownName ?? connection;
  }

  /** Goes into another connection. */
  async goInto(connection: string) {
    this.connection = connection;
    try {
      await this.propose();
    } catch (error) {
      tell(error);
    }
  }

  private async propose() {
    if (!this.source || !this.connection) return;
    const path = { source: this.source.id };
    const query = { connection: this.connection };
    this.proposals = await got(
      api.GET('/api/sources/{source}/proposals', { params: { path, query } }),
    );
    try {
      const path = { name: this.connection };
      const found = await got(api.GET('/api/connections/{name}/tables', { params: { path } }));
      this.tables = found.map((t) => t.name);
    } catch (error) {
      // what others have for the file stands
      this.tables = [];
      tell(error);
    }
  }

  /**
   * Takes a proposal up; null if that did not come about, which is told.
   *
   * @param besides true if the tables that belong to it are filled as well
   */
  async begin(
    proposal: { plan?: number; table: string; connection?: string },
    besides = false,
  ): Promise<Begun | null> {
    if (!this.source) return null;
    const source = this.source.id;
    try {
      if (proposal.plan) {
        const view = await got(
          api.PUT('/api/plans/{id}/source', {
            params: { path: { id: proposal.plan } },
            body: { source },
          }),
        );
        // a file unlike the last one is looked at first
        return { plan: proposal.plan, stop: view.source.changes.length ? 'read' : 'fill' };
      }
      const connection = proposal.connection ?? this.connection;
      const body = { source, connection, table: proposal.table, besides };
      const made = await got(api.POST('/api/plans', { body }));
      return { plan: made.id, stop: 'fill' };
    } catch (error) {
      tell(error);
      return null;
    }
  }
}
