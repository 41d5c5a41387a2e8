package org.zestyporter.bench.draft;

import java.util.List;
import java.util.Random;
import org.jspecify.annotations.Nullable;

/**
 * An invented application with a table that files are drafted for, and what people call its fields.
 *
 * @param ddl makes its tables, and some records in those that links point at
 * @param table the table that files are for
 * @param columns what files hold
 */
record Schema(String name, List<String> ddl, String table, List<Column> columns) {

  /** A value of a column in a row. */
  @FunctionalInterface
  interface Value {
    String of(Random random, int row);
  }

  /**
   * A column of a file.
   *
   * @param field the field that it feeds; null if it feeds none
   * @param stored the SQL literal of a value as the application would hold it; null if records that
   *     are there already have none of it
   * @param titles by {@link Titles}, in their order
   */
  record Column(@Nullable String field, Value value, @Nullable Value stored, List<String> titles) {}

  /** In which words files speak. */
  enum Titles {
    SAME,
    OTHER,
    SHORT,
    GERMAN,
    FRENCH,
    SPANISH,
    ITALIAN,
    DUTCH;

    String word() {
      return name().toLowerCase(java.util.Locale.ROOT);
    }
  }

  static Column column(@Nullable String field, String titles, Value value, @Nullable Value stored) {
    return new Column(field, value, stored, List.of(titles.split("\\|")));
  }

  /** A column whose values are held as they come. */
  static Column plain(@Nullable String field, String titles, Value value) {
    return column(field, titles, value, (random, row) -> quoted(value.of(random, row)));
  }

  static String quoted(String text) {
    return text.isEmpty() ? "NULL" : "'" + text.replace("'", "''") + "'";
  }

  static String one(Random random, String... of) {
    return of[random.nextInt(of.length)];
  }
}
