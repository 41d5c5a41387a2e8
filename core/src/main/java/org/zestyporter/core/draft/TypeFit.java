package org.zestyporter.core.draft;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.OtherCalendar;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ValueReader;
import org.zestyporter.core.value.ValueType;

/** Tells what fields can take of columns by their types, whatever they are called. */
final class TypeFit {
  private static final int VALUES_TRIED = 200;

  private final SourceTable source;
  private final ColumnMeasures measures;
  private final Map<Integer, Optional<OtherCalendar>> calendars = new ConcurrentHashMap<>();

  TypeFit(SourceTable source) {
    this.source = source;
    this.measures = new ColumnMeasures(source);
  }

  /** What is known of columns that hold numbers with their unit. */
  ColumnMeasures measures() {
    return measures;
  }

  /** True if a field can take a column's values, whatever the names say. */
  boolean fits(int column, FieldInfo field) {
    boolean number =
        field.type().isNumber()
            && (source.profiles().get(column).type().isNumber()
                || measures.isPercent(column)
                || measures.unitFor(column, field.name()) != null);
    return number || of(column, field) > 0;
  }

  /** How well a column's type is that of a field: what its score gains, or loses, by it. */
  int of(int column, FieldInfo field) {
    ValueType type = source.profiles().get(column).type();
    if (type == ValueType.EMPTY) {
      return 0;
    }
    return switch (field.type()) {
      case TEXT -> type == ValueType.TEXT ? 5 : type == ValueType.DATE ? -5 : 0;
      case WHOLE -> type == ValueType.WHOLE ? 8 : -30;
      case DECIMAL -> type.isNumber() ? 8 : -30;
      case DATE, DATETIME ->
          type == ValueType.DATE || type == ValueType.DATETIME || calendar(column) != null
              ? 8
              : -30;
      case TIME -> type == ValueType.TIME ? 8 : -30;
      case BOOLEAN -> type == ValueType.BOOLEAN ? 8 : -30;
      case OTHER -> 0;
    };
  }

  /** Share of a column's first distinct values that a field could be given. */
  double readable(int column, FieldInfo field) {
    if (field.type().isNumber()) {
      return measures.of(column).numbers();
    }
    LocaleSettings locale = source.locale(column);
    boolean isDay = field.type() == FieldType.DATE || field.type() == FieldType.DATETIME;
    if (isDay && calendar(column) != null) {
      return 1;
    }
    List<Cell> cells = some(column);
    long fitting =
        cells.stream().filter(c -> !(read(c.text(), field, locale) instanceof Problem)).count();
    return cells.isEmpty() ? 0 : (double) fitting / cells.size();
  }

  /** The calendar that a column's days are written in; null if that is ours, or none. */
  @Nullable OtherCalendar calendar(int column) {
    return calendars.computeIfAbsent(column, this::findCalendar).orElse(null);
  }

  private Optional<OtherCalendar> findCalendar(int column) {
    LocaleSettings locale = source.locale(column);
    return Optional.ofNullable(
        ToldCalendar.of(
            some(column).stream().map(Cell::text).toList(),
            text -> moment(text, locale),
            locale.dateOrder(),
            String.join("", source.columns())));
  }

  private List<Cell> some(int column) {
    return source.distinct(column).tallies().keySet().stream().limit(VALUES_TRIED).toList();
  }

  /** True for a field whose values have to be read: it is no text that takes what is written. */
  static boolean isRead(FieldInfo field) {
    return switch (field.type()) {
      case BOOLEAN, DATE, DATETIME, TIME -> true;
      default -> field.type().isNumber();
    };
  }

  private static Object read(String text, FieldInfo field, LocaleSettings locale) {
    return switch (field.type()) {
      case DATE -> ValueReader.date(text, locale.dateOrder(), locale.century());
      case DATETIME -> moment(text, locale);
      case TIME -> ValueReader.time(text);
      case BOOLEAN -> ValueReader.truth(text);
      default -> text;
    };
  }

  private static Object moment(String text, LocaleSettings locale) {
    Object moment = ValueReader.dateTime(text, locale.dateOrder(), locale.century());
    return moment instanceof Problem
        ? ValueReader.date(text, locale.dateOrder(), locale.century())
        : moment;
  }
}
