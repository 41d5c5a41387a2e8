package org.zestyporter.core.application.jdbc;

import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.NewRecords;
import org.zestyporter.core.value.ValueColumn;

/** A way to write many records at once, for one session. */
interface Copying {
  /** Fewer records go as well by statements. */
  int FEWEST = 64;

  /** For databases that have none. */
  Copying NONE = records -> null;

  /**
   * Inserts records, which must give and leave the same as statements.
   *
   * @return their primary keys, in their order; null if they have to go by statements
   */
  @Nullable List<List<Object>> copy(NewRecords records) throws SQLException;

  /**
   * Updates records in a way other than by a statement for each; it must leave the same.
   *
   * @return how many there were to update; under 0 if they have to go by statements
   */
  default int update(Load load) throws SQLException {
    return -1;
  }

  /** The parts of the primary key that records leave to the database, or that it may alter. */
  static List<FieldInfo> leftKeys(NewRecords records) {
    List<FieldInfo> left = new ArrayList<>(records.table().fields(records.table().primaryKey()));
    left.removeIf(key -> records.fields().contains(key) && isKeptAsGiven(key));
    return left;
  }

  private static boolean isKeptAsGiven(FieldInfo key) {
    return switch (key.storage().kind()) {
      case NUMBER, TEXT, UUID, DATE -> true;
      default -> false;
    };
  }

  /** The primary keys that records are given; null for each if their table has none. */
  static List<List<Object>> givenKeys(NewRecords records) {
    List<FieldInfo> fields = records.fields();
    ValueColumn[] columns = records.given();
    List<FieldInfo> keyFields = records.table().fields(records.table().primaryKey());
    List<List<Object>> keys = new ArrayList<>(records.count());
    for (int row : records.rows()) {
      List<Object> key = new ArrayList<>(keyFields.size());
      for (FieldInfo field : keyFields) {
        key.add(field.storage().canonical(columns[fields.indexOf(field)].value(row)));
      }
      keys.add(keyFields.isEmpty() ? null : key);
    }
    return keys;
  }

  /** Forgets what is known of tables, which others may change from now on. */
  default void forget() {}
}
