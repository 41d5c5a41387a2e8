package org.zestyporter.core.database;

import java.math.BigDecimal;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Types;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;

/** Values of fields on their way to and from JDBC. */
final class Fields {
  private Fields() {}

  static Object read(ResultSet found, int column, FieldInfo field) throws SQLException {
    return switch (field.type()) {
      case TEXT -> found.getString(column);
      case WHOLE, DECIMAL -> found.getBigDecimal(column);
      case DATE -> found.getObject(column, LocalDate.class);
      case DATETIME -> dateTime(found, column, field);
      case TIME -> found.getObject(column, LocalTime.class);
      case BOOLEAN -> {
        boolean value = found.getBoolean(column);
        yield found.wasNull() ? null : value;
      }
      case OTHER -> found.getString(column);
    };
  }

  private static Object dateTime(ResultSet found, int column, FieldInfo field) throws SQLException {
    if (field.jdbcType() == Types.TIMESTAMP_WITH_TIMEZONE) {
      java.sql.Timestamp stamp = found.getTimestamp(column);
      return stamp == null ? null : stamp.toLocalDateTime();
    }
    return found.getObject(column, LocalDateTime.class);
  }

  static void bind(
      PreparedStatement statement, int parameter, FieldInfo field, Object value, Dialect dialect)
      throws SQLException {
    if (value == null) {
      statement.setNull(parameter, dialect.openTyped(field) ? Types.OTHER : field.jdbcType());
    } else if (dialect.openTyped(field)) {
      statement.setObject(parameter, value.toString(), Types.OTHER);
    } else if (value instanceof BigDecimal number && field.type() == FieldType.WHOLE) {
      statement.setLong(parameter, number.longValueExact());
    } else if (value instanceof String text) {
      statement.setString(parameter, text);
    } else {
      statement.setObject(parameter, value);
    }
  }
}
