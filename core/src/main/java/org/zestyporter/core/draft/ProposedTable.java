package org.zestyporter.core.draft;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.plan.Destination;

/**
 * A table that a file may go to, and how its fields are filled.
 *
 * @param score how well the table fits; comparable between tables for the same file
 */
public record ProposedTable(Destination destination, List<FillEvidence> evidence, int score) {
  private static final int SOME = 2;

  /**
   * Why a field is filled so.
   *
   * @param sure how sure that is; null in what an earlier version kept
   */
  public record FillEvidence(
      String field, @Nullable String column, String because, @Nullable Certainty sure) {}

  /** Number of columns that go somewhere. */
  public long columnsUsed() {
    return evidence.stream().map(FillEvidence::column).filter(Objects::nonNull).distinct().count();
  }

  /**
   * True if enough columns go somewhere for the table to be worth proposing: two of five, or a
   * third where that is some, since rows may hold what belongs to tables below it as well.
   *
   * @param columns number of the file's columns
   */
  public boolean takesEnoughOf(int columns) {
    long used = columnsUsed();
    return used * 5 >= columns * 2L || used >= SOME && used * 3 >= columns;
  }

  /**
   * Those that are worth proposing; if none is, the best of them, as long as some columns go there:
   * a file may be folded before more of it fits.
   *
   * @param ranked the best first
   * @param columns number of the file's columns
   */
  public static List<ProposedTable> worthwhile(List<ProposedTable> ranked, int columns) {
    List<ProposedTable> worth = ranked.stream().filter(p -> p.takesEnoughOf(columns)).toList();
    return worth.isEmpty()
        ? ranked.stream().limit(1).filter(p -> p.columnsUsed() >= SOME).toList()
        : worth;
  }
}
