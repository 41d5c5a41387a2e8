// Answers to words that the application does not know; they are kept in phrasebooks.
import { api, got } from '../api/client';
import type { FieldInfo, Fill, Suggestion } from '../api/types';
import type { OpenPlan } from '../plan/plan.svelte';
import { answering, bookFor } from './repairs';

/** What a word may mean: the field's choices or the linked table's values, the likeliest first. */
export async function suggestions(
  open: OpenPlan,
  field: FieldInfo,
  fill: Fill,
  word: string,
  destination = open.view.shown,
): Promise<Suggestion[]> {
  if (!field.choices && !fill.origin.link) return [];
  return got(
    api.POST('/api/plans/{id}/suggestions', {
      params: { path: { id: open.view.id }, query: { destination } },
      body: { fill, word },
    }),
  );
}

/**
 * Teaches the field's phrasebook what a word means, nothing for blank.
 *
 * @param stoppedAt number of the step at which values stop
 * @returns the fill, which uses the book then, and the name of the book
 */
export async function learn(
  open: OpenPlan,
  field: FieldInfo,
  fill: Fill,
  word: string,
  means: string | undefined,
  stoppedAt: number,
  at = open.view.shown,
): Promise<{ fill: Fill; book: string }> {
  const { table } = open.plan.destinations[at]!;
  const book = bookFor(fill, table);
  await got(
    api.POST('/api/phrasebooks/learn', {
      body: {
        book: {
          name: book,
          connection: open.plan.connection,
          table: field.link?.table ?? table,
          field: fill.origin.link?.by ?? field.name,
        },
        from: word,
        to: means || undefined,
      },
    }),
  );
  return { fill: answering(fill, book, stoppedAt), book };
}
