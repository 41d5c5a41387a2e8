package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Types;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.HexFormat;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;

/** Values of fields on their way to and from JDBC, in the form that the field's storage gives. */
final class Fields {
  private Fields() {}

  static Object read(ResultSet found, int column, FieldInfo field) throws SQLException {
    Object value =
        switch (field.storage().kind()) {
          case TEXT, PADDED, CASELESS, UUID, JSON, SET, LIST, INTERVAL, OTHER ->
              found.getString(column);
          case NUMBER -> number(found.getObject(column));
          case REAL -> {
            float held = found.getFloat(column);
            yield found.wasNull() ? null : floating(held, Float.toString(held));
          }
          case DOUBLE -> {
            double held = found.getDouble(column);
            yield found.wasNull() ? null : floating(held, Double.toString(held));
          }
          case DATE -> found.getObject(column, LocalDate.class);
          case MOMENT -> found.getObject(column, LocalDateTime.class);
          case INSTANT -> found.getObject(column, OffsetDateTime.class);
          case TIME -> found.getObject(column, LocalTime.class);
          case BOOLEAN -> {
            boolean held = found.getBoolean(column);
            yield found.wasNull() ? null : held;
          }
          case BINARY -> {
            byte[] bytes = found.getBytes(column);
            yield bytes == null ? null : "\\x" + HexFormat.of().formatHex(bytes);
          }
        };
    return switch (field.storage().kind()) {
      case PADDED, INSTANT -> field.storage().stored(value);
      default -> value;
    };
  }

  /** A number; what a database calls one and is none, such as NaN, stays a text. */
  private static Object number(Object value) {
    if (value == null || value instanceof BigDecimal) {
      return value;
    }
    if (value instanceof Integer || value instanceof Long || value instanceof Short) {
      return BigDecimal.valueOf(((Number) value).longValue());
    }
    return value instanceof Double d ? floating(d, d.toString()) : new BigDecimal(value.toString());
  }

  private static Object floating(double value, String text) {
    return Double.isFinite(value) ? new BigDecimal(text) : text;
  }

  static void bind(
      PreparedStatement statement, int parameter, FieldInfo field, Object given, Dialect dialect)
      throws SQLException {
    Object value = given == null ? null : dialect.bound(field, given);
    boolean open = dialect.openTyped(field);
    if (value == null) {
      statement.setNull(parameter, open ? Types.OTHER : field.jdbcType());
      return;
    }
    if (field.storage().kind() == org.zestyporter.core.value.Storage.Kind.JSON
        && dialect.jsonAsBytes()) {
      statement.setBytes(parameter, value.toString().getBytes(StandardCharsets.UTF_8));
    } else if (open) {
      statement.setObject(parameter, value.toString(), Types.OTHER);
    } else if (value instanceof BigDecimal number) {
      number(statement, parameter, field, number);
    } else if (value instanceof String text) {
      text(statement, parameter, field, text);
    } else {
      statement.setObject(parameter, value);
    }
  }

  /** A value as an element of an array that is bound as a whole. */
  static Object element(Object value) {
    if (value instanceof BigDecimal number && number.scale() == 0 && number.precision() <= 18) {
      return number.longValueExact();
    }
    return value;
  }

  private static void number(
      PreparedStatement statement, int parameter, FieldInfo field, BigDecimal number)
      throws SQLException {
    switch (field.storage().kind()) {
      case REAL -> statement.setFloat(parameter, number.floatValue());
      case DOUBLE -> statement.setDouble(parameter, number.doubleValue());
      default -> {
        boolean whole = field.type() == FieldType.WHOLE && number.precision() <= 18;
        if (whole) {
          statement.setLong(parameter, number.longValueExact());
        } else {
          statement.setBigDecimal(parameter, number);
        }
      }
    }
  }

  private static void text(PreparedStatement statement, int parameter, FieldInfo field, String text)
      throws SQLException {
    if (field.storage().kind() == org.zestyporter.core.value.Storage.Kind.BINARY) {
      statement.setBytes(parameter, HexFormat.of().parseHex(text, 2, text.length()));
    } else {
      statement.setString(parameter, text);
    }
  }
}
