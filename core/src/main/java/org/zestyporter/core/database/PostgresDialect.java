package org.zestyporter.core.database;

import java.sql.Types;

/** PostgreSQL 12 and newer. */
final class PostgresDialect implements Dialect {

  @Override
  public String checkQuery() {
    return """
        SELECT pg_get_constraintdef(c.oid)
        FROM pg_constraint c
        JOIN pg_class t ON t.oid = c.conrelid
        JOIN pg_namespace n ON n.oid = t.relnamespace
        WHERE c.contype = 'c' AND n.nspname = ? AND t.relname = ?""";
  }

  @Override
  public boolean openTyped(FieldInfo field) {
    return field.type() == FieldType.OTHER || field.jdbcType() == Types.OTHER;
  }
}
