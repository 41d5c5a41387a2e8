import { api, got } from '../api/client';
import type { RawLine } from '../api/types';

const PAGE = 100;
const KEPT = 40;

type Page = Record<number, RawLine>;

/** Lines of a file, fetched a page at a time as they are looked at. */
export class Lines {
  private pages = $state.raw<Record<number, Page>>({});
  private order: number[] = [];
  private asked: Record<number, true> = {};
  /** Grows whenever what was fetched no longer holds. */
  private age = 0;
  firstColumn = $state(0);

  constructor(
    private readonly plan: number,
    private readonly columns: number,
    private readonly failed: (error: unknown) => void,
  ) {}

  /** Drops what was fetched: the file is read otherwise now. */
  renew() {
    this.age++;
    this.asked = {};
    this.order = [];
    this.pages = {};
  }

  /** Moves the window of columns. */
  goToColumn(column: number) {
    this.firstColumn = column;
    this.renew();
  }

  /** The line if it is here; undefined if it is not, or is blank in the file. */
  at(line: number): RawLine | undefined {
    return this.pages[pageOf(line)]?.[line];
  }

  /** True once the line's page has come. */
  has(line: number): boolean {
    return pageOf(line) in this.pages;
  }

  /** Sees to it that the lines come. */
  want(from: number, to: number) {
    for (let page = Math.max(0, pageOf(from)); page <= pageOf(to); page++) {
      if (!this.asked[page]) void this.fetch(page);
    }
  }

  private async fetch(page: number) {
    this.asked[page] = true;
    const age = this.age;
    const from = page * PAGE + 1;
    const query = { from, count: PAGE, firstColumn: this.firstColumn, columns: this.columns };
    const path = { id: this.plan };
    try {
      const rows = await got(api.GET('/api/plans/{id}/lines', { params: { path, query } }));
      if (age !== this.age) return;
      const here = rows.filter((r) => r.line < from + PAGE);
      const pages = { ...this.pages, [page]: Object.fromEntries(here.map((r) => [r.line, r])) };
      this.order.push(page);
      if (this.order.length > KEPT) {
        const oldest = this.order.shift()!;
        delete pages[oldest];
        delete this.asked[oldest];
      }
      this.pages = pages;
    } catch (error) {
      if (age !== this.age) return;
      delete this.asked[page];
      this.failed(error);
    }
  }
}

function pageOf(line: number): number {
  return Math.floor((line - 1) / PAGE);
}
