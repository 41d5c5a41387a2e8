package org.zestyporter.core.source.reading;

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

  /** Index of a column's letters, from 0; -1 if the text is none. */
  public static int index(String letters) {
    int index = 0;
    if (letters.isEmpty() || letters.length() > 4) {
      return -1;
    }
    for (int i = 0; i < letters.length(); i++) {
      char c = letters.charAt(i);
      if (c < 'A' || c > 'Z') {
        return -1;
      }
      index = index * 26 + (c - 'A') + 1;
    }
    return index - 1;
  }
}
