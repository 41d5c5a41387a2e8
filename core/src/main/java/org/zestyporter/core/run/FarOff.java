package org.zestyporter.core.run;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/**
 * Asks about numbers and days that are far from all others of their field, and few: numbers of
 * about a thousand times or a thousandth of the middle one and beyond, or some hundred times what
 * nearly all are below, days that are decades away, each with a wide gap before the others. Such a
 * value is more often a lost decimal sign, another unit or a slip of the century than true.
 *
 * <p>Numbers are counted by their size to the power of two, days by their year, so that memory does
 * not grow with the rows. Keys, links, choices and what is generated are passed over.
 */
final class FarOff {
  private final List<Watched> watched = new ArrayList<>();

  /** A fill whose values are looked at. */
  private static final class Watched {
    private final int fill;
    private final Set<Object> right = new HashSet<>();
    private Spread spread;
    private boolean isKnown;

    Watched(int fill, Spread.Scale scale) {
      this.fill = fill;
      this.spread = new Spread(scale);
    }
  }

  FarOff(Destination destination, TableInfo table, List<CompiledFill> fills) {
    for (int f = 0; f < fills.size(); f++) {
      FieldInfo field = fills.get(f).field();
      Fill fill =
          destination.fills().stream()
              .filter(d -> d.field().equalsIgnoreCase(field.name()))
              .findFirst()
              .orElse(null);
      Spread.Scale scale = scale(field);
      if (fill != null && scale != null && isWatched(fill, field, destination, table)) {
        Watched one = new Watched(f, scale);
        said(fill).forEach(text -> one.right.add(same(field.type().read(text))));
        watched.add(one);
      }
    }
  }

  private static Spread.@Nullable Scale scale(FieldInfo field) {
    return switch (field.type()) {
      case WHOLE, DECIMAL -> Spread.Scale.SIZE;
      case DATE, DATETIME -> Spread.Scale.YEAR;
      default -> null;
    };
  }

  private static List<String> said(Fill fill) {
    return fill.farOff() == null ? List.of() : fill.farOff();
  }

  /** What is equal for equal values. */
  private static @Nullable Object same(@Nullable Object value) {
    return value instanceof BigDecimal number ? Values.bare(number) : value;
  }

  private static boolean isWatched(
      Fill fill, FieldInfo field, Destination destination, TableInfo table) {
    boolean isKey =
        field.link() != null
            || field.unique()
            || table.primaryKey().contains(field.name())
            || destination.keys().stream().anyMatch(k -> k.fields().contains(field.name()));
    boolean isMade =
        fill.origin() instanceof Origin.Generated || fill.origin() instanceof Origin.Fixed;
    return !isKey && !isMade && field.choices() == null && !said(fill).contains(Fill.ANY);
  }

  /** Looks at no other fills than some, by their numbers. */
  void only(List<Integer> fills) {
    watched.removeIf(w -> !fills.contains(w.fill));
  }

  /** Numbers of the fills whose values are looked at. */
  List<Integer> fills() {
    return watched.stream().map(w -> w.fill).toList();
  }

  /** Takes from before how the values of a fill spread. */
  void know(int fill, Spread spread) {
    Watched one = watched(fill);
    one.spread = spread;
    one.isKnown = true;
  }

  /** How the values of a fill spread, all of which were counted. */
  Spread spread(int fill) {
    return watched(fill).spread;
  }

  private Watched watched(int fill) {
    return watched.stream().filter(w -> w.fill == fill).findFirst().orElseThrow();
  }

  /** Counts the values of a chunk; on any thread. */
  void note(FilledChunk rows) {
    for (Watched one : watched) {
      if (one.isKnown) {
        continue;
      }
      ValueColumn column = rows.column(one.fill).values();
      double unit = unit(column);
      boolean isHeld = isHeld(column);
      boolean isSize = column.form() == ValueColumn.Form.NUMBER;
      Spread own = one.spread.empty();
      for (int r = 0; r < rows.rows(); r++) {
        own.add(isHeld ? value(column.number(r), unit, isSize) : value(column.value(r)));
      }
      one.spread.addAll(own);
    }
  }

  /** What the numbers of a column count. */
  private static double unit(ValueColumn column) {
    return switch (column.form()) {
      case NUMBER -> Math.pow(10, -column.scale());
      case MOMENT -> 1 / 86_400e6;
      default -> 1;
    };
  }

  /** True if a column holds its values as numbers or days. */
  private static boolean isHeld(ValueColumn column) {
    return switch (column.form()) {
      case NUMBER, DATE, MOMENT -> true;
      default -> false;
    };
  }

  /** A number without its sign, or a day; none if it is blank, zero, or anything else. */
  private static double value(ValueColumn column, int row) {
    return isHeld(column)
        ? value(column.number(row), unit(column), column.form() == ValueColumn.Form.NUMBER)
        : value(column.value(row));
  }

  private static double value(long held, double unit, boolean isSize) {
    if (held == ValueColumn.BLANK) {
      return Double.NaN;
    }
    return isSize ? size(held * unit) : Math.floor(held * unit);
  }

  private static double value(@Nullable Object value) {
    if (value instanceof BigDecimal number) {
      return size(number.doubleValue());
    }
    LocalDate day = Values.day(value);
    return day == null ? Double.NaN : day.toEpochDay();
  }

  private static double size(double number) {
    return number == 0 ? Double.NaN : Math.abs(number);
  }

  /** Finds out which values are far; nothing is noted after this. */
  void settle() {
    watched.forEach(one -> one.spread.settle());
    watched.removeIf(one -> !one.spread.findsAny());
  }

  /** True if a row has a value that is far off, whatever anybody has said of it. */
  boolean isFar(FilledChunk rows, int r) {
    for (Watched one : watched) {
      ValueColumn column = rows.column(one.fill).values();
      if (one.spread.isFar(value(column, r))) {
        return true;
      }
    }
    return false;
  }

  /** Lets a row wait that has a value which is far off, and which nobody has called right. */
  void tell(TargetRows rows, int r) {
    for (Watched one : watched) {
      ValueColumn column = rows.filled.column(one.fill).values();
      double size = value(column, r);
      if (one.spread.isFar(size) && rows.odd(one.fill, r) == null) {
        Object value = column.value(r);
        if (!one.right.contains(same(value))) {
          String text =
              value instanceof BigDecimal number ? Values.plain(number) : Values.text(value);
          Problem problem = new Problem(ProblemCode.FAR_OFF, text, one.spread.reason(size));
          rows.settle(one.fill, r, new Filled(value, problem, false, true));
        }
      }
    }
  }
}
