import { api, got } from '../api/client';
import type { RunView } from '../api/types';
import { count } from '../ui/words';

interface Stand {
  phase: string;
  rows: number;
  total: number;
  finished: boolean;
}

/** What is rehearsed or run just now; shown on every screen. */
class Work {
  current = $state.raw<RunView | null>(null);
  stand = $state.raw<Stand | null>(null);
  words = $derived.by(() => {
    if (!this.current || !this.stand) return 'Nothing running';
    const name =
      { run: `Run ${this.current.number ?? ''}`, undo: `Undo of ${this.current.undoes?.number}` }[
        this.current.kind
      ] ?? 'Rehearsal';
    if (this.stand.phase === 'waiting' && this.stand.total)
      return `${name}: waiting for another run into the same table`;
    return `${name}: ${this.stand.phase}, ${count(this.stand.rows)} of ${count(this.stand.total)} rows`;
  });

  /** Follows a rehearsal or run to its end and gives what came of it. */
  async follow(started: RunView): Promise<RunView> {
    this.current = started;
    this.stand = { phase: 'waiting', rows: 0, total: 0, finished: false };
    try {
      await this.listen(started.id);
      return await this.result(started.id);
    } finally {
      this.current = null;
      this.stand = null;
    }
  }

  private listen(id: number): Promise<void> {
    return new Promise((resolve) => {
      const events = new EventSource(`/api/runs/${id}/progress`);
      const end = () => {
        events.close();
        resolve();
      };
      events.addEventListener('stand', (event) => {
        const stand = JSON.parse((event as MessageEvent<string>).data) as Stand;
        if (stand.total) this.stand = stand;
        if (stand.finished) end();
      });
      events.onerror = end;
    });
  }

  /** Asks until it is no longer going, should the events have broken off. */
  private async result(id: number): Promise<RunView> {
    for (;;) {
      const run = await got(api.GET('/api/runs/{id}', { params: { path: { id } } }));
      // one that is being made lasting and has a message waits for its database
      const open = run.state === 'going' || (run.state === 'committing' && !run.message);
      if (!open) return run;
      await new Promise((resolve) => setTimeout(resolve, 500));
    }
  }
}

export const work = new Work();
