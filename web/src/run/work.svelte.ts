import { api, got } from '../api/client';
import type { RunView, Work as Going } from '../api/types';
import { count, many } from '../ui/words';

/** What a rehearsal, run or undo is called. */
export function nameOf(going: { kind: string; number?: string; planName: string }): string {
  if (going.kind === 'rehearsal') return `Rehearsal of ${going.planName}`;
  const kind = going.kind === 'undo' ? 'Undo' : 'Run';
  return `${kind} ${going.number ?? ''}`.trim();
}

/** A time that is left, as people say it. */
export function left(seconds: number): string {
  if (seconds < 50) return `${Math.max(1, Math.round(seconds))} s left`;
  const minutes = Math.round(seconds / 60);
  return minutes < 60
    ? `${Math.max(1, minutes)} min left`
    : `${Math.floor(minutes / 60)} h ${minutes % 60} min left`;
}

/** Nobody is told that a rehearsal writes. */
function phaseOf({ kind, phase }: Going): string {
  if (phase !== 'writing') return phase;
  return kind === 'rehearsal' ? 'deciding' : kind === 'undo' ? 'taking back' : phase;
}

/** About what part of it is matching. */
const MATCHING = 0.35;

/** How far something has come, as a part of all of it. */
export function shareOf(going: Going | null): number {
  if (!going?.total) return 0;
  const share = going.rows / going.total;
  // nothing is matched for an undo
  if (going.kind === 'undo') return going.phase === 'writing' ? share : 0;
  if (going.phase === 'matching') return MATCHING * share;
  return going.phase === 'writing' ? MATCHING + (1 - MATCHING) * share : 0;
}

/** How far something has come, in words. */
export function wordsOf(going: Going): string {
  if (going.phase === 'waiting')
    return going.behind ? `waits for ${going.behind}` : 'waits for its turn';
  const parts = [`${phaseOf(going)}, ${count(going.rows)} of ${many(going.total, 'row')}`];
  if (going.rejected) parts.push(`${count(going.rejected)} rejected`);
  if (going.perSecond) parts.push(`${count(going.perSecond)} a second`);
  if (going.secondsLeft != null && going.phase !== 'matching') parts.push(left(going.secondsLeft));
  return parts.join(', ');
}

/** What is rehearsed, run or taken back just now, by anybody; shown on every screen. */
export class Work {
  going = $state.raw<Going[]>([]);
  /** What this page has begun and waits for. */
  current = $state.raw<RunView | null>(null);
  stand = $derived(this.going.find((g) => g.id === this.current?.id) ?? null);
  words = $derived.by(() => {
    const shown = this.stand ?? this.going[0];
    if (!shown) return this.current ? 'It is about to begin' : 'Nothing running';
    const others = this.going.length - 1;
    return `${nameOf(shown)}: ${wordsOf(shown)}${others ? `, and ${many(others, 'other')}` : ''}`;
  });

  private events: EventSource | undefined;
  private woken: (() => void)[] = [];
  private ended: ((gone: Going) => void)[] = [];

  /** Hears of everything from now on, as long as the page is seen. */
  listen() {
    if (this.events || typeof EventSource === 'undefined' || document.hidden) return;
    this.events = new EventSource('/api/going-on/events');
    this.events.addEventListener('work', (event) =>
      this.hear(JSON.parse((event as MessageEvent<string>).data) as Going[]),
    );
  }

  /** Hears no more; a page that is not seen holds no connection open. */
  deafen() {
    this.events?.close();
    this.events = undefined;
  }

  hear(all: Going[]) {
    const gone = this.going.filter((g) => !all.some((a) => a.id === g.id));
    this.going = all;
    if (gone.length) {
      this.woken.splice(0).forEach((wake) => wake());
      for (const one of gone) this.ended.forEach((hear) => hear(one));
    }
  }

  /** Calls back when something that was going has ended; gives what stops that. */
  whenEnded(hear: (gone: Going) => void): () => void {
    this.ended = [...this.ended, hear];
    return () => {
      this.ended = this.ended.filter((h) => h !== hear);
    };
  }

  /** Follows a rehearsal, run or undo to its end and gives what came of it. */
  async follow(started: RunView): Promise<RunView> {
    this.current = started;
    try {
      return await this.result(started.id);
    } finally {
      this.current = null;
    }
  }

  /** Asks whenever anything has ended, and now and then, should the events have broken off. */
  private async result(id: number): Promise<RunView> {
    for (let asked = 0; ; asked++) {
      const run = await got(api.GET('/api/runs/{id}', { params: { path: { id } } }));
      // one that is being made lasting and has a message waits for its database
      const open = run.state === 'going' || (run.state === 'committing' && !run.message);
      if (!open) return run;
      await this.awake(asked < 5 ? 150 : 1000);
    }
  }

  private awake(millis: number): Promise<void> {
    return new Promise((resolve) => {
      this.woken.push(resolve);
      setTimeout(resolve, millis);
    });
  }

  /** Has something end; what it has written in batches stays. */
  async stop(id: number) {
    await api.POST('/api/runs/{id}/stop', { params: { path: { id } } });
  }
}

export const work = new Work();
