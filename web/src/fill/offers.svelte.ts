import { api, got } from '../api/client';
import type { Offer } from '../api/types';
import type { OpenPlan } from '../plan/plan.svelte';
import { tell } from '../ui/toaster';

/** What a dragged column is told by. */
export const COLUMN = 'application/x-porter-column';

/** The columns that could feed the field in hand, the likeliest first. */
export class Offers {
  /** Null until they are known. */
  all = $state.raw<Offer[] | null>(null);

  constructor(
    private readonly open: OpenPlan,
    private readonly field: string,
  ) {}

  async load() {
    const path = { id: this.open.view.id };
    const query = { field: this.field };
    try {
      this.all = await got(api.GET('/api/plans/{id}/offers', { params: { path, query } }));
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

/** Puts a column to a field, by the fill that a draft would make of it. */
export async function feed(open: OpenPlan, field: string, column: string) {
  const path = { id: open.view.id };
  const query = { field, column };
  try {
    const [offer] = await got(api.GET('/api/plans/{id}/offers', { params: { path, query } }));
    if (offer) {
      open.field = field;
      open.putFill(offer.fill);
    } else tell(new Error(`Nothing can fill ${field} from a column.`));
  } catch (error) {
    tell(error);
  }
}
