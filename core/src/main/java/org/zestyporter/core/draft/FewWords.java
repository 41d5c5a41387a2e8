package org.zestyporter.core.draft;

import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.value.DistinctValues;

/** Columns of a few words that a field of choices, or a link, does not know yet. */
final class FewWords {
  /** So many words can be asked about, whatever the rows; and so many where each stands again. */
  private static final int FEW = 12;

  private static final int MOST_WORDS = 200;

  /** Of a name that means what the field is called, in another language. */
  private static final int MEANT = 80;

  private final LinkValues linkValues;

  FewWords(LinkValues linkValues) {
    this.linkValues = linkValues;
  }

  /**
   * A column that is called just what the field is, or what means that in another language where
   * its words are very few and have no figures, and holds words that the field does not know:
   * somebody has to say what each of them means, and is asked for no more than that.
   */
  @Nullable Pair pair(
      FieldInfo field, int column, Likeness name, @Nullable Overlap label, String found) {
    DistinctValues values = linkValues.values(column);
    int words = values.tallies().size();
    if (!name.isSame() && (name.score() < MEANT || words > FEW || !areWords(values))) {
      return null;
    }
    long rows = values.tallies().values().stream().mapToLong(DistinctValues.Tally::rows).sum();
    boolean few =
        values.beyond() == 0 && (words <= FEW || words <= MOST_WORDS && rows >= 2 * words);
    return few
        ? Pair.outside(
            field,
            column,
            Math.max(name.score(), Likeness.SAME) * 6 / 10,
            label,
            name.because() + "; " + found)
        : null;
  }

  /** True if none of the values has a figure, as days and numbers do. */
  private static boolean areWords(DistinctValues values) {
    return values.tallies().keySet().stream()
        .noneMatch(cell -> cell.text().chars().anyMatch(Character::isDigit));
  }
}
