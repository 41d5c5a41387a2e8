import { session } from '../account/session.svelte';
import { api, ApiError, got } from '../api/client';
import type {
  Correction,
  Destination,
  Fill,
  MatchClasses,
  Plan,
  PlanView,
  Reading,
  RecountView,
  RunView,
  TableInfo,
  UndoRequest,
} from '../api/types';
import { work } from '../run/work.svelte';
import { tell } from '../ui/toaster';

const PAUSE = 250;
/** How long nothing more is answered before it is rehearsed anew. */
const ANSWERED = 700;
/** Fewer rows are rehearsed so fast that nothing is counted before. */
const FEW = 20_000;
/** More rows than these are rehearsed only when somebody says so. */
const MOST_AT_ONCE = 200_000;

/**
 * A plan that is open. Edits show at once and are saved after a moment; what could not be saved is
 * kept here and tried again.
 */
export class OpenPlan {
  view = $state.raw<PlanView>()!;
  plan = $state.raw<Plan>()!;
  /** Index of the record that all bands show, from 0. */
  cursor = $state(0);
  field = $state('');
  /** The class of rows whose pairs Match shows. */
  matchClass = $state<MatchClasses['of']>('one');
  saving = $state<'saved' | 'saving' | 'unsaved'>('saved');
  refusal = $state('');
  conflict = $state('');
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

  /** Fields that the last save has drafted anew, since the file is read otherwise. */
  followed = $state.raw<string[]>([]);

  private past = $state.raw<Plan[]>([]);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private answered: ReturnType<typeof setTimeout> | undefined;
  private counting = 0;
  /** Number of the destination that somebody wants to see. */
  private wanted = 0;
  private pending: Promise<void> = Promise.resolve();

