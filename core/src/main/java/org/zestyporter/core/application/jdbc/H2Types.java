package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.value.Storage.Kind;

/**
 * The types of fields as H2's catalogue has them. It makes up the fields of all tables for each
 * question, so that from the second table on those of a schema are asked for together.
 */
final class H2Types {
  private static final int UNLIMITED = 1_000_000;

  private final Connection connection;
  private final Map<String, Map<String, Map<String, NativeType>>> bySchema = new HashMap<>();
  private boolean asked;

  H2Types(Connection connection) {
    this.connection = connection;
  }

  /** The types of a table's fields by the fields' names. */
  Map<String, NativeType> of(String schema, String table) throws SQLException {
    if (!asked) {
      asked = true;
      return read(schema, table).getOrDefault(table, Map.of());
    }
    Map<String, Map<String, NativeType>> all = bySchema.get(schema);
    if (all == null) {
      all = read(schema, null);
      bySchema.put(schema, all);
    }
    return all.getOrDefault(table, Map.of());
  }

  /** The types by table and field: of one table, or of all of a schema. */
  private Map<String, Map<String, NativeType>> read(String schema, @Nullable String table)
      throws SQLException {
    String sql =
        """
        SELECT column_name, data_type, character_maximum_length, numeric_precision, numeric_scale,
          datetime_precision, identity_generation, is_generated, domain_schema, domain_name,
          dtd_identifier, table_name
        FROM information_schema.columns WHERE table_schema = ?"""
            + (table == null ? "" : " AND table_name = ?")
            + " ORDER BY table_name, ordinal_position";
    Map<String, Map<String, NativeType>> types = new HashMap<>();
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      query.setString(1, schema);
      if (table != null) {
        query.setString(2, table);
      }
      try (ResultSet found = query.executeQuery()) {
        while (found.next()) {
          String of = found.getString(12);
          types
              .computeIfAbsent(of, t -> new LinkedHashMap<>())
              .put(found.getString(1), type(schema, of, found));
        }
      }
    }
    return types;
  }

  private NativeType type(String schema, String table, ResultSet found) throws SQLException {
    NativeType type = type(found);
    if ("ENUM".equalsIgnoreCase(found.getString(2))) {
      type = type.withChoices(choices(connection, schema, table, found.getString(11)));
    }
    if (found.getString(10) != null) {
      type = domain(connection, type, found.getString(9), found.getString(10));
    }
    if ("ALWAYS".equalsIgnoreCase(found.getString(7))) {
      return type.always("the database numbers it itself");
    }
    return "ALWAYS".equalsIgnoreCase(found.getString(8))
        ? type.always("the database computes it")
        : type;
  }

  private static NativeType type(ResultSet column) throws SQLException {
    // a database that lowers names lowers these too
    String name = column.getString(2).toUpperCase(Locale.ROOT);
    long characters = column.getLong(3);
    Integer length = characters > 0 && characters < UNLIMITED ? (int) characters : null;
    int precision = column.getInt(4);
    int scale = column.getInt(5);
    int digits = column.getInt(6);
    String shown = name.toLowerCase(Locale.ROOT);
    return switch (name) {
      case "TINYINT" -> NativeType.whole(shown, 8);
      case "SMALLINT" -> NativeType.whole(shown, 16);
      case "INTEGER" -> NativeType.whole(shown, 32);
      case "BIGINT" -> NativeType.whole(shown, 64);
      case "NUMERIC", "DECIMAL" ->
          precision >= UNLIMITED / 10
              ? NativeType.exact(shown, null, null)
              : NativeType.exact(shown + "(" + precision + "," + scale + ")", precision, scale);
      case "DECFLOAT" -> NativeType.exact(shown, null, null);
      case "REAL" -> NativeType.of(shown, FieldType.DECIMAL, Kind.REAL);
      case "DOUBLE PRECISION", "FLOAT" ->
          NativeType.of(shown, FieldType.DECIMAL, precision == 24 ? Kind.REAL : Kind.DOUBLE);
      case "BOOLEAN" -> NativeType.of(shown, FieldType.BOOLEAN, Kind.BOOLEAN);
      case "CHARACTER VARYING", "CHARACTER LARGE OBJECT" ->
          NativeType.text(shown, Kind.TEXT, length);
      case "VARCHAR_IGNORECASE" -> NativeType.text(shown, Kind.CASELESS, length);
      case "CHARACTER" -> NativeType.text(shown, Kind.PADDED, length);
      case "ENUM" -> NativeType.text(shown, Kind.TEXT, null);
      case "DATE" -> NativeType.of(shown, FieldType.DATE, Kind.DATE);
      case "TIME" -> NativeType.timed(shown, FieldType.TIME, Kind.TIME, digits);
      case "TIMESTAMP" -> NativeType.timed(shown, FieldType.DATETIME, Kind.MOMENT, digits);
      case "TIMESTAMP WITH TIME ZONE" ->
          NativeType.timed(shown, FieldType.DATETIME, Kind.INSTANT, digits);
      case "UUID" -> NativeType.of(shown, FieldType.OTHER, Kind.UUID);
      case "JSON" -> NativeType.of(shown, FieldType.OTHER, Kind.JSON);
      case "BINARY VARYING", "BINARY LARGE OBJECT" ->
          NativeType.of(shown, FieldType.OTHER, Kind.BINARY);
      default -> NativeType.leftAlone(shown);
    };
  }

  private static List<String> choices(
      Connection connection, String schema, String table, String identifier) throws SQLException {
    String sql =
        """
        SELECT value_name FROM information_schema.enum_values
        WHERE object_schema = ? AND object_name = ? AND enum_identifier = ?
        ORDER BY value_ordinal""";
    return Queries.texts(connection, sql, schema, table, identifier);
  }

  private static NativeType domain(
      Connection connection, NativeType type, String schema, String domain) throws SQLException {
    String sql =
        """
        SELECT c.check_clause FROM information_schema.domain_constraints d
        JOIN information_schema.check_constraints c
          ON c.constraint_schema = d.constraint_schema AND c.constraint_name = d.constraint_name
        WHERE d.domain_schema = ? AND d.domain_name = ?""";
    List<String> checks =
        Queries.texts(connection, sql, schema, domain).stream().map(SqlText::ofH2).toList();
    return type.inDomain(
        domain + ", which is " + type.name(), NativeType.Domain.of(false, false, checks, null));
  }
}
