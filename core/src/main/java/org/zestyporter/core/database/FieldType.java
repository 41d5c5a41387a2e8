package org.zestyporter.core.database;

import com.fasterxml.jackson.annotation.JsonValue;
import java.sql.Types;
import java.util.Locale;

/** The kinds of fields that can be filled. */
public enum FieldType {
  TEXT,
  WHOLE,
  DECIMAL,
  DATE,
  DATETIME,
  TIME,
  BOOLEAN,
  OTHER;

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }

  public boolean isNumber() {
    return this == WHOLE || this == DECIMAL;
  }

  static FieldType of(int jdbcType, int scale) {
    return switch (jdbcType) {
      case Types.CHAR,
          Types.VARCHAR,
          Types.LONGVARCHAR,
          Types.NCHAR,
          Types.NVARCHAR,
          Types.LONGNVARCHAR,
          Types.CLOB,
          Types.NCLOB ->
          TEXT;
      case Types.TINYINT, Types.SMALLINT, Types.INTEGER, Types.BIGINT -> WHOLE;
      case Types.DECIMAL, Types.NUMERIC -> scale == 0 ? WHOLE : DECIMAL;
      case Types.REAL, Types.FLOAT, Types.DOUBLE -> DECIMAL;
      case Types.DATE -> DATE;
      case Types.TIMESTAMP, Types.TIMESTAMP_WITH_TIMEZONE -> DATETIME;
      case Types.TIME, Types.TIME_WITH_TIMEZONE -> TIME;
      case Types.BOOLEAN, Types.BIT -> BOOLEAN;
      default -> OTHER;
    };
  }
}