  /** The destination that is shown; its table, troubles and so on are those of the view. */
  destination: Destination = $derived(
    this.plan.destinations[this.view.shown] ?? this.plan.destinations[0]!,
  );
  /** What the plan calls it. */
  name = $derived(this.view.tables[this.view.shown]!.name);
  /** Says of a request which destination it is about. */
  into = $derived({ destination: this.view.shown });
  /** Values that can't be taken, and those of them that an answer would free; in all tables. */
  trouble = $derived(this.view.tables.reduce((sum, t) => sum + t.troubled, 0));
  questions = $derived(this.view.tables.reduce((sum, t) => sum + t.questions, 0));
  /** What keeps the plan from being rehearsed, with the number of the destination. */
  matters = $derived(
    this.view.tables.flatMap((t, at) => t.matters.map((matter) => ({ ...matter, at }))),
  );
  /** Fields that a draft fills on slight evidence, which nobody has confirmed; in all tables. */
  guesses = $derived(
    this.plan.destinations.flatMap((d, at) =>
      d.fills.filter((f) => f.guess).map((f) => ({ at, field: f.field })),
    ),
  );
  /** The last run, where one of old is shown in its place. */
  private newestRun = $state(0);
  /** True if the last rehearsal is of this plan and this file as they stand. */
  rehearsed = $derived(
    this.rehearsal?.state === 'done' &&
      this.rehearsal.revision === this.view.revision &&
      this.rehearsal.source === this.view.source.name &&
      this.saving === 'saved' &&
      this.answersKnown === this.answers &&
      Math.max(this.newestRun, this.run?.id ?? 0) < this.rehearsal.id,
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
    const [first, ...others] = report?.destinations ?? [];
    if (!report || !first || !this.recounted) return report;
    return { ...report, destinations: [{ ...first, ...this.recounted.counts }, ...others] };
  });
  /** True if the last run is of this plan and this file as they stand. */
  ran = $derived(
    this.run?.kind === 'run' &&
      this.run.state === 'done' &&
      !this.run.undoneBy &&
      this.run.revision === this.view.revision,
  );
  canUndo = $derived(this.past.length > 0);

  constructor(view: PlanView) {
    this.take(view);
    this.field = this.firstField();
  }

  /** The field of the table shown that needs somebody most. */
  private firstField(): string {
    const { view } = this;
    return (
      view.matters.find((m) => m.code === 'required-field')?.field ??
      this.guesses.find((g) => g.at === view.shown)?.field ??
      view.troubles.find((t) => t.rows > 0)?.field ??
      this.destination.fills[0]?.field ??
      view.table.fields[0]?.name ??
      ''
    );
  }

  /** Shows another of the tables that the plan fills. */
  async show(at: number, field?: string) {
    if (this.plan.destinations[at] && at !== this.view.shown) {
      this.wanted = at;
      await this.refresh();
    }
    if (this.view.shown === at) this.field = field ?? this.firstField();
  }

  static async open(id: number): Promise<OpenPlan> {
    const path = { id };
    const open = new OpenPlan(await got(api.GET('/api/plans/{id}', { params: { path } })));
    await open.refreshLast();
    return open;
  }

  private take(view: PlanView) {
    this.view = view;
    this.plan = view.plan;
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

  /** How a field is filled, in the table shown or another one. */
  fill(field: string, at = this.view.shown): Fill | undefined {
    return this.plan.destinations[at]?.fills.find((f) => f.field === field);
  }

  /** The table of what the plan calls so; itself if it fills no such one any more. */
  tableOf(name: string): string {
    return this.view.tables.find((t) => t.name === name)?.table ?? name;
  }

  /** Changes the plan; the change can be unmade. */
  edit(change: (plan: Plan) => Plan) {
    this.past = [...this.past.slice(-49), this.plan];
    this.plan = change(this.plan);
    this.saveSoon();
  }

  editDestination(change: (destination: Destination) => Destination, at = this.view.shown) {
    this.edit((plan) => ({
      ...plan,
      destinations: plan.destinations.map((d, i) => (i === at ? change(d) : d)),
    }));
  }

  /**
   * Lets the rows fill a further table, and shows it. What the table in hand links to is written
   * before it, once for each key.
   */
  async addTable(further: Destination) {
    const { shown, table } = this.view;
    const isLinked = table.fields.some((f) => f.link?.table === further.table);
    const before = isLinked && !further.parent && further.keys.length > 0;
    const at = before ? shown : this.plan.destinations.length;
    const added = before ? { ...further, distinct: true } : further;
    this.edit((plan) => ({ ...plan, destinations: plan.destinations.toSpliced(at, 0, added) }));
    await this.save();
    if (this.saving === 'saved') {
      this.wanted = at;
      await this.refresh();
      this.field = this.firstField();
    }
  }

  /** Lets the rows fill the table in hand no longer; the first is shown. */
  async dropTable() {
    const at = this.view.shown;
    await this.show(at ? 0 : 1);
    this.wanted = 0;
    this.edit((plan) => ({ ...plan, destinations: plan.destinations.toSpliced(at, 1) }));
    await this.save();
  }

  /** Puts a fill in the place of the field's old one. What a person puts is no guess. */
  putFill(fill: Fill, at = this.view.shown) {
    const sure = { ...fill, guess: undefined };
    this.editDestination(
      (d) => ({ ...d, fills: [...d.fills.filter((f) => f.field !== fill.field), sure] }),
      at,
    );
  }

  /** Settles that a field is filled as the draft guessed, and goes on to the next guess. */
  confirm(field: string, at = this.view.shown) {
    const fill = this.fill(field, at);
    if (!fill?.guess) return;
    this.putFill(fill, at);
    this.field = this.guesses.find((g) => g.at === this.view.shown)?.field ?? this.field;
  }

  /** Reads cells as other texts, as long as they hold what they hold now. */
  correct(...corrections: Correction[]) {
    this.edit((plan) => ({
      ...plan,
      corrections: corrections.reduce((all, correction) => {
        const { line, column } = correction;
        const before = all.find((c) => c.line === line && c.column === column);
        // a cell that is corrected once more still holds in the file what it held
        const was = before?.now === correction.was ? before.was : correction.was;
        return [...all.filter((c) => c !== before), { ...correction, was }];
      }, plan.corrections),
    }));
  }

  /** Reads a cell as it stands in the file again. */
  uncorrect(correction: Correction) {
    this.edit((plan) => ({
      ...plan,
      corrections: plan.corrections.filter(
        (c) => c.line !== correction.line || c.column !== correction.column,
      ),
    }));
  }

  putReading(reading: Reading) {
    this.edit((plan) => ({ ...plan, reading }));
  }

  unmake() {
    const before = this.past.at(-1);
    if (!before) return;
    this.past = this.past.slice(0, -1);
    this.plan = before;
    this.saveSoon();
  }

  private saveSoon() {
    this.saving = 'unsaved';
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), PAUSE);
  }

  /** Saves what is unsaved; resolves once it is. */
  save(): Promise<void> {
    clearTimeout(this.timer);
    this.pending = this.pending.then(() => this.saveNow());
    return this.pending;
  }

  private async saveNow() {
    if (this.saving === 'saved' || this.conflict) return;
    const sent = this.plan;
    this.saving = 'saving';
    try {
      const view = await got(
        api.PUT('/api/plans/{id}', {
          params: { path: { id: this.view.id }, query: { destination: this.wanted } },
          body: { revision: this.view.revision, plan: sent },
        }),
      );
      this.view = view;
      this.refusal = '';
      const unchanged = this.plan === sent;
      this.followed = view.followed;
      if (view.followed.length) this.takeDraft(view);
      this.takeColumns(sent.reading.columns, view.plan.reading.columns);
      if (unchanged) {
        this.saving = 'saved';
      } else {
        this.saveSoon();
      }
    } catch (error) {
      this.saving = 'unsaved';
      this.onRefused(error);
    }
  }

  /** Takes what the server has drafted anew; what was changed here meanwhile stays. */
  private takeDraft(view: PlanView) {
    const into = view.plan.destinations[view.drafted]!;
    const drafted = (f: Fill) => view.followed.includes(f.field);
    this.plan = {
      ...this.plan,
      destinations: this.plan.destinations.map((d, i) =>
        i === view.drafted
          ? {
              ...d,
              keys: into.keys,
              fills: [...d.fills.filter((f) => !drafted(f)), ...into.fills.filter(drafted)],
            }
          : d,
      ),
    };
  }

  /** Takes the columns that the file has once it is read otherwise. */
  private takeColumns(sent: Reading['columns'], columns: Reading['columns']) {
    const isNew = JSON.stringify(sent) !== JSON.stringify(columns);
    if (isNew && this.plan.reading.columns === sent)
      this.plan = { ...this.plan, reading: { ...this.plan.reading, columns } };
  }

  private onRefused(error: unknown) {
    if (error instanceof ApiError && (error.status === 401 || error.status === 403)) {
      session.whenBack(() => void this.save());
    } else if (error instanceof ApiError && error.code === 'changed-meanwhile') {
      this.conflict = error.message;
    } else if (error instanceof ApiError && error.status === 422) {
      this.refusal = error.message;
    } else {
      tell(error);
    }
  }

  /** Asks for the counts anew: something that the plan refers to has changed. */
  async refresh() {
    await this.save();
    const view = await this.found();
    if (view.revision === this.view.revision) this.view = view;
  }

  private found(destination = this.wanted): Promise<PlanView> {
    const params = { path: { id: this.view.id }, query: { destination } };
    return got(api.GET('/api/plans/{id}', { params }));
  }

  /** One of the tables that the plan fills. */
  async tableAt(at: number): Promise<TableInfo> {
    return at === this.view.shown ? this.view.table : (await this.found(at)).table;
  }

  /** Takes the plan as somebody else saved it. */
  async reload() {
    // it may fill fewer tables by now
    this.wanted = 0;
    this.take(await this.found());
    this.past = [];
    this.conflict = '';
    this.saving = 'saved';
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
