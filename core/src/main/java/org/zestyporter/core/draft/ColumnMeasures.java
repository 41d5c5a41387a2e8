package org.zestyporter.core.draft;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.Measures;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.UnitWords;
import org.zestyporter.core.value.ValueReader;

/** Tells of columns whether they hold numbers with their unit, such as 18.80 m, and in which. */
final class ColumnMeasures {
  private static final int VALUES_TRIED = 200;

  /** Where none of the first is a number, the others are not looked at. */
  private static final int FIRST_TRIED = 40;

  /** Share of numbers, with a unit or without, from which a column holds nothing else. */
  private static final double NEARLY_ALL = 0.8;

  /** Share of values with a unit that tells in which the others are. */
  private static final double ENOUGH_TO_TELL = 0.2;

  /** The same where the title or the field says it; fewer are slips, which are better shown. */
  private static final double ENOUGH_TO_CONFIRM = 0.05;

  private final SourceTable source;
  private final Map<Integer, Found> found = new ConcurrentHashMap<>();

  ColumnMeasures(SourceTable source) {
    this.source = source;
  }

  /**
   * What a column's first distinct values are.
   *
   * @param numbers share of those that are numbers, with a unit or without
   * @param withUnit share of those that have their unit beside them
   * @param percent share of those that are shares of a hundred, such as 12 %
   * @param unit the unit that most of those with a unit have; null if none has any
   */
  record Found(double numbers, double withUnit, double percent, Measures.@Nullable Measure unit) {}

  Found of(int column) {
    return found.computeIfAbsent(column, this::find);
  }

  private Found find(int column) {
    String decimal = source.locale(column).decimal();
    List<Cell> cells =
        source.distinct(column).tallies().keySet().stream().limit(VALUES_TRIED).toList();
    Map<Measures.Measure, Integer> units = new HashMap<>();
    int bare = 0;
    int percent = 0;
    int tried = 0;
    for (Cell cell : cells) {
      if (tried++ == FIRST_TRIED && bare + percent == 0 && units.isEmpty()) {
        break;
      }
      if (!(ValueReader.number(cell.text(), decimal) instanceof Problem)) {
        bare++;
      } else if (isPercent(cell.text().strip(), decimal)) {
        percent++;
      } else {
        Measures.Measure unit = Measures.unitOf(cell.text());
        if (unit != null
            && !(Measures.read(cell.text(), unit.symbol(), decimal) instanceof Problem)) {
          units.merge(unit, 1, Integer::sum);
        }
      }
    }
    Measures.Measure most =
        units.entrySet().stream()
            .max(Map.Entry.comparingByValue())
            .map(Map.Entry::getKey)
            .orElse(null);
    int with = units.values().stream().mapToInt(Integer::intValue).sum();
    double all = Math.max(1, cells.size());
    return new Found((bare + with + percent) / all, with / all, percent / all, most);
  }

  private static boolean isPercent(String text, String decimal) {
    return text.endsWith("%")
        && !(ValueReader.number(text.substring(0, text.length() - 1).strip(), decimal)
            instanceof Problem);
  }

  /** True if most values of a column are shares of a hundred. */
  boolean isPercent(int column) {
    return of(column).percent() * 2 > 1;
  }

  /**
   * The unit that a column's own values say: where nearly all are numbers, and enough of them have
   * one. Null if they say none.
   */
  Measures.@Nullable Measure ownUnit(int column) {
    Found found = of(column);
    return found.numbers() >= NEARLY_ALL && found.withUnit() >= ENOUGH_TO_TELL
        ? found.unit()
        : null;
  }

  /**
   * The unit in which a column is read for a field: that of the title, of the field, or of the
   * values themselves. Numbers without one are in that unit, too: every twentieth with a unit is
   * enough where the title or the field says it, every fifth where nothing else does. Null if fewer
   * have one, if much else is in the column, or if it measures something else.
   *
   * @param field the field's name
   */
  Measures.@Nullable Measure unitFor(int column, String field) {
    Found measures = of(column);
    boolean nearlyAll = measures.numbers() >= NEARLY_ALL;
    if (measures.unit() == null || !(nearlyAll || measures.withUnit() * 2 > 1)) {
      return null;
    }
    Measures.Measure wanted = UnitWords.in(source.columns().get(column));
    wanted = wanted == null ? UnitWords.in(field) : wanted;
    if (measures.withUnit() < (wanted == null ? ENOUGH_TO_TELL : ENOUGH_TO_CONFIRM)) {
      return null;
    }
    if (wanted == null) {
      return measures.unit();
    }
    boolean same = Measures.conversion(measures.unit().symbol(), wanted.symbol()) != null;
    return same ? wanted : null;
  }
}
