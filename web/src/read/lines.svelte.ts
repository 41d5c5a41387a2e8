import { api, got } from '../api/client';
import type { RawLine } from '../api/types';
import { Pages } from '../ui/pages.svelte';

const PAGE = 100;

/** Lines of a file, fetched a page at a time as they are looked at. */
export class Lines {
  private readonly pages: Pages<Record<number, RawLine>>;
  firstColumn = $state(0);

  constructor(
    private readonly plan: number,
    private readonly columns: number,
    failed: (error: unknown) => void,
  ) {
    this.pages = new Pages((page) => this.fetch(page), failed);
  }

  /** Drops what was fetched: the file is read otherwise now. */
  renew() {
    this.pages.renew();
  }

  /** Moves the window of columns. */
  goToColumn(column: number) {
    this.firstColumn = column;
    this.renew();
  }

  /** The line if it is here; undefined if it is not, or is blank in the file. */
  at(line: number): RawLine | undefined {
    return this.pages.at(pageOf(line))?.[line];
  }

  /** True once the line's page has come. */
  has(line: number): boolean {
    return this.pages.at(pageOf(line)) !== undefined;
  }

  /** Sees to it that the lines come. */
  want(from: number, to: number) {
    this.pages.want(pageOf(from), pageOf(to));
  }

  private async fetch(page: number): Promise<Record<number, RawLine>> {
    const from = page * PAGE + 1;
    const query = { from, count: PAGE, firstColumn: this.firstColumn, columns: this.columns };
    const path = { id: this.plan };
    const rows = await got(api.GET('/api/plans/{id}/lines', { params: { path, query } }));
    const here = rows.filter((r) => r.line < from + PAGE);
    return Object.fromEntries(here.map((r) => [r.line, r]));
  }
}

function pageOf(line: number): number {
  return Math.floor((line - 1) / PAGE);
}
