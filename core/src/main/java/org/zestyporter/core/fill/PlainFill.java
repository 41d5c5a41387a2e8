package org.zestyporter.core.fill;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.step.ReadDate;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.PlainReader;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/**
 * The usual fills of a column, computed from the bytes of its entries straight into typed arrays:
 * texts that are only cleaned, numbers, days. An entry that is not written in the plainest way is
 * left to the fill's own chain of steps, which would give the same for the plain ones.
 */
final class PlainFill {
  private static final Set<StepKind> CLEANING =
      Set.of(StepKind.TRIM, StepKind.COLLAPSE_SPACES, StepKind.REMOVE_CONTROLS);
  private static final int MOST_SCALE = 12;

  private enum Form {
    TEXT,
    NUMBER,
    DATE
  }

  private final Form form;
  private final int longest;
  private final char decimal;
  private final int scale;
  private final long least;
  private final long greatest;
  private final DateOrder order;

  /** True if a text has to be of ASCII to be plain. */
  private final boolean hasFewLetters;

  private PlainFill(
      Form form,
      int longest,
      boolean hasFewLetters,
      char decimal,
      int scale,
      long least,
      long greatest,
      DateOrder order) {
    this.form = form;
    this.hasFewLetters = hasFewLetters;
    this.longest = longest;
    this.decimal = decimal;
    this.scale = scale;
    this.least = least;
    this.greatest = greatest;
    this.order = order;
  }

  /** The plain way of a fill; null if it has none. */
  static @Nullable PlainFill of(Fill fill, FieldInfo field, Supplier<LocaleSettings> locale) {
    if (!(fill.origin() instanceof Origin.Column) || field.choices() != null) {
      return null;
    }
    Step read = null;
    for (Step step : fill.steps()) {
      if (step.off() || CLEANING.contains(step.kind())) {
        continue;
      }
      if (read != null) {
        return null;
      }
      read = step;
    }
    return switch (field.storage().kind()) {
      case TEXT, PADDED, CASELESS ->
          read == null && field.type() == FieldType.TEXT ? text(field) : null;
      case NUMBER -> number(read, field, locale);
      case DATE -> date(read, field, locale);
      default -> null;
    };
  }

  private static PlainFill text(FieldInfo field) {
    int longest = field.length() == null ? Integer.MAX_VALUE : field.length();
    return new PlainFill(
        Form.TEXT, longest, field.letters() != null, '.', 0, 0, 0, DateOrder.YEAR_MONTH_DAY);
  }

  private static @Nullable PlainFill number(
      @Nullable Step read, FieldInfo field, Supplier<LocaleSettings> locale) {
    Integer scale = field.type() == FieldType.WHOLE ? Integer.valueOf(0) : field.scale();
    boolean plain =
        field.type().isNumber()
            && scale != null
            && scale >= 0
            && scale <= MOST_SCALE
            && read != null
            && read.kind() == StepKind.READ_NUMBER;
    if (!plain) {
      return null;
    }
    String decimal =
        read.setting("decimal") == null ? locale.get().decimal() : read.setting("decimal");
    long greatest = Long.MAX_VALUE;
    if (field.precision() != null) {
      // as many digits as there is room for
      greatest = field.precision() > 17 ? greatest : (long) Math.pow(10, field.precision()) - 1;
    }
    long least = -greatest;
    if (field.least() != null) {
      least = Math.max(least, bound(field.least(), scale, RoundingMode.CEILING));
    }
    if (field.greatest() != null) {
      greatest = Math.min(greatest, bound(field.greatest(), scale, RoundingMode.FLOOR));
    }
    return new PlainFill(
        Form.NUMBER, 0, false, decimal.charAt(0), scale, least, greatest, DateOrder.YEAR_MONTH_DAY);
  }

  private static long bound(BigDecimal bound, int scale, RoundingMode mode) {
    BigDecimal scaled = bound.setScale(scale, mode).scaleByPowerOfTen(scale);
    if (scaled.precision() > 18) {
      return scaled.signum() < 0 ? -Long.MAX_VALUE : Long.MAX_VALUE;
    }
    return scaled.longValueExact();
  }

  private static @Nullable PlainFill date(
      @Nullable Step read, FieldInfo field, Supplier<LocaleSettings> locale) {
    DateOrder order = DateOrder.YEAR_MONTH_DAY;
    if (read != null) {
      if (read.kind() != StepKind.READ_DATE || !ReadDate.isPlain(read)) {
        return null;
      }
      order = ReadDate.order(read, locale.get());
    }
    return field.type() == FieldType.DATE
        ? new PlainFill(Form.DATE, 0, false, '.', 0, 0, 0, order)
        : null;
  }

