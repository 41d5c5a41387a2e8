package org.zestyporter.core.source;

/** The letters by which spreadsheets name columns. */
public final class Letters {
  private Letters() {}

  /** The letters of a column, from 0: A, B, … Z, AA. */
  public static String of(int column) {
    StringBuilder letters = new StringBuilder();
    for (int rest = column; rest >= 0; rest = rest / 26 - 1) {
      letters.insert(0, (char) ('A' + rest % 26));
    }
    return letters.toString();
  }
}
