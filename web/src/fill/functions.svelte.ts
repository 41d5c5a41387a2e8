import { api, got } from '../api/client';
import type { FunctionHelp } from '../api/types';

/** The functions of formulas, asked for once. */
class Functions {
  all = $state.raw<FunctionHelp[]>([]);

  async load() {
    if (!this.all.length) this.all = await got(api.GET('/api/functions'));
  }
}

export const functions = new Functions();