  /**
   * Computes a column.
   *
   * @param chain the fill's own chain, for an entry
   */
  FilledColumn compute(ColumnChunk cells, IntFunction<Filled> chain) {
    return form == Form.TEXT ? texts(cells, chain) : longs(cells, chain);
  }

  private FilledColumn texts(ColumnChunk cells, IntFunction<Filled> chain) {
    int entries = cells.entries();
    byte[] bytes = cells.bytes();
    int[] starts = cells.starts();
    int[] ends = cells.ends();
    Utf8 own = null;
    int[] ownStarts = starts;
    int[] ownEnds = ends;
    Filled[] odd = null;
    for (int e = 0; e < entries; e++) {
      int length =
          cells.kind(e) == Cell.Kind.TEXT ? PlainReader.plainLength(bytes, starts[e], ends[e]) : -1;
      boolean isAscii = length == ends[e] - starts[e];
      if (length >= 0 && length <= longest && (isAscii || !hasFewLetters)) {
        continue;
      }
      Filled filled = chain.apply(e);
      if (filled.value() != null && !(filled.value() instanceof String)) {
        return generic(cells, chain);
      }
      if (own == null) {
        own = new Utf8(bytes.length + 256).put(bytes, 0, bytes.length);
        ownStarts = starts.clone();
        ownEnds = ends.clone();
      }
      ownStarts[e] = own.size();
      ownEnds[e] = filled.value() == null ? -1 : own.put((String) filled.value()).size();
      if (filled.problem() != null) {
        odd = odd == null ? new Filled[entries] : odd;
        odd[e] = filled;
      }
    }
    byte[] held = own == null ? bytes : own.array();
    return new FilledColumn(ValueColumn.texts(held, ownStarts, ownEnds, cells.codes()), odd);
  }

  private FilledColumn longs(ColumnChunk cells, IntFunction<Filled> chain) {
    int entries = cells.entries();
    byte[] bytes = cells.bytes();
    int[] starts = cells.starts();
    int[] ends = cells.ends();
    long[] longs = new long[entries];
    Filled[] odd = null;
    for (int e = 0; e < entries; e++) {
      long value = plain(cells.kind(e), bytes, starts[e], ends[e]);
      if (value != PlainReader.NOT_PLAIN) {
        longs[e] = value;
        continue;
      }
      Filled filled = chain.apply(e);
      value = typed(filled.value());
      if (value == PlainReader.NOT_PLAIN) {
        return generic(cells, chain);
      }
      longs[e] = value;
      if (filled.problem() != null) {
        odd = odd == null ? new Filled[entries] : odd;
        odd[e] = filled;
      }
    }
    ValueColumn values =
        form == Form.DATE
            ? ValueColumn.dates(longs, cells.codes())
            : ValueColumn.numbers(longs, scale, cells.codes());
    return new FilledColumn(values, odd);
  }

  private long plain(Cell.Kind kind, byte[] bytes, int from, int to) {
    if (form == Form.DATE) {
      return kind == Cell.Kind.TEXT || kind == Cell.Kind.DATE
          ? PlainReader.date(bytes, from, to, order)
          : PlainReader.NOT_PLAIN;
    }
    char sign = kind == Cell.Kind.NUMBER ? '.' : decimal;
    long value =
        kind == Cell.Kind.TEXT || kind == Cell.Kind.NUMBER
            ? PlainReader.number(bytes, from, to, sign, scale)
            : PlainReader.NOT_PLAIN;
    return value >= least && value <= greatest ? value : PlainReader.NOT_PLAIN;
  }

  /** A value of the chain in this column's own form. */
  private long typed(@Nullable Object value) {
    if (value == null) {
      return ValueColumn.BLANK;
    }
    if (form == Form.DATE) {
      return value instanceof LocalDate date ? date.toEpochDay() : PlainReader.NOT_PLAIN;
    }
    return value instanceof BigDecimal number && number.scale() == scale && number.precision() <= 18
        ? number.unscaledValue().longValueExact()
        : PlainReader.NOT_PLAIN;
  }

  /** The column value by value, where one of them has another form. */
  private static FilledColumn generic(ColumnChunk cells, IntFunction<Filled> chain) {
    FilledColumn.Builder builder = new FilledColumn.Builder(cells.entries());
    for (int e = 0; e < cells.entries(); e++) {
      builder.put(e, chain.apply(e));
    }
    return builder.build(cells.codes());
  }
}
