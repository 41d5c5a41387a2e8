package org.zestyporter.core.source.parse;

/** Ends a parser early: all rows that were wanted are there. */
public final class Enough extends RuntimeException {
  private static final long serialVersionUID = 1L;

  public Enough() {
    super("enough rows", null, false, false);
  }
}
