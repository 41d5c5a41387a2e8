package org.zestyporter.core.run;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.fill.Pending;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/**
 * The record that a row makes or speaks of, as far as others need it: what their links to it hold,
 * even before the application has numbered it. There may be one for each row, so it is small.
 */
final class RowRecord {
  private final Target target;
  private final long line;
  private final boolean isNew;

  /** Its values of the fields that others point at; null if none of them is given. */
  private final Object @Nullable [] given;

  /** Its primary key, once the application has given it one: the only part of it, or all. */
  private volatile @Nullable Object key;

  private RowRecord(Target target, long line, boolean isNew, Object @Nullable [] given) {
    this.target = target;
    this.line = line;
    this.isNew = isNew;
    this.given = given;
  }

  /** The record that a row makes. */
  static RowRecord made(TargetRows rows, int r) {
    Target target = rows.target;
    Object[] given = null;
    for (int i = 0; i < target.pointedAt.size(); i++) {
      Object value = rows.valueOf(target.pointedAt.get(i), r);
      if (value != null) {
        given = given == null ? new Object[target.pointedAt.size()] : given;
        given[i] = value;
      }
    }
    return new RowRecord(target, rows.line(r), true, given);
  }

  /** The record that was found for a row, as it stood. */
  static RowRecord found(TargetRows rows, int r) {
    Target target = rows.target;
    ValueColumn[] stood = rows.found.columns();
    Object[] given = new Object[target.pointedAt.size()];
    Arrays.setAll(given, i -> stood[target.pointedAt.get(i)].value(rows.before[r]));
    return new RowRecord(target, rows.line(r), false, given);
  }

  /** True if its row makes it. */
  boolean isNew() {
    return isNew;
  }

  /** Notes the primary key that the application gave it; null if it is not made after all. */
  void made(@Nullable List<Object> own) {
    Object all = own == null || own.size() != 1 ? own : own.get(0);
    key =
        all instanceof BigDecimal number && Values.isLong(number)
            ? (Object) number.longValue()
            : all;
  }

  /**
   * What a link to it holds.
   *
   * @param field one of those that others point at
   * @return null if the field is blank, and no part of the primary key that the application gives
   */
  @Nullable Object link(FieldInfo field) {
    int at = target.pointedAt.indexOf(target.table.fields().indexOf(field));
    Object value = given == null ? null : given[at];
    if (value != null && !(value instanceof Pending)) {
      return value;
    }
    int part = target.table.fields(target.table.primaryKey()).indexOf(field);
    return part < 0 ? null : new Numbered(part);
  }

  /** A part of the primary key that the application gives. */
  private final class Numbered implements Pending {
    private final int part;

    Numbered(int part) {
      this.part = part;
    }

    @Override
    public @Nullable Object key() {
      Object own = key;
      return own instanceof Long number
          ? BigDecimal.valueOf(number)
          : own instanceof List<?> parts ? parts.get(part) : own;
    }

    @Override
    public String toString() {
      Object own = key();
      return own == null ? "new " + target.label() + " of line " + line : Values.text(own);
    }
  }
}
