package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.application.WriteSession.Refusal;

/** Rows that the database refused: how many, and the first of them with their reasons. */
final class Refusals {
  private static final int KEPT = 100;

  /** Characters in which they are named. */
  private static final int LONGEST_NAMED = 1_500;

  private final List<Refusal> first = new ArrayList<>();
  private long count;

  void add(Refusal refusal) {
    count++;
    if (first.size() < KEPT) {
      first.add(refusal);
    }
  }

  boolean isEmpty() {
    return count == 0;
  }

  /** All of them in words, as long as there is room. */
  String told() {
    Refusal one = first.get(0);
    if (count == 1) {
      return "The database refused line " + one.line() + ": " + one.told() + ".";
    }
    StringBuilder named = new StringBuilder();
    int told = 0;
    for (Refusal r : first) {
      String sentence = " Line " + r.line() + ": " + r.told() + ".";
      if (named.length() + sentence.length() > LONGEST_NAMED) {
        break;
      }
      named.append(sentence);
      told++;
    }
    return "The database refused "
        + count
        + " lines."
        + named
        + (count > told ? " And " + (count - told) + " more." : "");
  }
}
