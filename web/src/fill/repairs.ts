import type {
  FieldInfo,
  Fill,
  Problem,
  StageRow,
  Step,
  StepHelp,
  StepKind,
  Trial,
} from '../api/types';

/** Something that mends a troubled value; `apply` gives the fill as it would then be. */
export interface Repair {
  text: string;
  /** What the person must still say; the repair is applied with the answer. */
  asks?: string;
  /** What the answer begins with. */
  begins?: string;
  /** The word on the button that takes the answer. */
  does?: string;
  hint?: string;
  /** True if the answer is read instead of the cell. */
  corrects?: boolean;
  /** True if the answer goes into the field's phrasebook. */
  learns?: boolean;
  apply: (fill: Fill, answer: string) => Fill;
}

export function step(kind: StepKind, settings: Record<string, string> = {}): Step {
  return { kind, with: settings, off: false };
}

export function withStep(fill: Fill, at: number, added: Step): Fill {
  const steps = [...fill.steps];
  steps.splice(at, 0, added);
  return { ...fill, steps };
}

export function withoutStep(fill: Fill, at: number): Fill {
  return { ...fill, steps: fill.steps.filter((_, i) => i !== at) };
}

export function moveStep(fill: Fill, at: number, by: number): Fill {
  const to = at + by;
  if (to < 0 || to >= fill.steps.length) return fill;
  const steps = [...fill.steps];
  const [moved] = steps.splice(at, 1);
  steps.splice(to, 0, moved!);
  return { ...fill, steps };
}

export function changeStep(fill: Fill, at: number, change: Partial<Step>): Fill {
  return { ...fill, steps: fill.steps.map((s, i) => (i === at ? { ...s, ...change } : s)) };
}

/** The settings that a step of a kind begins with. */
export function firstSettings(kind: StepKind, field: FieldInfo): Record<string, string> {
  switch (kind) {
    case 'case':
      return { to: 'upper' };
    case 'multiply':
      return { by: '1' };
    case 'round':
      return { places: String(field.type === 'whole' ? 0 : (field.scale ?? 2)) };
    case 'cut':
      return { length: String(field.length ?? 40) };
    case 'replace':
      return { from: '', to: '' };
    default:
      return {};
  }
}

/** Where a replacement must stand: before the step at which the value stops. */
function replacing(value: string, stoppedAt: number): Repair {
  return {
    text: 'Replace it',
    asks: `Instead of “${value}” use`,
    apply: (fill, answer) =>
      withStep(fill, Math.max(0, stoppedAt), step('replace', { from: value, to: answer })),
  };
}

const leaveBlank: Repair = {
  text: 'Leave blank',
  apply: (fill) => ({ ...fill, whenBad: 'blank' }),
};

/** What a step is called that takes a text out of the values. */
function removes(step: Step): string | undefined {
  const { from, to } = step.with;
  return step.kind === 'replace-words' && from && !to ? `Remove “${from.trim()}”` : undefined;
}

/** Steps that were tried and free this value, the best one first. */
export function mending(trials: Trial[], row: StageRow, kinds: StepHelp[], fill: Fill): Repair[] {
  const origin = row.trace.origin;
  if (!origin || row.trace.question) return [];
  return trials
    .filter((t) => !fill.steps.some((s) => s.kind === t.step.kind))
    .filter((t) => t.frees > 0 && !t.doubtful && !t.breaks && t.freed.includes(origin))
    .slice(0, 1)
    .map((t) => ({
      text:
        removes(t.step) ?? `+ ${kinds.find((k) => k.kind === t.step.kind)?.title ?? t.step.kind}`,
      hint: t.before === undefined ? undefined : `${t.before} gives ${t.after ?? 'nothing'}`,
      apply: (fill) => withStep(fill, Math.min(t.at, fill.steps.length), t.step),
    }));
}

/** Name of the phrasebook that a field's answers go into. */
export function bookFor(fill: Fill, table: string): string {
  const used = fill.steps.find((s) => s.kind === 'translate' && !s.off && s.with.book);
  return used?.with.book ?? `Words for ${table}.${fill.field}`.slice(0, 80);
}

