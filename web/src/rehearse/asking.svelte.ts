// What a rehearsal asks, and the answers that are given to it in place.
import { SvelteMap } from 'svelte/reactivity';
import { api, got } from '../api/client';
import type {
  Correction,
  FieldInfo,
  Fill,
  KeyAdvice,
  Origin,
  Question,
  Suggestion,
  TableInfo,
} from '../api/types';
import { learn, suggestions } from '../fill/answers';
import { lacking } from '../fill/origins';
import { decidedBy, partsOf, withDecision, withFiner } from '../match/keys';
import { cellsOf } from '../plan/cells';
import type { OpenPlan } from '../plan/plan.svelte';
import { tell } from '../ui/toaster';
import { isAmbiguous, meanings, withMeaning, type Ambiguous } from '../read/reading';
import { COLUMNS, grouped, mostWaiting, type Asked } from './asked';
import type { AskedAbout } from './shared';

/** True for questions that keep no row waiting: no run begins before they are answered. */
const isSupposed = ({ kind }: Asked) => kind === 'guess' || kind === 'columns' || isAmbiguous(kind);
const LETTERED = 3;
/** Rows of which can be said at once that they speak of no record that is there. */
export const SIMILAR = 200;
/** Rows whose cells can be corrected at once. */
const CORRECTED = 20;
/** Words that are answered in one list. */
const LISTED = 40;

/**
 * One thing that a word may mean; or what becomes of all words of the question, where its record is
 * added or its rows are rejected; or how the file is read.
 */
export interface Choice {
  kind: 'use' | 'other' | 'blank' | 'add one' | 'add' | 'reject' | 'read';
  value: string;
}

type Link = NonNullable<Origin['link']>;

export class Asking {
  /** Place of the question in hand among those asked. */
  at = $state(0);
  /** The choice that somebody has picked; what may be chosen can become more meanwhile. */
  private picked = $state.raw<Choice | null>(null);
  typed = $state('');
  known = $state.raw<Suggestion[]>([]);
  further = $state.raw<KeyAdvice | null>(null);
  busy = $state(false);
  /** What is answered, with the number of the answer. */
  private answered = new SvelteMap<string, number>();
  private looked = 0;
  /** The word that was looked for last. */
  private about = '';

  asked: Asked[] = $derived.by(() => {
    const report = this.open.rehearsal?.report;
    if (!report) return [];
    const open = report.questions.filter((q) => !this.answered.has(this.id(q)));
    // where they keep the plan from being rehearsed, they are asked about above
    const { matters, view } = this.open;
    const { source } = view;
    const isAsked = source.changes.length > 0 && !matters.length;
    const columns = isAsked ? [{ ...COLUMNS, rows: source.changes.length }] : [];
    const tables = report.destinations.map((d) => d.table);
    return [...columns, ...grouped(open, tables)];
  });
  /** Rows that wait for an answer; what is only supposed holds none of them. */
  waiting = $derived.by(() => {
    const held = this.asked.filter((a) => !isSupposed(a)).reduce((sum, a) => sum + a.rows, 0);
    // a row may wait for several answers, or be rejected for something else too
    return Math.min(held, mostWaiting(this.open.rehearsal?.report));
  });
  current = $derived(this.asked[Math.min(this.at, this.asked.length - 1)]);
  word = $derived(this.current?.words[0]);
  /** Number of the destination that is asked about. */
  place = $derived(Math.max(0, this.current?.at ?? 0));
  /** The field that is asked about, once its table is known. */
  info = $derived(this.tableOf(this.current)?.fields.find((f) => f.name === this.current?.field));
  fill = $derived.by(() => (this.info ? this.open.fill(this.info.name, this.place) : undefined));
  /** Fields of the linked table. */
  linked = $state.raw<FieldInfo[]>([]);
  /** What each of several words means, where they are answered in a list; null if they are not. */
  means = $state<Record<string, string> | null>(null);
  listed = $derived(this.current?.words.filter((w) => w.value).slice(0, LISTED) ?? []);
  /** How a record is made of the word, as it was put together here. */
  private making = $state.raw<Link | null>(null);
  link = $derived(this.making ?? this.fill?.origin.link ?? null);
  /** Fields that a new record needs, and nothing gives yet. */
  needed = $derived(this.link ? lacking(this.linked, this.link) : []);
  /** How the file is to be read may have to be said: whether days come before months, say. */
  ambiguous = $derived.by(() => {
    const kind = this.current?.kind;
    return kind && isAmbiguous(kind) ? kind : null;
  });
  /** How it is read as long as nobody says anything. */
  readAs = $derived.by(() => {
    const locale = this.open.view.source.reading.locale;
    return this.ambiguous === 'ambiguous-dates' ? locale?.dateOrder : locale?.decimal;
  });
  /** The ways in which it may be meant, the one by which it is read now first. */
  meanings = $derived.by(() => {
    if (!this.ambiguous) return [];
    const all = meanings(this.ambiguous, this.word?.value ?? '');
    return all.sort((a, b) => +(b.means === this.readAs) - +(a.means === this.readAs));
  });
  choices: Choice[] = $derived.by(() => {
    if (this.ambiguous) return this.meanings.map((m) => ({ kind: 'read', value: m.means }));
    if (this.current?.kind !== 'words' || !this.info) return [];
    const near = this.known.filter((s) => s.near).slice(0, LETTERED);
    const shown = this.known.length > LETTERED ? near : this.known;
    const choices: Choice[] = shown.map((s) => ({ kind: 'use', value: s.value }));
    if (!shown.length || shown.length < this.known.length) {
      choices.push({ kind: 'other', value: '' });
    }
    if (this.info.nullable) choices.push({ kind: 'blank', value: '' });
    if (this.info.link && this.fill?.origin.link) {
      // one more of several would not tell them apart
      if (this.word?.code !== 'several-links') choices.push({ kind: 'add one', value: '' });
      if (this.current.words.length > 1) choices.push({ kind: 'add', value: '' });
    }
    choices.push({ kind: 'reject', value: '' });
    return choices;
  });

