package org.zestyporter.core.source;

/** Ends a parser early: all rows that were wanted are there. */
final class Enough extends RuntimeException {
  private static final long serialVersionUID = 1L;

  Enough() {
    super("enough rows", null, false, false);
  }
}
