package org.zestyporter.core.database;

/** H2 2.x; its information schema follows the SQL standard. */
final class H2Dialect implements Dialect {

  @Override
  public String checkQuery() {
    return """
        SELECT c.check_clause
        FROM information_schema.check_constraints c
        JOIN information_schema.table_constraints t
          ON t.constraint_schema = c.constraint_schema AND t.constraint_name = c.constraint_name
        WHERE t.table_schema = ? AND t.table_name = ?""";
  }
}
