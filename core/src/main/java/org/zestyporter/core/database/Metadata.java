package org.zestyporter.core.database;

import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** Reads tables and fields from the database's own catalogue. */
final class Metadata {
  private static final int UNLIMITED = 1_000_000;

  private final Connection connection;
  private final Dialect dialect;

  Metadata(Connection connection, Dialect dialect) {
    this.connection = connection;
    this.dialect = dialect;
  }

  /** Names of the tables in the connection's schema, in alphabetical order. */
  List<String> tableNames() throws SQLException {
    List<String> names = new ArrayList<>();
    String[] kinds = {"TABLE", "BASE TABLE", "PARTITIONED TABLE"};
    try (ResultSet tables =
        connection
            .getMetaData()
            .getTables(connection.getCatalog(), connection.getSchema(), "%", kinds)) {
      while (tables.next()) {
        names.add(tables.getString("TABLE_NAME"));
      }
    }
    names.sort(String.CASE_INSENSITIVE_ORDER);
    return names;
  }

  /** The table of exactly that name. */
  TableInfo table(String name) throws SQLException {
    DatabaseMetaData meta = connection.getMetaData();
    String catalog = connection.getCatalog();
    String schema = connection.getSchema();
    List<String> key = primaryKey(meta, catalog, schema, name);
    List<List<String>> uniques = uniques(meta, catalog, schema, name, key);
    Map<String, LinkInfo> links = links(meta, catalog, schema, name);
    Map<String, CheckRule> checks = new HashMap<>();
    for (CheckRule rule : dialect.checks(connection, schema, name)) {
      checks.put(rule.field().toLowerCase(java.util.Locale.ROOT), rule);
    }
    List<FieldInfo> fields = new ArrayList<>();
    try (ResultSet columns = meta.getColumns(catalog, schema, escaped(meta, name), "%")) {
      while (columns.next()) {
        fields.add(field(columns, key, uniques, links, checks));
      }
    }
    return new TableInfo(schema, name, comment(meta, catalog, schema, name), fields, key, uniques);
  }

  private FieldInfo field(
      ResultSet column,
      List<String> key,
      List<List<String>> uniques,
      Map<String, LinkInfo> links,
      Map<String, CheckRule> checks)
      throws SQLException {
    String name = column.getString("COLUMN_NAME");
    int jdbcType = column.getInt("DATA_TYPE");
    int size = column.getInt("COLUMN_SIZE");
    int scale = column.getInt("DECIMAL_DIGITS");
    boolean nullable = column.getInt("NULLABLE") != DatabaseMetaData.columnNoNulls;
    boolean generated =
        "YES".equals(column.getString("IS_AUTOINCREMENT"))
            || "YES".equals(column.getString("IS_GENERATEDCOLUMN"));
    boolean hasDefault = column.getString("COLUMN_DEF") != null;
    String comment = column.getString("REMARKS");
    FieldType type = FieldType.of(jdbcType, scale);
    boolean exact = jdbcType == java.sql.Types.DECIMAL || jdbcType == java.sql.Types.NUMERIC;
    List<String> alone = List.of(name);
    CheckRule rule = checks.get(name.toLowerCase(java.util.Locale.ROOT));
    BigDecimal[] range = integerRange(jdbcType);
    return new FieldInfo(
        name,
        type,
        type == FieldType.TEXT && size > 0 && size < UNLIMITED ? size : null,
        exact && size < UNLIMITED ? size : null,
        exact && size < UNLIMITED ? scale : null,
        nullable,
        hasDefault,
        generated,
        key.equals(alone) || uniques.contains(alone),
        comment == null || comment.isBlank() ? null : comment,
        rule == null ? null : rule.choices(),
        rule == null || rule.least() == null ? range[0] : rule.least(),
        rule == null || rule.greatest() == null ? range[1] : rule.greatest(),
        links.get(name),
        jdbcType);
  }

  private static BigDecimal[] integerRange(int jdbcType) {
    int bits =
        switch (jdbcType) {
          case java.sql.Types.TINYINT -> 7;
          case java.sql.Types.SMALLINT -> 15;
          case java.sql.Types.INTEGER -> 31;
          case java.sql.Types.BIGINT -> 63;
          default -> 0;
        };
    if (bits == 0) {
      return new BigDecimal[2];
    }
    BigDecimal power = BigDecimal.valueOf(2).pow(bits);
    return new BigDecimal[] {power.negate(), power.subtract(BigDecimal.ONE)};
  }

  private static String comment(DatabaseMetaData meta, String catalog, String schema, String name)
      throws SQLException {
    try (ResultSet table = meta.getTables(catalog, schema, escaped(meta, name), null)) {
      String comment = table.next() ? table.getString("REMARKS") : null;
      return comment == null || comment.isBlank() ? null : comment;
    }
  }

  private static List<String> primaryKey(
      DatabaseMetaData meta, String catalog, String schema, String table) throws SQLException {
    Map<Short, String> fields = new TreeMap<>();
    try (ResultSet keys = meta.getPrimaryKeys(catalog, schema, table)) {
      while (keys.next()) {
        fields.put(keys.getShort("KEY_SEQ"), keys.getString("COLUMN_NAME"));
      }
    }
    return List.copyOf(fields.values());
  }

  private static List<List<String>> uniques(
      DatabaseMetaData meta, String catalog, String schema, String table, List<String> key)
      throws SQLException {
    Map<String, List<String>> indexes = new LinkedHashMap<>();
    try (ResultSet index = meta.getIndexInfo(catalog, schema, table, true, true)) {
      while (index.next()) {
        String field = index.getString("COLUMN_NAME");
        String partial = index.getString("FILTER_CONDITION");
        if (field != null && partial == null) {
          indexes.computeIfAbsent(index.getString("INDEX_NAME"), n -> new ArrayList<>()).add(field);
        }
      }
    }
    return indexes.values().stream().filter(fields -> !fields.equals(key)).distinct().toList();
  }

  /** Links of one field; a foreign key over several fields is left to the database. */
  private static Map<String, LinkInfo> links(
      DatabaseMetaData meta, String catalog, String schema, String table) throws SQLException {
    Map<String, List<String[]>> keys = new LinkedHashMap<>();
    try (ResultSet imported = meta.getImportedKeys(catalog, schema, table)) {
      while (imported.next()) {
        keys.computeIfAbsent(imported.getString("FK_NAME"), n -> new ArrayList<>())
            .add(
                new String[] {
                  imported.getString("FKCOLUMN_NAME"),
                  imported.getString("PKTABLE_NAME"),
                  imported.getString("PKCOLUMN_NAME")
                });
      }
    }
    Map<String, LinkInfo> links = new HashMap<>();
    for (List<String[]> fields : keys.values()) {
      if (fields.size() == 1) {
        links.put(fields.get(0)[0], new LinkInfo(fields.get(0)[1], fields.get(0)[2]));
      }
    }
    return links;
  }

  private static String escaped(DatabaseMetaData meta, String name) throws SQLException {
    String escape = meta.getSearchStringEscape();
    return name.replace("_", escape + "_").replace("%", escape + "%");
  }
}
