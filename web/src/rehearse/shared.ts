// What is looked at in a ledger, as an address says it, so that it can be given to a colleague.
import type { Outcome, ProblemGroup } from '../api/types';
import { OUTCOMES } from '../ui/words';
import type { Only } from './entries.svelte';

export interface Looked {
  outcome: Outcome | 'waiting' | '';
  search: string;
  only: Only;
}

/** What an address looks at; what it does not say is not looked for. */
export function lookedAt(query: string): Looked {
  const said = new URLSearchParams(query);
  const text = (name: string) => said.get(name) || undefined;
  const outcome = text('outcome') ?? '';
  const known = [...OUTCOMES, 'removed', 'waiting'].includes(outcome);
  const whole = (name: string) => {
    const number = Number(said.get(name));
    return Number.isInteger(number) && number > 0 ? number : undefined;
  };
  const problem = text('problem') as ProblemGroup['code'] | undefined;
  return {
    outcome: known ? (outcome as Looked['outcome']) : '',
    search: text('find') ?? '',
    only: {
      table: whole('table'),
      line: whole('line'),
      changed: text('changed'),
      problem,
      field: text('field'),
      said: problem?.replaceAll('-', ' '),
    },
  };
}

const OURS = ['outcome', 'table', 'line', 'changed', 'problem', 'field', 'find'];

/**
 * The query of an address that looks at the same; empty if it is all of it.
 *
 * @param before what the address says besides, such as whose ledger it is
 */
export function queryOf({ outcome, search, only }: Looked, before = ''): string {
  const query = new URLSearchParams(before);
  OURS.forEach((name) => query.delete(name));
  const say = (name: string, value: string | number | undefined) => {
    if (value) query.set(name, String(value));
  };
  say('outcome', outcome);
  say('table', only.table);
  say('line', only.line);
  say('changed', only.changed);
  say('problem', only.problem);
  say('field', only.field);
  say('find', search);
  const text = query.toString();
  return text ? `?${text}` : '';
}

/** Lets the address say what is looked at, without a step to go back to. */
export function addressed(looked: Looked) {
  const next = location.pathname + queryOf(looked, location.search);
  if (next !== location.pathname + location.search) history.replaceState(history.state, '', next);
}

/** What a question is about, as an address says it. */
export interface AskedAbout {
  name: string;
  kind: string;
}

const QUESTION = 'question';

/** The question that an address names; null if it names none. */
export function questionAt(query: string): AskedAbout | null {
  const [kind, ...name] = (new URLSearchParams(query).get(QUESTION) ?? '').split(':');
  return kind && name.length ? { kind, name: name.join(':') } : null;
}

/** Lets the address say which question is in hand; none if it is null. */
export function addressQuestion(asked: AskedAbout | null) {
  const query = new URLSearchParams(location.search);
  if (asked) query.set(QUESTION, `${asked.kind}:${asked.name}`);
  else query.delete(QUESTION);
  const text = query.toString();
  history.replaceState(history.state, '', location.pathname + (text ? `?${text}` : ''));
}
