// Answers to words that the application does not know; they are kept in phrasebooks.
import { api, got } from '../api/client';
import type { FieldInfo, Fill, Plan, Suggestion } from '../api/types';
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

type Phrasebook = Plan['phrasebooks'][number];

/** A phrasebook that also says what a word means. */
function teach(book: Phrasebook, from: string, to: string | undefined): Phrasebook {
  return { ...book, phrases: [...book.phrases.filter((p) => p.from !== from), { from, to }] };
}

/**
 * Teaches the field's phrasebook what a word means, nothing for blank: the plan's own where it has
 * one of that name, since that goes before the shared one.
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
  if (open.plan.phrasebooks.some((b) => b.name === book)) {
    open.edit((plan) => ({
      ...plan,
      phrasebooks: plan.phrasebooks.map((b) =>
        b.name === book ? teach(b, word, means || undefined) : b,
      ),
    }));
    return { fill: answering(fill, book, stoppedAt), book };
  }
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
