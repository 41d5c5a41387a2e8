import { api, ApiError, got } from '../api/client';
import type { Fill, StageTable, Step, Trial } from '../api/types';
import type { OpenPlan } from '../plan/plan.svelte';
import { tell } from '../ui/toaster';
import { withStep } from './repairs';

const PAGE = 40;
const MORE = 200;

/** The stage table of a field: its rows, the steps that could be added, and one that is tried. */
export class Stages {
  table = $state.raw<StageTable | null>(null);
  /** Why the fill can't be shown; empty if it can. */
  refusal = $state('');
  /** Rows that are shown at most. */
  limit = $state(PAGE);
  /** Names of the phrasebooks that there are. */
  books = $state.raw<string[]>([]);
  /** Goes up when a phrasebook has learnt something. */
  words = $state(0);

  /** True while a step is looked for. */
  choosing = $state(false);
  /** Steps that could be added, the most useful first; null until they were tried. */
  trials = $state.raw<Trial[] | null>(null);
  /** A step that is tried and not yet kept. */
  trial = $state.raw<{ fill: Fill; at: number } | null>(null);
  /** Index of the step whose formula is being written; under 0 if none is. */
  editing = $state(-1);

  /** Where the person wants the new step; under 0 for wherever it helps. */
  private wantedAt = -1;
  private asked = 0;

  readonly kept: Fill | undefined = $derived.by(() => this.open.fill(this.field, this.at));
  readonly fill: Fill | undefined = $derived(this.trial?.fill ?? this.kept);
  readonly filledHere = $derived(!!this.fill && this.fill.origin.kind !== 'database');

  /**
   * @param at number of the destination that the field is of
   */
  constructor(
    private readonly open: OpenPlan,
    private readonly field: string,
    private readonly at = open.view.shown,
  ) {}

  async loadBooks() {
    try {
      const shared = (await got(api.GET('/api/phrasebooks'))).map((b) => b.name);
      const own = this.open.plan.phrasebooks.map((b) => b.name);
      this.books = [...own, ...shared.filter((name) => !own.includes(name))];
    } catch (error) {
      tell(error);
    }
  }

  /** Computes the table for the fill as it is, or as it is tried. */
  async load() {
    const mine = ++this.asked;
    const fill = this.fill;
    if (!fill || !this.filledHere) {
      this.table = null;
      return;
    }
    try {
      const answer = await got(
        api.POST('/api/plans/{id}/stages', {
          params: { path: { id: this.open.view.id }, query: { destination: this.at } },
          body: { fill, offset: 0, limit: this.limit },
        }),
      );
      if (mine !== this.asked) return;
      this.table = answer;
      this.refusal = '';
      if (!this.trial) void this.rank(fill, mine);
    } catch (error) {
      if (mine !== this.asked) return;
      if (error instanceof ApiError && error.status === 422) this.refusal = error.message;
      else tell(error);
    }
  }

  /** Tries all steps, so that the failing cells can offer those that free them. */
  private async rank(fill: Fill, mine: number) {
    try {
      const ranked = await got(
        api.POST('/api/plans/{id}/trials', {
          params: { path: { id: this.open.view.id }, query: { destination: this.at } },
          body: { fill, at: this.wantedAt },
        }),
      );
      if (mine === this.asked) this.trials = ranked;
    } catch (error) {
      if (!(error instanceof ApiError)) tell(error);
    }
  }

  showMore() {
    this.limit += MORE;
  }

  /** A phrasebook has learnt something: its rows are computed anew. */
  learnt() {
    this.words++;
    void this.open.refresh();
  }

  put(changed: Fill) {
    this.trial = null;
    this.trials = null;
    this.open.putFill(changed, this.at);
  }

  /** Looks for a step to add at a place; under 0 for wherever it helps. */
  addAt(at: number) {
    if (!this.kept || !this.filledHere) return;
    this.choosing = true;
    this.trial = null;
    if (at !== this.wantedAt || !this.trials) {
      this.wantedAt = at;
      this.trials = null;
      void this.rank(this.kept, this.asked);
    }
  }

  tryStep(step: Step, at: number) {
    if (this.kept) this.trial = { fill: withStep(this.kept, at, step), at };
  }

  /** Keeps the step that is tried; a formula is written next. */
  keep() {
    if (!this.trial) return;
    const { fill, at } = this.trial;
    this.leave();
    this.put(fill);
    if (fill.steps[at]?.kind === 'formula') this.editing = at;
  }

  /** Adds no step after all. */
  leave() {
    this.trial = null;
    this.choosing = false;
    if (this.wantedAt >= 0) this.trials = null;
    this.wantedAt = -1;
  }

  /** Begins or ends writing the formula of a step. */
  edit(step: number) {
    this.editing = this.editing === step ? -1 : step;
  }
}
