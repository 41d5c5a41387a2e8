package org.zestyporter.core.source;

import java.time.temporal.Temporal;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.ColumnProfile.ValueCount;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.ValueReader;
import org.zestyporter.core.value.Votes;

/**
 * A column whose texts read in two ways while nothing in the file tells which one is meant, such as
 * 03/04/2026 or 1.204.
 *
 * @param code {@link WarningCode#AMBIGUOUS_DATES} or {@link WarningCode#AMBIGUOUS_DECIMALS}
 * @param column name of the column
 * @param sample a text that reads in two ways
 * @param rows how many rows hold such a text
 */
public record Ambiguity(WarningCode code, String column, String sample, long rows) {

  /** The columns of a file that read in two ways; empty if the file or a person tells which. */
  static List<Ambiguity> find(List<ColumnProfile> profiles, Profiling profiling, Reading wanted) {
    List<Ambiguity> found = new ArrayList<>();
    Votes all = profiling.votes();
    boolean dates = all.dayFirst() + all.monthFirst() == 0;
    boolean decimals = all.comma() + all.point() == 0;
    for (int c = 0; c < profiles.size(); c++) {
      Votes own = profiling.votes(c);
      DistinctValues values = profiling.distinct()[c];
      if (dates && own.eitherWay() > 0 && isOpen(wanted, WarningCode.AMBIGUOUS_DATES)) {
        found.add(of(WarningCode.AMBIGUOUS_DATES, profiles.get(c), values, own.eitherWay()));
      }
      if (decimals && own.eitherSign() > 0 && isOpen(wanted, WarningCode.AMBIGUOUS_DECIMALS)) {
        found.add(of(WarningCode.AMBIGUOUS_DECIMALS, profiles.get(c), values, own.eitherSign()));
      }
    }
    return found;
  }

  /** True if a person may still have to say how the texts of a file are read. */
  static boolean areOpen(Reading wanted) {
    return isOpen(wanted, WarningCode.AMBIGUOUS_DATES)
        || isOpen(wanted, WarningCode.AMBIGUOUS_DECIMALS);
  }

  /** A locale says both, unless it was said to answer for the other one. */
  private static boolean isOpen(Reading wanted, WarningCode code) {
    WarningCode other =
        code == WarningCode.AMBIGUOUS_DATES
            ? WarningCode.AMBIGUOUS_DECIMALS
            : WarningCode.AMBIGUOUS_DATES;
    return !isConfirmed(wanted, code) && (wanted.locale() == null || isConfirmed(wanted, other));
  }

  private static boolean isConfirmed(Reading wanted, WarningCode code) {
    return wanted.confirmed() != null && wanted.confirmed().contains(Warning.key(code, null));
  }

  private static Ambiguity of(
      WarningCode code, ColumnProfile column, DistinctValues values, long rows) {
    Stream<String> texts =
        Stream.concat(
            column.samples().stream().map(ValueCount::text),
            values.tallies().keySet().stream().map(Cell::text));
    boolean dates = code == WarningCode.AMBIGUOUS_DATES;
    String sample =
        texts.filter(t -> dates ? isEitherDate(t) : isEitherNumber(t)).findFirst().orElse("");
    return new Ambiguity(code, column.name(), sample, rows);
  }

  private static boolean isEitherDate(String text) {
    Object dayFirst = date(text, DateOrder.DAY_MONTH_YEAR);
    Object monthFirst = date(text, DateOrder.MONTH_DAY_YEAR);
    return dayFirst instanceof Temporal
        && monthFirst instanceof Temporal
        && !dayFirst.equals(monthFirst);
  }

  private static @Nullable Object date(String text, DateOrder order) {
    return text.indexOf(':') > 0
        ? ValueReader.dateTime(text, order, "20")
        : ValueReader.date(text, order, "20");
  }

  private static boolean isEitherNumber(String text) {
    return Votes.ofNumber(text, 1).eitherSign() > 0;
  }
}