  /** Place of the choice in hand; under 0 if nobody has chosen, and nothing lies near. */
  chosen = $derived.by(() => {
    const { picked } = this;
    const at = this.choices.findIndex((c) => c.kind === picked?.kind && c.value === picked.value);
    if (at >= 0) return at;
    // what is shown only because there is little else is nobody's answer by itself
    const isAnswer = ({ kind, value }: Choice) => kind !== 'use' || this.isNear(value);
    return this.choices[0] && isAnswer(this.choices[0]) ? 0 : -1;
  });

  /** Tables that are asked about besides the one that is shown. */
  private tables = new SvelteMap<number, TableInfo>();

  constructor(private open: OpenPlan) {}

  /** The table of a question's field, as far as it is known; none for what concerns the file. */
  tableOf(asked: Asked | undefined): TableInfo | undefined {
    const { view } = this.open;
    if (!asked || asked.at < 0) return undefined;
    return asked.at === view.shown ? view.table : this.tables.get(asked.at);
  }

  /** True if the word in hand is probably that value, spelt otherwise. */
  isNear(value: string): boolean {
    return this.known.some((s) => s.near && s.value === value);
  }

  private id(question: Question): string {
    return JSON.stringify([question.destination, question.field, question.code, question.value]);
  }

  /** Begins with what a new rehearsal says. */
  begin() {
    for (const [question, answer] of this.answered) {
      if (answer <= this.open.answersKnown) this.answered.delete(question);
    }
    this.at = Math.min(this.at, Math.max(0, this.asked.length - 1));
  }

  /** Takes the question about something in hand, if it is asked; else the first stays. */
  find(about: AskedAbout | null) {
    const at = this.asked.findIndex((a) => a.name === about?.name && a.kind === about.kind);
    if (at >= 0) this.at = at;
  }

  pick(at: number) {
    this.at = Math.max(0, Math.min(at, this.asked.length - 1));
  }

  choose(choice: Choice | undefined) {
    this.picked = choice ?? null;
  }

