package org.zestyporter.core.run;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.ValueColumn;

/**
 * Tells how written records stand where the application keeps them as they were given: it is asked
 * how many of them there are and what their numbers add up to, and only for the fields that it
 * fills by itself. If it says anything else than what it was given, nothing is told, and the
 * records have to be read back one by one.
 */
final class AsGiven {
  private final TableInfo table;
  private final WriteSession session;
  private final List<FieldInfo> keyFields;

  /** Fields whose sums are compared, by their places in the table. */
  private final int[] numbers;

  /** Fields that the application may fill by itself, by their places in the table. */
  private final int[] own;

  private AsGiven(Target target, WriteSession session) {
    this.table = target.table;
    this.session = session;
    this.keyFields = table.fields(table.primaryKey());
    List<FieldInfo> fields = table.fields();
    List<FieldInfo> given = given(target);
    this.numbers = where(f -> given.contains(fields.get(f)) && fields.get(f).type().isNumber());
    this.own = where(f -> fields.get(f).mayBeLeft() && !keyFields.contains(fields.get(f)));
  }

  /** For a destination; null if what stands of its records can't be told so. */
  static @Nullable AsGiven of(Target target, LastStage last) {
    boolean isTold =
        last.writes()
            && !target.table.primaryKey().isEmpty()
            && last.open().keeps(target.table, given(target));
    return isTold ? new AsGiven(target, last.open()) : null;
  }

  private static List<FieldInfo> given(Target target) {
    List<FieldInfo> given = new ArrayList<>();
    target.fills.forEach(fill -> given.add(fill.field()));
    if (target.parent != null) {
      given.add(target.parent.field());
    }
    return given;
  }

  private int[] where(IntPredicate is) {
    return IntStream.range(0, table.fields().size()).filter(is).toArray();
  }

  /**
   * The records of rows that were written, in the order of the rows.
   *
   * @param keys the records' primary keys
   * @return null if the application says something else
   */
  @Nullable Records records(TargetRows rows, List<Integer> written, List<List<Object>> keys) {
    // what was pending before they were written is known now
    ValueColumn[] given = rows.given();
    boolean areNew = written.stream().allMatch(r -> rows.before[r] < 0);
    ValueColumn[] columns =
        areNew ? picked(written, given, keys) : merged(rows, written, given, keys);
    return agrees(columns, keys) && fill(columns, keys) ? Records.of(columns, keys.size()) : null;
  }

  /** New records: what they were given. */
  private ValueColumn[] picked(
      List<Integer> written, ValueColumn[] given, List<List<Object>> keys) {
    int[] places = written.stream().mapToInt(r -> r).toArray();
    ValueColumn[] columns = new ValueColumn[table.fields().size()];
    for (int f = 0; f < columns.length; f++) {
      int part = keyFields.indexOf(table.fields().get(f));
      ValueColumn own = given[f];
      if (own != null && (part < 0 || !own.hasBlanks())) {
        columns[f] = own.pick(places);
      } else if (part >= 0) {
        columns[f] = column(keys.size(), i -> part(own, places[i], keys.get(i).get(part)));
      } else {
        columns[f] = ValueColumn.of(new Object[] {null}, new int[places.length]);
      }
    }
    return columns;
  }

  /** A part of the key: as it was given, or else as the application has it. */
  private static @Nullable Object part(@Nullable ValueColumn given, int r, Object key) {
    return given == null || given.isBlank(r) ? key : given.value(r);
  }

  private interface Values {
    @Nullable Object of(int i);
  }

  private static ValueColumn column(int count, Values values) {
    ColumnMaker maker = new ColumnMaker();
    for (int i = 0; i < count; i++) {
      maker.put(values.of(i));
    }
    return maker.column();
  }

  /** What the records were given, over what was there before. */
  private ValueColumn[] merged(
      TargetRows rows, List<Integer> written, ValueColumn[] given, List<List<Object>> keys) {
    ValueColumn[] columns = new ValueColumn[table.fields().size()];
    for (int f = 0; f < columns.length; f++) {
      columns[f] = merged(f, rows, written, given[f], keys);
    }
    return columns;
  }

  private ValueColumn merged(
      int field,
      TargetRows rows,
      List<Integer> written,
      @Nullable ValueColumn given,
      List<List<Object>> keys) {
    int part = keyFields.indexOf(table.fields().get(field));
    ColumnMaker maker = new ColumnMaker();
    for (int i = 0; i < written.size(); i++) {
      int r = written.get(i);
      boolean isNew = rows.before[r] < 0;
      if (isNew && part >= 0) {
        maker.put(part(given, r, keys.get(i).get(part)));
      } else if (isNew ? given != null : rows.change(r).fields().contains(field)) {
        maker.put(given, r);
      } else if (!isNew) {
        maker.put(rows.found.columns()[field], rows.before[r]);
      } else {
        maker.put((Object) null);
      }
    }
    return maker.column();
  }

  /** True if the application holds all of them, and their numbers add up to what was given. */
  private boolean agrees(ValueColumn[] columns, List<List<Object>> keys) {
    WriteSession.Totals totals =
        session.totals(table, Arrays.stream(numbers).mapToObj(table.fields()::get).toList(), keys);
    if (totals.records() != keys.size()) {
      return false;
    }
    for (int n = 0; n < numbers.length; n++) {
      if (sum(columns[numbers[n]]).compareTo(totals.sums().get(n)) != 0) {
        return false;
      }
    }
    return true;
  }

  private static BigDecimal sum(ValueColumn column) {
    ColumnSum sum = new ColumnSum();
    BigDecimal rest = BigDecimal.ZERO;
    for (int i = 0; i < column.rows(); i++) {
      if (column.form() == ValueColumn.Form.NUMBER) {
        sum.add(column, i);
      } else if (column.value(i) instanceof BigDecimal number) {
        rest = rest.add(number);
      }
    }
    return rest.add(sum.sum());
  }

  /** Asks for what the application has filled by itself. */
  private boolean fill(ValueColumn[] columns, List<List<Object>> keys) {
    if (own.length == 0) {
      return true;
    }
    List<FieldInfo> asked = new ArrayList<>(keyFields);
    for (int f : own) {
      asked.add(table.fields().get(f));
    }
    Records found = session.fetch(table, asked, keys);
    int[] places = keys.stream().mapToInt(found::at).toArray();
    for (int f : own) {
      columns[f] = found.columns()[f].pick(places);
    }
    return Arrays.stream(places).allMatch(at -> at >= 0);
  }
}
