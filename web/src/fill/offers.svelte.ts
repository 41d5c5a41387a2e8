import { api, got } from '../api/client';
import type { Fill, Offer, ToldLink } from '../api/types';
import type { OpenPlan } from '../plan/plan.svelte';
import { tell } from '../ui/toaster';
import { changeOrigin } from './origins';

/** What a dragged column is told by. */
export const COLUMN = 'application/x-porter-column';

/** What a dragged field is told by. */
export const FIELD = 'application/x-porter-field';

/** The columns that could feed the field in hand, the likeliest first. */
export class Offers {
  /** Null until they are known. */
  all = $state.raw<Offer[] | null>(null);

  constructor(
    private readonly open: OpenPlan,
    private readonly field: string,
  ) {}

  async load() {
    try {
      this.all = await offersOf(this.open, this.field);
    } catch (error) {
      this.all = [];
      tell(error);
    }
  }

  take(index: number) {
    const offer = this.all?.[index];
    if (offer) this.open.putFill(offer.fill);
  }
}

/** What a draft would make of columns for a field; of all that could feed it if none is said. */
function offersOf(open: OpenPlan, field: string, column?: string): Promise<Offer[]> {
  const params = { path: { id: open.view.id }, query: { ...open.into, field, column } };
  return got(api.GET('/api/plans/{id}/offers', { params }));
}

/** Puts a column to a field, by the fill that a draft would make of it. */
export async function feed(open: OpenPlan, field: string, column: string) {
  try {
    const [offer] = await offersOf(open, field, column);
    if (offer) {
      open.field = field;
      open.putFill(offer.fill);
    } else tell(new Error(`Nothing can fill ${field} from a column.`));
  } catch (error) {
    tell(error);
  }
}

/** Puts the likeliest column to a field that nothing fills; something else if there is none. */
export async function feedBest(open: OpenPlan, field: string, otherwise: Fill) {
  try {
    const [best] = await offersOf(open, field);
    open.putFill(best && best.fill.origin.kind === otherwise.origin.kind ? best.fill : otherwise);
  } catch (error) {
    open.putFill(otherwise);
    tell(error);
  }
}

/** What the plan says of where a field points, which the database does not tell. */
export function toldLink(open: OpenPlan, field: string): ToldLink | undefined {
  return open.plan.links.find((l) => isOf(l, open.destination.table, field));
}

function isOf(link: ToldLink, table: string, field: string): boolean {
  const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();
  return same(link.table, table) && same(link.field, field);
}

/**
 * Says at which table a field points, and lets its column be looked up there; at none if no table
 * is given.
 *
 * @param key the field of that table which it holds; its key if none is given
 */
export async function pointAt(open: OpenPlan, field: string, to: string, key?: string) {
  const { table } = open.destination;
  const info = () => open.view.table.fields.find((f) => f.name === field)!;
  const before = info().link?.table;
  open.edit((plan) => ({
    ...plan,
    links: [
      ...plan.links.filter((l) => !isOf(l, table, field)),
      ...(to ? [{ table, field, to, key }] : []),
    ],
  }));
  await open.save();
  const { link } = info();
  const fill = open.fill(field);
  if (open.saving !== 'saved' || (to && !link)) return;
  const kind = link ? 'link' : 'column';
  if (link?.table === before && fill?.origin.kind === kind) return;
  if (fill?.origin.column) await feed(open, field, fill.origin.column);
  else if (link) await feedBest(open, field, changeOrigin(fill, info(), kind, columnsOf(open), []));
}

function columnsOf(open: OpenPlan): string[] {
  return open.view.source.columns.map((c) => c.name);
}

/**
 * Lets another column feed a field. If the fill is still as a draft makes it, it becomes what a
 * draft makes of the other column; steps that a person chose stay.
 */
export async function exchange(open: OpenPlan, fill: Fill, column: string) {
  const kept = { ...fill, origin: { ...fill.origin, column } };
  try {
    const [[before], [now]] = await Promise.all([
      offersOf(open, fill.field, fill.origin.column),
      offersOf(open, fill.field, column),
    ]);
    const drafted =
      before &&
      same(before.fill.steps, fill.steps) &&
      same(before.fill.origin.link, fill.origin.link);
    open.putFill(
      drafted && now ? { ...fill, origin: now.fill.origin, steps: now.fill.steps } : kept,
    );
  } catch {
    open.putFill(kept);
  }
}

function same(a: unknown, b: unknown): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}
