// Which rows of a long list are in view, where only these are in the page.

const SPARE = 6;
/** Browsers give up on taller boxes; beyond it a pixel stands for more than one. */
const TALLEST = 20_000_000;

/**
 * A box that is scrolled over rows of one height, of which only those in view are drawn.
 *
 * Rows count from 0. The box has to tell its `top` and `height`, in pixels.
 */
export class Tall {
  top = $state(0);
  height = $state(600);
  /** Where a very tall list was put: the bar alone is too coarse to tell the row. */
  private put = $state.raw<{ top: number; first: number } | null>(null);

  private readonly tall: boolean = $derived.by(() => this.count() * this.row > TALLEST);
  /** Rows that the box has room for. */
  shown: number = $derived.by(() => Math.ceil(this.height / this.row) + 1);
  /** Height of all rows, with some room below. */
  total: number = $derived.by(
    () => Math.min(this.count() * this.row, TALLEST) + this.row + this.below,
  );
  private furthest: number = $derived.by(() => Math.max(0, this.count() - this.shown + 4));
  private first: number = $derived.by(() => {
    const { put, top } = this;
    if (!this.tall) return Math.min(Math.floor(top / this.row), Math.max(0, this.count() - 1));
    if (put && Math.abs(put.top - top) < 2) return put.first;
    return Math.round((top / Math.max(1, this.total - this.height)) * this.furthest);
  });
  /** The first row that is drawn, and the one behind the last. */
  from: number = $derived.by(() => Math.max(0, this.first - SPARE));
  to: number = $derived.by(() => Math.min(this.count(), this.first + this.shown + SPARE));
  /** Where the first row that is drawn stands. */
  offset: number = $derived.by(() =>
    this.tall ? Math.max(0, this.top - (this.first - this.from) * this.row) : this.from * this.row,
  );

  /**
   * @param row height of a row
   * @param count how many there are
   * @param below room below the last row
   */
  constructor(
    private readonly row: number,
    private readonly count: () => number,
    private readonly below = 0,
  ) {}

  /** Scrolls the box so that a row is seen, in the middle if it was far away. */
  reveal(box: HTMLElement, row: number) {
    const seen = row >= this.first && row <= this.first + this.shown - 4;
    if (seen) return;
    const near = row === this.first - 1 || row === this.first + this.shown - 3;
    const target = near && row < this.first ? row : near ? this.first + 1 : row - 5;
    this.scrollTo(box, Math.max(0, target));
  }

  scrollTo(box: HTMLElement, first: number) {
    const reached = Math.min(first, this.furthest);
    const to = this.tall
      ? (reached / Math.max(1, this.furthest)) * (this.total - this.height)
      : first * this.row;
    box.scrollTop = to;
    this.top = box.scrollTop;
    if (this.tall) this.put = { top: this.top, first: reached };
  }

  /** Moves a very tall list by rows: by pixels it would leap. */
  wheel(box: HTMLElement, event: WheelEvent) {
    if (!this.tall || event.deltaY === 0) return;
    event.preventDefault();
    const by = Math.sign(event.deltaY) * Math.max(1, Math.round(Math.abs(event.deltaY) / this.row));
    this.scrollTo(box, Math.max(0, this.first + by));
  }
}