  /** Finds out what the word in hand may mean, or what would settle rows that match several. */
  async look() {
    const mine = ++this.looked;
    const { current, word } = this;
    const about = word ? this.id(word) : '';
    // what was begun stays where the same is asked by a new rehearsal
    if (about !== this.about) {
      this.known = [];
      this.further = null;
      this.picked = null;
      this.typed = '';
      this.making = null;
      this.means = null;
      this.linked = [];
    }
    this.about = about;
    if (!current || current.at < 0) return;
    try {
      if (!this.tableOf(current)) this.tables.set(current.at, await this.open.tableAt(current.at));
      if (mine !== this.looked) return;
      const { info, fill } = this;
      if (current.kind === 'several-matches') {
        const path = { id: this.open.view.id };
        const query = { destination: current.at, of: 'several', pairs: 200 };
        const found = await got(api.GET('/api/plans/{id}/match', { params: { path, query } }));
        if (mine === this.looked) this.further = found.further[0] ?? null;
      } else if (current.kind === 'words' && word && info && fill) {
        const found = await suggestions(this.open, info, fill, word.value, current.at);
        if (mine === this.looked) this.known = found;
        if (info.link) {
          const path = { name: this.open.plan.connection!, table: info.link.table };
          const params = { path };
          const table = await got(api.GET('/api/connections/{name}/tables/{table}', { params }));
          if (mine === this.looked) this.linked = table.fields;
        }
      }
    } catch (error) {
      tell(error);
    }
  }

  /** Says how the other fields of a record are filled that is made of a word. */
  make(link: Link) {
    this.making = link;
  }

  /** What a fill is like that no longer asks, but adds the record or rejects the row. */
  private settled(fill: Fill, choice: Choice): Fill {
    const { link } = this;
    if (!link || !fill.origin.link) return { ...fill, whenBad: 'reject' };
    const whenMissing = choice.kind === 'reject' ? 'reject' : 'create';
    // those that were to be added before still are
    const before = fill.origin.link.whenMissing === 'create' ? (link.createOnly ?? []) : [];
    const createOnly = choice.kind === 'add one' ? [...before, this.word!.value] : undefined;
    return { ...fill, origin: { ...fill.origin, link: { ...link, whenMissing, createOnly } } };
  }

  /** Answers the word in hand by the choice in hand; its rows wait no longer. */
  async answer() {
    const { word, info, ambiguous } = this;
    const choice = this.choices[this.chosen];
    if (ambiguous && choice) {
      this.read(ambiguous, choice.value);
      return;
    }
    const means = choice?.kind === 'other' ? this.typed.trim() : choice?.value;
    const { fill, place } = this;
    if (!word || !info || !fill || !choice || this.busy) return;
    if (choice.kind === 'add one' || choice.kind === 'add' || choice.kind === 'reject') {
      if (choice.kind !== 'reject' && this.needed.length) return;
      this.open.putFill(this.settled(fill, choice), place);
      const words = choice.kind === 'add one' ? [word] : (this.current?.words ?? []);
      words.forEach((w) => this.mark(w));
      this.open.rehearseSoon();
      return;
    }
    if (choice.kind !== 'blank' && !means) return;
    this.busy = true;
    try {
      const answer = choice.kind === 'blank' ? undefined : means;
      await this.learn(info, place, word.value, answer);
      this.done(word);
      // the plan is as it was where its phrasebook has learnt, but what it says of words is not
      void this.open.refresh().catch(tell);
    } catch (error) {
      tell(error);
    } finally {
      this.busy = false;
    }
  }

  /** Teaches the field's phrasebook a word; the fill uses the book from then on. */
  private async learn(info: FieldInfo, place: number, word: string, means: string | undefined) {
    const { open } = this;
    const fill = open.fill(info.name, place);
    if (!fill) return;
    const learned = await learn(open, info, fill, word, means, fill.steps.length, place);
    if (learned.fill !== fill) open.putFill(learned.fill, place);
  }

  /** Says how the file is to be read, for all fields that were asked about. */
  private read(code: Ambiguous, means: string) {
    const found = this.open.view.source.reading;
    this.open.putReading(withMeaning(this.open.plan.reading, found, code, means));
    this.current?.words.forEach((w) => this.mark(w));
    this.open.rehearseSoon();
  }

  /** Lists the words of the question, each with what it most likely means. */
  async list() {
    const { info, listed, looked, place } = this;
    const fill = this.fill;
    if (!info || !fill) return;
    const means: Record<string, string> = Object.fromEntries(listed.map((w) => [w.value, '']));
    this.means = means;
    try {
      for (const { value } of listed) {
        const found = await suggestions(this.open, info, fill, value, place);
        if (this.looked !== looked || !this.means) return;
        // what somebody has typed meanwhile stays
        this.means[value] ||= found.find((s) => s.near)?.value ?? '';
      }
    } catch (error) {
      tell(error);
    }
  }

