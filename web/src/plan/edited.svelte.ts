import { session } from '../account/session.svelte';
import { api, ApiError, got } from '../api/client';
import type {
  Correction,
  Destination,
  Fill,
  FurtherTable,
  MatchClasses,
  Plan,
  PlanView,
  Reading,
  TableInfo,
} from '../api/types';
import { tell } from '../ui/toaster';
import { labelOf, putUnder, renamed, type Above } from './tables';

const PAUSE = 250;
/**
 * A plan that somebody edits. Edits show at once and are saved after a moment; what could not be
 * saved is kept here and tried again.
 */
export class EditedPlan {
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
  /** Fields that the last save has drafted anew, since the file is read otherwise. */
  followed = $state.raw<string[]>([]);

  private past = $state.raw<Plan[]>([]);
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** Number of the destination that somebody wants to see. */
  private wanted = 0;
  private pending: Promise<void> = Promise.resolve();

  /** The destination that is shown; its table, troubles and so on are those of the view. */
  destination: Destination = $derived(
    this.plan.destinations[this.view.shown] ?? this.plan.destinations[0]!,
  );
  /** What is told of it beside the others. */
  told = $derived(this.view.tables[this.view.shown]!);
  /** What the plan calls it. */
  name = $derived(this.told.name);
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

  private take(view: PlanView) {
    this.view = view;
    this.plan = view.plan;
  }

  /** True if nobody has confirmed how a field of the table shown is filled. */
  isGuess(field: string): boolean {
    return this.guesses.some((g) => g.field === field && g.at === this.view.shown);
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
   * before it, once for each key; records may belong to its own then.
   */
  async addTable({
    destination: further,
    above: below,
  }: Pick<FurtherTable, 'destination' | 'above'>) {
    const { shown, table } = this.view;
    const { destinations } = this.plan;
    const of = below ? destinations.findIndex((d) => labelOf(d) === below) : shown;
    const isLinked = of === shown && table.fields.some((f) => f.link?.table === further.table);
    const before = below || (isLinked && !further.parent && further.keys.length > 0);
    const at = before ? of : destinations.length;
    const added = before ? { ...further, distinct: true } : further;
    const parent = { destination: labelOf(further) };
    const all = below ? destinations.with(of, { ...destinations[of]!, parent }) : destinations;
    this.edit((plan) => ({ ...plan, destinations: all.toSpliced(at, 0, added) }));
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

  /** Lets records of the table in hand belong to those of another; to none if none is given. */
  async putUnder(to: Above | undefined) {
    const put = putUnder(this.plan.destinations, this.view.shown, to);
    const moved = put.at !== this.view.shown;
    this.edit((plan) => ({ ...plan, destinations: put.destinations }));
    this.wanted = put.at;
    if (moved) await this.save();
  }

  /** Calls the table in hand otherwise in this plan; by its own name if none is given. */
  rename(name: string) {
    this.edit((plan) => ({
      ...plan,
      destinations: renamed(plan.destinations, this.view.shown, name),
    }));
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
    // what is unmade may take a table away
    this.wanted = Math.min(this.wanted, sent.destinations.length - 1);
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

  protected found(destination = this.wanted): Promise<PlanView> {
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
}
