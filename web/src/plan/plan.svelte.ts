// An open plan: what is edited, what the last rehearsal says of it, and what its runs did.
import { api, got } from '../api/client';
import type { RecountView, RunView, UndoRequest } from '../api/types';
import { work } from '../run/work.svelte';
import { tell } from '../ui/toaster';
import { EditedPlan } from './edited.svelte';

/** How long nothing more is answered before it is rehearsed anew. */
const ANSWERED = 700;
/** Fewer rows are rehearsed so fast that nothing is counted before. */
const FEW = 20_000;
/** More rows than these are rehearsed only when somebody says so. */
const MOST_AT_ONCE = 200_000;

/** A plan that is open, with its last rehearsal and its last run. */
export class OpenPlan extends EditedPlan {
  rehearsal = $state.raw<RunView | null>(null);
  /**
   * How often something was answered or mended: a phrasebook may have changed, though the plan has
   * not.
   */
  answers = $state(0);
  /** Those of them that the last rehearsal knew of. */
  answersKnown = $state(0);
  /** The last rehearsal counted anew, once answers have changed what it says. */
  private recount = $state.raw<RecountView | null>(null);
  run = $state.raw<RunView | null>(null);
  busy = $state<'' | 'rehearsal' | 'run' | 'undo'>('');

  private answered: ReturnType<typeof setTimeout> | undefined;
  private counting = 0;
  /** The last run, where one of old is shown in its place. */
  private newestRun = $state(0);
  /** True if the last rehearsal is of this plan and this file as they stand. */
  rehearsed = $derived(
    this.rehearsal?.state === 'done' &&
      this.rehearsal.revision === this.view.revision &&
      this.rehearsal.source === this.view.source.name &&
      this.saving === 'saved' &&
      this.answersKnown === this.answers &&
      // what was taken back has changed the records too
      Math.max(this.newestRun, this.run?.id ?? 0, this.run?.undoneBy?.id ?? 0) < this.rehearsal.id,
  );
  /** What became of the rows that answers touch, if the figures of the last rehearsal count them. */
  recounted = $derived(
    this.recount?.counts &&
      this.recount.rehearsal === this.rehearsal?.id &&
      this.recount.revision === this.view.revision &&
      this.saving === 'saved' &&
      !this.rehearsed
      ? this.recount
      : null,
  );
  /** The report of the last rehearsal, as far as it is known to hold for the plan as it is now. */
  report = $derived.by(() => {
    const report = this.rehearsal?.report;
    const counts = this.recounted?.counts;
    if (!report || !counts) return report;
    const destinations = report.destinations.map((one, at) => ({ ...one, ...counts[at] }));
    return { ...report, destinations };
  });
  /** True if the last run is of this plan and this file as they stand. */
  ran = $derived(
    this.run?.kind === 'run' &&
      this.run.state === 'done' &&
      !this.run.undoneBy &&
      this.run.revision === this.view.revision,
  );
  static async open(id: number): Promise<OpenPlan> {
    const path = { id };
    const open = new OpenPlan(await got(api.GET('/api/plans/{id}', { params: { path } })));
    await open.refreshLast();
    return open;
  }

  async refreshLast() {
    const last = await got(
      api.GET('/api/plans/{plan}/last', { params: { path: { plan: this.view.id } } }),
    );
    this.rehearsal = last.rehearsal ?? null;
    this.run = last.run ?? null;
  }

  /** Shows a run of old in the place of the last one. */
  async showRun(id: number) {
    if (this.run?.id === id) return;
    const run = await got(api.GET('/api/runs/{id}', { params: { path: { id } } }));
    if (run.plan === this.view.id && run.kind !== 'rehearsal') {
      this.newestRun = Math.max(this.newestRun, this.run?.id ?? 0);
      this.run = run;
    }
  }

  /** Rehearses anew once nothing more is answered or mended for a moment. */
  rehearseSoon() {
    this.answers++;
    if (this.view.source.rows > FEW) void this.countAnswers();
    this.rehearseInAMoment();
  }

  private rehearseInAMoment() {
    clearTimeout(this.answered);
    if (this.view.source.rows > MOST_AT_ONCE) return;
    this.answered = setTimeout(() => void this.rehearse(), ANSWERED);
  }

  /** Counts anew what becomes of the rows that answers touch. */
  private async countAnswers() {
    const mine = ++this.counting;
    await this.save();
    if (mine !== this.counting || this.saving !== 'saved') return;
    try {
      const path = { plan: this.view.id };
      const counted = await got(api.POST('/api/plans/{plan}/recount', { params: { path } }));
      if (mine !== this.counting) return;
      const before = this.recount?.rehearsal === counted.rehearsal ? this.recount : null;
      this.recount = { ...counted, rows: counted.rows + (before?.rows ?? 0) };
    } catch (error) {
      tell(error);
    }
  }

  async rehearse(): Promise<RunView | null> {
    const known = this.answers;
    const path = { plan: this.view.id };
    return this.go(
      'rehearsal',
      () => got(api.POST('/api/plans/{plan}/rehearsals', { params: { path } })),
      (finished) => {
        this.rehearsal = finished;
        this.answersKnown = known;
        // what was answered meanwhile is still to be counted
        if (known !== this.answers) this.rehearseInAMoment();
      },
    );
  }

  async start(): Promise<RunView | null> {
    const path = { plan: this.view.id };
    return this.go(
      'run',
      () => got(api.POST('/api/plans/{plan}/runs', { params: { path } })),
      async (finished) => {
        this.run = finished;
        await this.look();
      },
    );
  }

  /** Goes on with a run that was cut off between two batches. */
  async resume(run: RunView): Promise<RunView | null> {
    return this.follow('run', () =>
      got(api.POST('/api/runs/{id}/resume', { params: { path: { id: run.id } } })),
    );
  }

  /** Takes a run back; what came of it is shown in its place. */
  async undo(run: RunView, request: UndoRequest): Promise<RunView | null> {
    const path = { id: run.id };
    return this.follow('undo', () =>
      got(api.POST('/api/runs/{id}/undo', { params: { path }, body: request })),
    );
  }

  /** Shows what came of a run or undo that this page has not begun itself, or has lost sight of. */
  async ended(id: number) {
    const known = this.run?.id === id && this.run.state !== 'going';
    if (this.busy || known) return;
    try {
      this.run = await got(api.GET('/api/runs/{id}', { params: { path: { id } } }));
      await this.look();
    } catch (error) {
      tell(error);
    }
  }

  /** Begins something that writes, and shows what came of it in the place of the last run. */
  private async follow(busy: 'run' | 'undo', begin: () => Promise<RunView>) {
    if (this.busy) return null;
    this.busy = busy;
    try {
      this.run = await work.follow(await begin());
      await this.look();
      return this.run;
    } catch (error) {
      tell(error);
      return null;
    } finally {
      this.busy = '';
    }
  }

  /** Sees what the table holds now that it was written into. */
  private async look() {
    this.view = await this.found();
  }

  private async go(
    kind: 'rehearsal' | 'run',
    begin: () => Promise<RunView>,
    take: (finished: RunView) => void | Promise<void>,
  ) {
    if (this.busy || this.matters.length) return null;
    if (kind === 'run' && this.guesses.length) return null;
    this.busy = kind;
    try {
      await this.save();
      if (this.saving !== 'saved') return null;
      const finished = await work.follow(await begin());
      await take(finished);
      return finished;
    } catch (error) {
      tell(error);
      return null;
    } finally {
      this.busy = '';
    }
  }
}