  /** Answers all words of the list that mean something. */
  async answerAll() {
    const { info, means, place } = this;
    if (!info || !means || this.busy) return;
    this.busy = true;
    try {
      for (const word of this.listed) {
        const meaning = means[word.value]?.trim();
        if (!meaning) continue;
        await this.learn(info, place, word.value, meaning);
        this.mark(word);
      }
      this.means = null;
      this.open.rehearseSoon();
      void this.open.refresh().catch(tell);
    } catch (error) {
      tell(error);
    } finally {
      this.busy = false;
    }
  }

  /** Says of rows that are much like records, or earlier rows, that they are none of these, or go. */
  async decideAlike(act: 'other' | 'skip') {
    const { word, current, place } = this;
    const table = this.tableOf(current);
    if (!word || !current || !table || this.busy) return;
    this.busy = true;
    try {
      const path = { id: this.open.view.id };
      const query = { destination: place, of: 'similar' as const, pairs: SIMILAR };
      const found = await got(api.GET('/api/plans/{id}/match', { params: { path, query } }));
      this.open.editDestination(
        (destination) =>
          found.pairs.reduce((d, pair, i) => {
            const of = decidedBy(d, found.fields, pair);
            if (!of || !pair.notes.some((n) => n.code === current.kind)) return d;
            const not = found.candidates[i]?.map((key) => partsOf(key, table));
            return withDecision(d, { of, act, ...(act === 'other' ? { not } : {}) });
          }, destination),
        place,
      );
      this.done(word);
    } catch (error) {
      tell(error);
    } finally {
      this.busy = false;
    }
  }

  /** Says that numbers are right though they are far off; all of the field's, or these. */
  right(which: 'this' | 'these' | 'any') {
    const { current, word, fill, place } = this;
    if (!current || !word || !fill) return;
    const words = which === 'this' ? [word] : current.words;
    const said = which === 'any' ? ['*'] : words.map((w) => w.value);
    const farOff = [...(fill.farOff ?? []), ...said];
    this.open.putFill({ ...fill, farOff: which === 'any' ? said : farOff }, place);
    words.forEach((w) => this.mark(w));
    this.open.rehearseSoon();
  }

  /** True if the cells that hold the value in hand can be read as another one. */
  get correctable(): boolean {
    return (
      this.current?.kind === 'far-off' &&
      this.fill?.origin.kind === 'column' &&
      (this.word?.rows ?? 0) <= CORRECTED
    );
  }

  /** Reads the cells that hold the value in hand as another one. */
  async readSo(now: string) {
    const { word, fill, open, place } = this;
    const rehearsal = open.rehearsal?.id;
    const column = fill?.origin.column;
    if (!word || !column || !rehearsal || !now || this.busy) return;
    this.busy = true;
    try {
      const { field, value } = word;
      const of = { destination: place, problem: 'far-off' as const, field };
      const query = { ...of, search: value, limit: CORRECTED };
      const path = { id: rehearsal };
      const found = await got(api.GET('/api/runs/{id}/ledger', { params: { path, query } }));
      const rows = found.entries.filter((e) =>
        e.notes.some((n) => n.code === 'far-off' && n.field === field && n.value === value),
      );
      const corrections: Correction[] = [];
      for (const { row, line } of rows) {
        const was = (await cellsOf(open, row))[column];
        if (was) corrections.push({ line, column, was, now });
      }
      if (!corrections.length) return;
      open.correct(...corrections);
      this.done(word);
    } catch (error) {
      tell(error);
    } finally {
      this.busy = false;
    }
  }

  confirm() {
    const { current } = this;
    if (!current) return;
    this.open.confirm(current.field, this.place);
    this.done(current.words[0]!);
  }

  /** Lets one more field tell apart what the key finds several records for. */
  settle() {
    const { further, word } = this;
    if (!further || !word) return;
    this.open.editDestination(
      (d) => ({ ...d, keys: withFiner(d.keys, further.key - 1, further.field) }),
      this.place,
    );
    this.done(word);
  }

  /** Has one policy answer for all rows of the question in hand. */
  policy(change: Partial<OpenPlan['destination']['policies']>) {
    const { word } = this;
    if (!word) return;
    this.open.editDestination(
      (d) => ({ ...d, policies: { ...d.policies, ...change } }),
      this.place,
    );
    this.done(word);
  }

  /** Says that a word is answered, by the answer that is counted next. */
  private mark(question: Question) {
    this.answered.set(this.id(question), this.open.answers + 1);
  }

  private done(question: Question) {
    this.mark(question);
    this.open.rehearseSoon();
  }
}
