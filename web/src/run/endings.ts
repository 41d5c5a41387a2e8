import type { RunView } from '../api/types';
import { count, outcomesOf, outcomeWord } from '../ui/words';

/** How a run or undo has ended, in a sentence. */
export function ending(run: RunView): string {
  const name = `${run.kind === 'undo' ? 'Undo' : 'Run'} ${run.number ?? ''} of ${run.planName}`;
  if (run.state !== 'done') return `${name}: ${run.message ?? run.state}`;
  const into = run.report?.destinations[0];
  if (!into) return `${name} is done.`;
  const outcomes = outcomesOf(run.kind, into)
    .filter((o) => into[o])
    .map((o) => `${count(into[o] ?? 0)} ${outcomeWord(o, run.kind).toLowerCase()}`);
  return `${name} is done: ${outcomes.join(', ') || 'nothing to do'}.`;
}

/** True if a run was cut off between two batches, so that it can go on. */
export function isCutOff(run: RunView | null | undefined): boolean {
  return run?.state === 'paused' || run?.state === 'interrupted';
}
