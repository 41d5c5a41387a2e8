package org.zestyporter.core.draft;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.Measures;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ValueReader;
import org.zestyporter.core.value.ValueType;

/** What the columns of a source are like, beside what records are; made as asked for. */
final class Sketches {
  private static final int VALUES = 400;

  private final KnownRecords known;
  private final SourceTable source;
  private final ColumnMeasures measures;
  private final Map<Integer, Sketch> columns = new ConcurrentHashMap<>();
  private final Map<Compared, Sketch.Agreement> agreements = new ConcurrentHashMap<>();

  private record Compared(String table, String field, int column) {}

  Sketches(KnownRecords known, SourceTable source, ColumnMeasures measures) {
    this.known = known;
    this.source = source;
    this.measures = measures;
  }

  /** How well a column's values agree with those that a field holds already. */
  Sketch.Agreement agreement(TableInfo table, FieldInfo field, int column) {
    return agreements.computeIfAbsent(
        new Compared(table.name(), field.name(), column),
        c -> column(column).with(field(table, field), table.name() + "." + field.name()));
  }

  /** True if no value of a column is written as any that a text field holds. */
  boolean isUnlike(TableInfo table, FieldInfo field, int column) {
    return column(column).isUnlike(field(table, field));
  }

  /** True if it is known what the values of a field are like. */
  boolean isTelling(TableInfo table, FieldInfo field) {
    return field(table, field).isTelling();
  }

  /** True if a text field holds values, and hardly any digit in them. */
  boolean isWithoutDigits(TableInfo table, FieldInfo field) {
    Sketch held = field(table, field);
    return held.isTelling() && held.isWithoutDigits();
  }

  private Sketch field(TableInfo table, FieldInfo field) {
    int place = 0;
    while (!table.fields().get(place).name().equals(field.name())) {
      place++;
    }
    return known.sketches(table).get(place);
  }

  private Sketch column(int column) {
    return columns.computeIfAbsent(column, this::sketch);
  }

  private Sketch sketch(int column) {
    Sketch sketch = new Sketch();
    ValueType type = source.profiles().get(column).type();
    LocaleSettings locale = source.locale(column);
    Measures.Measure unit = measures.ownUnit(column);
    int count = 0;
    for (Map.Entry<Cell, DistinctValues.Tally> e : source.distinct(column).tallies().entrySet()) {
      Object value =
          unit == null || type != ValueType.TEXT
              ? value(e.getKey(), type, locale)
              : Measures.read(e.getKey().text(), unit.symbol(), locale.decimal());
      if (value != null && !(value instanceof Problem)) {
        sketch.add(e.getKey().text().strip(), value, e.getValue().rows());
      }
      if (++count == VALUES) {
        break;
      }
    }
    return sketch;
  }

  private static Object value(Cell cell, ValueType type, LocaleSettings locale) {
    Object value = cell.value();
    if (!(value instanceof String text)) {
      return value;
    }
    return switch (type) {
      case WHOLE, DECIMAL -> ValueReader.number(text, locale.decimal());
      case DATE -> ValueReader.date(text, locale.dateOrder(), locale.century());
      case DATETIME -> ValueReader.dateTime(text, locale.dateOrder(), locale.century());
      default -> text;
    };
  }
}
