package org.zestyporter.core.draft;

import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.plan.Fill;

/**
 * A column that could feed a field.
 *
 * @param column index of the column
 * @param score how well they fit
 * @param link how a link is found by the column; null if it is no link
 * @param because why they fit, in words
 * @param remembered the fill that did so in an earlier plan; null if none did
 * @param isByValues true if only values speak for it
 * @param isOutside true if hardly any of the values is one that the field can take so far, so that
 *     only the names speak for it
 * @param sure how sure it is
 */
record Pair(
    FieldInfo field,
    int column,
    int score,
    @Nullable Overlap link,
    String because,
    @Nullable Fill remembered,
    boolean isByValues,
    boolean isOutside,
    Certainty sure) {

  /** A pair that names speak for. */
  Pair(
      FieldInfo field,
      int column,
      int score,
      @Nullable Overlap link,
      String because,
      Certainty sure) {
    this(field, column, score, link, because, null, false, false, sure);
  }

  /** A pair that only values speak for. */
  static Pair byValues(FieldInfo field, int column, int score, String because, Certainty sure) {
    return new Pair(field, column, score, null, because, null, true, false, sure);
  }

  /** A pair that only names speak for, since the values are others than the field can take. */
  static Pair outside(
      FieldInfo field, int column, int score, @Nullable Overlap link, String because) {
    return new Pair(field, column, score, link, because, null, false, true, Certainty.LIKELY);
  }

  Pair withScore(int other) {
    return new Pair(field, column, other, link, because, remembered, isByValues, isOutside, sure);
  }
}
