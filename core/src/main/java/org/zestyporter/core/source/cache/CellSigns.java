package org.zestyporter.core.source.cache;

import org.zestyporter.core.value.Cell;

/**
 * What cells may mean to who looks for a few among millions. A column of a chunk keeps the signs
 * that any of its cells has, so that it need not be read to find out that none has one.
 */
public interface CellSigns {
  /** The cell may begin a line of totals. */
  int TOTAL = 1;

  /** The cell may stand for a blank. */
  int BLANK_WORD = 2;

  /** Tells nothing, as if any cell had any sign. */
  CellSigns ANY = (kind, bytes, from, to) -> TOTAL | BLANK_WORD;

  /**
   * The signs of a cell, one bit each.
   *
   * @param bytes holds its text in UTF-8
   * @param from where the text begins with something that is no space
   */
  int of(Cell.Kind kind, byte[] bytes, int from, int to);

  /**
   * False if no cell has a sign whose text begins so.
   *
   * @param first a byte of UTF-8
   */
  default boolean mayBegin(int first) {
    return true;
  }
}
