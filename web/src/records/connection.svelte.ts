import { api, got } from '../api/client';
import type { Connection } from '../api/types';
import { blank, KINDS, putTogether, takeApart, type Kind, type Parts } from './address';

/** A connection while it is filled in: a new one, or one that is changed. */
export class ConnectionForm {
  name = $state('');
  shownName = $state('');
  user = $state('');
  password = $state('');
  parts = $state<Parts>(blank('postgresql'));
  readOnly = $state(false);
  /** The tables that are offered, parted by commas or lines; empty for all. */
  tables = $state('');
  /** Seconds, and connections at a time; empty for what is usual. */
  statementSeconds = $state('');
  lockSeconds = $state('');
  atATime = $state('');
  certificate = $state('');
  refusal = $state('');
  tried = $state('');
  busy = $state(false);
  /** The one that is changed; null if it is a new one. */
  readonly changes: Connection | null;

  constructor(changes: Connection | null = null) {
    this.changes = changes;
    if (changes) {
      this.name = changes.name;
      this.shownName = changes.shownName;
      this.user = changes.user;
      this.parts = takeApart(changes.url) ?? blank('postgresql');
      const { settings } = changes;
      this.readOnly = settings.readOnly;
      this.tables = (settings.tables ?? []).join(', ');
      this.statementSeconds = String(settings.statementSeconds ?? '');
      this.lockSeconds = String(settings.lockSeconds ?? '');
      this.atATime = String(settings.atATime ?? '');
      this.certificate = settings.certificate ?? '';
    }
  }

  get kind(): Kind {
    return this.parts.kind;
  }

  /** Another kind keeps what both have. */
  set kind(kind: Kind) {
    this.parts = { ...this.parts, kind, port: '', settings: {} };
    this.tried = this.refusal = '';
  }

  get isFile(): boolean {
    return KINDS[this.kind].port === undefined;
  }

  /** Settings that have no place of their own in the form. */
  get others(): string[] {
    const { tls, schema } = KINDS[this.kind];
    // a database that is not there is never made, whatever the address says
    const placed = [tls, schema, 'IFEXISTS'];
    return Object.keys(this.parts.settings).filter((name) => !placed.includes(name));
  }

  set(name: string, value: string) {
    this.parts.settings = { ...this.parts.settings, [name]: value };
  }

  /** True if anything is said that most connections do without. */
  get saysMore(): boolean {
    return [
      this.tables,
      this.statementSeconds,
      this.lockSeconds,
      this.atATime,
      this.certificate,
    ].some((said) => said !== '');
  }

  /** True if TLS asks who vouches for the database. */
  get verifies(): boolean {
    const { tls } = KINDS[this.kind];
    return !!tls && (this.parts.settings[tls] ?? '').startsWith('verify-');
  }

  private settings() {
    const number = (said: string) => (said.trim() === '' ? undefined : Number(said));
    return {
      readOnly: this.readOnly,
      tables: this.tables
        .split(/[,\n]/)
        .map((table) => table.trim())
        .filter(Boolean),
      statementSeconds: number(this.statementSeconds),
      lockSeconds: number(this.lockSeconds),
      atATime: number(this.atATime),
      certificate: this.verifies && this.certificate.trim() ? this.certificate : undefined,
    };
  }

  private body() {
    const kept = this.changes && this.password === '';
    return {
      shownName: this.shownName,
      url: putTogether(this.parts),
      user: this.user,
      password: kept ? undefined : this.password,
      settings: this.settings(),
    };
  }

  private async do(work: () => Promise<void>): Promise<boolean> {
    this.busy = true;
    this.refusal = this.tried = '';
    try {
      await work();
      return true;
    } catch (error) {
      this.refusal = error instanceof Error ? error.message : String(error);
      return false;
    } finally {
      this.busy = false;
    }
  }

  /** Says what answers there, and keeps nothing. */
  async try() {
    await this.do(async () => {
      const found = await got(
        api.POST('/api/connections/try', {
          body: { ...this.body(), name: this.changes?.name },
        }),
      );
      this.tried = `${found.database} answers: ${found.tables} ${found.tables === 1 ? 'table' : 'tables'}.`;
    });
  }

  /** Keeps it; true if it is kept. */
  async keep(): Promise<boolean> {
    return this.do(async () => {
      const body = this.body();
      if (this.changes) {
        await got(
          api.PUT('/api/connections/{name}', { params: { path: { name: this.name } }, body }),
        );
      } else {
        await got(
          api.POST('/api/connections', {
            body: { ...body, name: this.name, password: this.password },
          }),
        );
      }
    });
  }
}
