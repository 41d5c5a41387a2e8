const KEPT = 40;

/** Pages of something long, fetched as they are looked at; the oldest are dropped. */
export class Pages<P> {
  private pages = $state.raw<Record<number, P>>({});
  private order: number[] = [];
  private asked: Record<number, true> = {};
  /** Grows whenever what was fetched no longer holds. */
  private age = 0;

  /**
   * @param fetch gets a page by its number, from 0
   * @param failed is told why one could not be had
   */
  constructor(
    private readonly fetch: (page: number) => Promise<P>,
    private readonly failed: (error: unknown) => void,
  ) {}

  /** Drops what was fetched. */
  renew() {
    this.age++;
    this.asked = {};
    this.order = [];
    this.pages = {};
  }

  /** A page, if it is here. */
  at(page: number): P | undefined {
    return this.pages[page];
  }

  /** Sees to it that pages come. */
  want(from: number, to: number) {
    for (let page = Math.max(0, from); page <= to; page++) {
      if (!this.asked[page]) void this.get(page);
    }
  }

  private async get(page: number) {
    this.asked[page] = true;
    const age = this.age;
    try {
      const found = await this.fetch(page);
      if (age !== this.age) return;
      const pages = { ...this.pages, [page]: found };
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