/** The fill with a step that translates by a phrasebook, where the value would stop. */
export function answering(fill: Fill, book: string, stoppedAt: number): Fill {
  if (fill.steps.some((s) => s.kind === 'translate' && !s.off && s.with.book === book)) return fill;
  const at = Math.max(0, Math.min(stoppedAt, fill.steps.length));
  return withStep(fill, at, step('translate', { book }));
}

/** The repair of a word that the application does not know. */
function answerOf(problem: Problem): Repair {
  return {
    text: 'Answer',
    asks: `“${problem.value}” means`,
    does: 'Remember',
    hint: 'one answer for all its rows, kept in a phrasebook',
    learns: true,
    apply: (fill) => fill,
  };
}

/** A word that a step doesn't know as yes or no becomes one of its own words. */
function meaning(problem: Problem, fill: Fill, stoppedAt: number): Repair[] {
  const reads = fill.steps[stoppedAt];
  const word = problem.value;
  if (reads?.kind !== 'read-boolean' || !word || word.includes('|')) return [];
  return (['yes', 'no'] as const).map((side) => ({
    text: `Means ${side}`,
    hint: 'kept with the step, for all its rows',
    apply: (f) => {
      const known = f.steps[stoppedAt]!.with;
      const words = known[side] ? `${known[side]}|${word}` : word;
      return changeStep(f, stoppedAt, { with: { ...known, [side]: words } });
    },
  }));
}

/** What can be done about a value, the likeliest first. */
export function repairs(
  problem: Problem,
  fill: Fill,
  field: FieldInfo,
  stoppedAt: number,
  row?: StageRow,
): Repair[] {
  const list: Repair[] = [];
  const last = fill.steps.length;
  if (['unknown-link', 'unknown-choice', 'unknown-word'].includes(problem.code) && problem.value)
    list.push(answerOf(problem));
  switch (problem.code) {
    case 'too-precise':
      list.push({
        text: '+ Round',
        apply: (f) => withStep(f, last, step('round', firstSettings('round', field))),
      });
      break;
    case 'too-long':
      list.push({
        text: `+ Cut to ${field.length}`,
        apply: (f) => withStep(f, last, step('cut', firstSettings('cut', field))),
      });
      break;
    case 'wrong-type':
      if (field.type === 'whole' || field.type === 'decimal')
        list.push({
          text: '+ Read as number',
          apply: (f) => withStep(f, last, step('read-number')),
        });
      if (field.type === 'date' || field.type === 'datetime')
        list.push({ text: '+ Read as date', apply: (f) => withStep(f, last, step('read-date')) });
      if (field.type === 'boolean')
        list.push({
          text: '+ Read as yes or no',
          apply: (f) => withStep(f, last, step('read-boolean')),
        });
      break;
    case 'not-a-date':
      if (problem.reason.includes('two figures'))
        list.push({
          text: 'Years are 20..',
          apply: (f) =>
            changeStep(f, stoppedAt, { with: { ...f.steps[stoppedAt]!.with, century: '20' } }),
        });
      break;
    case 'not-true-or-false':
      list.push(...meaning(problem, fill, stoppedAt));
      break;
    case 'required':
      return [
        {
          text: 'Use a default',
          asks: `${field.name} where it is blank:`,
          apply: (f, answer) => ({ ...f, whenBlank: 'default', defaultValue: answer }),
        },
      ];
  }
  if (row?.rows === 1 && row.line && row.trace.origin && fill.origin.column)
    list.push({
      text: 'Correct it',
      asks: `Line ${row.line} should say`,
      begins: row.trace.origin,
      does: 'Correct',
      hint: 'kept with the Plan; the file stays as it is',
      corrects: true,
      apply: (f) => f,
    });
  if (problem.value) list.push(replacing(problem.value, stoppedAt));
  if (field.nullable && fill.whenBad === 'reject') list.push(leaveBlank);
  return list;
}
