package org.zestyporter.core.source.cache;

/** How it is held what is told of a column of a chunk without reading it. */
final class ColumnSigns {
  /** Some row may be blank. The bits below it are {@link CellSigns}. */
  static final long BLANK = 1L << 16;

  private static final int LETTERS = 32;

  private ColumnSigns() {}

  /** Tells that a cell begins with a sign, in capitals or not; some signs share a bit. */
  static long beginning(int first) {
    return 1L << LETTERS + (first & LETTERS - 1);
  }
}
