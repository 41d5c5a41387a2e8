import { OF_MATCH } from '../api/codes';
import type { OpenPlan } from './plan.svelte';
import { mostWaiting } from '../rehearse/asked';
import { isCutOff } from '../run/endings';
import { count, many } from '../ui/words';

export const STOPS = ['read', 'fill', 'match', 'rehearse', 'run'] as const;
export type Stop = (typeof STOPS)[number];

/** How a stop stands: its words, and whether anything is open in it. */
export interface Standing {
  words: string;
  tone: '' | 'rejected' | 'waiting';
  open: boolean;
}

function rejected(open: OpenPlan, run: OpenPlan['run']): number {
  const { destinations = [], read = 0 } = run?.report ?? {};
  const whole = open.plan.run.rows === 'whole';
  // where rows are parted, more parts than rows may be rejected
  const counts = destinations.filter((d) => !whole || d.rows <= read).map((d) => d.rejected);
  // where what one row makes goes together, a row that is rejected is so in all tables
  return whole ? Math.max(0, ...counts) : counts.reduce((sum, n) => sum + n, 0);
}

/** Matters of the reading that a person has to settle. */
export function toConfirm(open: OpenPlan): number {
  const { source } = open.view;
  const warnings = source.warnings.filter((w) => w.confirm).length;
  const changed = source.changes.length ? 1 : 0;
  const untitled =
    open.plan.reading.titleRows === undefined &&
    source.reading.format !== 'json' &&
    source.reading.titleRows?.length === 0;
  return warnings + changed + (untitled ? 1 : 0);
}

/** Rows that wait for somebody to say which record they speak of, by the last rehearsal. */
export function toDecide(open: OpenPlan): number {
  if (!open.rehearsed) return 0;
  const asked = open.rehearsal?.report?.questions ?? [];
  return asked.filter((q) => OF_MATCH.includes(q.code)).reduce((sum, q) => sum + q.rows, 0);
}

/** What the trip line says of a stop. */
export function standing(open: OpenPlan, stop: Stop): Standing {
  const clear: Standing = { words: 'clear', tone: '', open: false };
  switch (stop) {
    case 'read': {
      const n = toConfirm(open);
      return n ? { words: `${n} to confirm`, tone: 'waiting', open: true } : clear;
    }
    case 'fill': {
      const unfilled = new Set(
        open.matters
          .filter((m) => m.field && m.code !== 'key-not-filled')
          .map((m) => `${m.at} ${m.field}`),
      ).size;
      if (unfilled)
        return { words: `${many(unfilled, 'field')} to fill`, tone: 'waiting', open: true };
      const n = open.guesses.length;
      if (n)
        return { words: `${many(n, 'guess', 'guesses')} to confirm`, tone: 'waiting', open: true };
      const bad = open.trouble - open.questions;
      const asked = open.questions ? `${count(open.questions)} to answer` : '';
      if (bad) {
        const words = asked ? `${count(bad)} troubled, ${asked}` : `${many(bad, 'value')} troubled`;
        return { words, tone: 'rejected', open: true };
      }
      return asked ? { words: asked, tone: 'waiting', open: true } : clear;
    }
    case 'match': {
      const { keys } = open.destination;
      if (!keys.length) return { words: 'no key: all rows are added', tone: 'waiting', open: true };
      const n = toDecide(open);
      if (n) return { words: `${count(n)} to decide`, tone: 'waiting', open: true };
      const words =
        keys.length > 1 ? `by ${keys.length} keys` : `by ${keys[0]!.fields.join(' with ')}`;
      return { words, tone: '', open: false };
    }
    case 'rehearse': {
      if (!open.rehearsal) return { words: 'not yet rehearsed', tone: '', open: true };
      if (open.rehearsal.state === 'failed')
        return { words: 'failed', tone: 'rejected', open: true };
      const waiting = mostWaiting(open.report);
      if (!open.rehearsed && !open.ran && !(open.recounted && waiting))
        return { words: 'changed since', tone: 'waiting', open: true };
      const n = rejected(open, open.rehearsal) - waiting;
      if (waiting) {
        return { words: `${many(waiting, 'row')} waiting`, tone: 'waiting', open: true };
      }
      return n ? { words: `${many(n, 'row')} rejected`, tone: 'rejected', open: true } : clear;
    }
    case 'run': {
      if (!open.run) return { words: 'not yet run', tone: '', open: true };
      if (open.run.kind === 'undo' || open.run.undoneBy)
        return { words: 'taken back', tone: '', open: true };
      if (open.run.state === 'failed') return { words: 'failed', tone: 'rejected', open: true };
      if (isCutOff(open.run))
        return { words: `${open.run.state}, may go on`, tone: 'waiting', open: true };
      const n = rejected(open, open.run);
      return n
        ? { words: `${many(n, 'row')} rejected`, tone: 'rejected', open: false }
        : { words: `Run ${open.run.number}`, tone: '', open: false };
    }
  }
}
