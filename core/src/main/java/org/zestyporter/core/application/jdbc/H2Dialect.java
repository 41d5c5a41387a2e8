package org.zestyporter.core.application.jdbc;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.DatabaseErrors.Failing;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Storage.Kind;

/** H2 2.x; its information schema follows the SQL standard. */
final class H2Dialect implements Dialect {
  /** Its numbers are those of {@link org.h2.api.ErrorCode}. */
  private static final DatabaseErrors ERRORS =
      new DatabaseErrors(
          List.of(
              Failing.numbers(ErrorCode.DATABASE_MISSING, DatabaseErrors.MISSING, 90_013, 90_146),
              Failing.numbers(ErrorCode.DATABASE_STOPPING, DatabaseErrors.ENDED, 90_098, 90_121),
              Failing.numbers(ErrorCode.DATABASE_LOST, DatabaseErrors.LOST, 90_007, 90_067, 90_031),
              Failing.numbers(
                  ErrorCode.DATABASE_IN_USE,
                  "Another program has the database file open and shares it with nobody.",
                  90_020),
              Failing.numbers(ErrorCode.DATABASE_LOCKED, DatabaseErrors.LOCKED, 50_200),
              Failing.states(ErrorCode.DATABASE_LOCKED, DatabaseErrors.LOCKED, "HYT00"),
              Failing.numbers(ErrorCode.DATABASE_SLOW, DatabaseErrors.SLOW, 57_014),
              Failing.numbers(ErrorCode.DATABASE_READ_ONLY, DatabaseErrors.READ_ONLY, 90_097),
              Failing.numbers(ErrorCode.DATABASE_RIGHTS, DatabaseErrors.RIGHTS, 90_096)));

  @Override
  public DatabaseErrors errors() {
    return ERRORS;
  }

  private static final Pattern UNIQUE =
      Pattern.compile(
          " ON \\S+\\((?<fields>[^)]*?)(?: NULLS \\w+)?\\) VALUES \\( /\\* .*? \\*/ '?(?<value>.*?)'? \\)");
  private static final Pattern LINK =
      Pattern.compile("FOREIGN KEY\\((?<fields>[^)]*)\\) REFERENCES .*\\((?<value>[^()]*)\\)\"$");
  private static final Pattern CHECK = Pattern.compile("\"(?<rule>[^\"]*): ");
  private static final Pattern RANGE =
      Pattern.compile("\"(?<value>[^\"]*)\"(?: in column \"(?<fields>[^\"]*)\")?");
  private static final Pattern COLUMN = Pattern.compile("column \"(?<fields>\\w+)");

  private static final int UNLIMITED = 1_000_000;
  private static final String CHECKPOINT = "CHECKPOINT SYNC";
  private static final String PASSING = "porter_change_that_makes_lasting";
  private static final int USUAL_DELAY = 500;
  private static final int ADMIN_RIGHTS_REQUIRED = 90_040;

  /** The database's file; null if it lives in memory; unknown until it was asked. */
  private volatile @Nullable Path file;

  private volatile boolean asked;

  @Override
  public Map<String, String> checkTexts(Connection connection, String schema, String table)
      throws SQLException {
    String sql =
        """
        SELECT c.constraint_name, c.check_clause
        FROM information_schema.check_constraints c
        JOIN information_schema.table_constraints t
          ON t.constraint_schema = c.constraint_schema AND t.constraint_name = c.constraint_name
        WHERE t.table_schema = ? AND t.table_name = ?""";
    return Queries.pairs(connection, sql, schema, table);
  }

  @Override
  public List<String> ruleTexts(Connection connection, String schema, String table)
      throws SQLException {
    String sql =
        "SELECT 'trigger ' || TRIGGER_NAME FROM INFORMATION_SCHEMA.TRIGGERS"
            + " WHERE EVENT_OBJECT_SCHEMA = ? AND EVENT_OBJECT_TABLE = ?";
    return Queries.texts(connection, sql, schema, table);
  }

  @Override
  public boolean isUntouched(Connection connection, TableInfo table) throws SQLException {
    String sql =
        """
        SELECT 'trigger' FROM INFORMATION_SCHEMA.TRIGGERS
        WHERE EVENT_OBJECT_SCHEMA = ? AND EVENT_OBJECT_TABLE = ?
        UNION ALL
        SELECT 'on update' FROM INFORMATION_SCHEMA.COLUMNS
        WHERE TABLE_SCHEMA = ? AND TABLE_NAME = ? AND COLUMN_ON_UPDATE IS NOT NULL
        UNION ALL
        SELECT 'no table' FROM INFORMATION_SCHEMA.TABLES
        WHERE TABLE_SCHEMA = ? AND TABLE_NAME = ? AND TABLE_TYPE <> 'BASE TABLE'""";
    String in = table.schema();
    String of = table.relation();
    return Queries.texts(connection, sql, in, of, in, of, in, of).isEmpty();
  }

  @Override
  public Breach breach(SQLException e) {
    return switch (e.getErrorCode()) {
      case 23_505 -> Breach.of(Breach.Kind.UNIQUE, e).read(UNIQUE);
      case 23_506 -> Breach.of(Breach.Kind.LINK, e).read(LINK);
      case 23_503 -> Breach.of(Breach.Kind.LINKED, e);
      case 23_513 -> Breach.of(Breach.Kind.CHECK, e).read(CHECK);
      case 22_003, 22_004 -> Breach.of(Breach.Kind.OUT_OF_RANGE, e).read(RANGE);
      default -> Breach.of(e).read(COLUMN);
    };
  }

  @Override
  public boolean isSystemSchema(String schema) {
    return schema.equalsIgnoreCase("information_schema");
  }

  @Override
  public List<String> settings(long lockMillis) {
    return List.of("SET LOCK_TIMEOUT " + lockMillis);
  }

  @Override
  public boolean jsonAsBytes() {
    return true;
  }

  @Override
  public Types types(Connection connection) {
    return (schema, table) -> types(connection, schema, table);
  }

  private static Map<String, NativeType> types(Connection connection, String schema, String table)
      throws SQLException {
    String sql =
        """
        SELECT column_name, data_type, character_maximum_length, numeric_precision, numeric_scale,
          datetime_precision, identity_generation, is_generated, domain_schema, domain_name,
          dtd_identifier
        FROM information_schema.columns WHERE table_schema = ? AND table_name = ?
        ORDER BY ordinal_position""";
    Map<String, NativeType> types = new LinkedHashMap<>();
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      query.setString(1, schema);
      query.setString(2, table);
      try (ResultSet found = query.executeQuery()) {
        while (found.next()) {
          NativeType type = type(found);
          if ("ENUM".equalsIgnoreCase(found.getString(2))) {
            type = type.withChoices(choices(connection, schema, table, found.getString(11)));
          }
          if (found.getString(10) != null) {
            type = domain(connection, type, found.getString(9), found.getString(10));
          }
          if ("ALWAYS".equalsIgnoreCase(found.getString(7))) {
            type = type.always("the database numbers it itself");
          } else if ("ALWAYS".equalsIgnoreCase(found.getString(8))) {
            type = type.always("the database computes it");
          }
          types.put(found.getString(1), type);
        }
      }
    }
    return types;
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
    CheckRule rule = null;
    for (String check : Queries.texts(connection, sql, schema, domain)) {
      CheckRule parsed = CheckRule.parse(check);
      rule = rule == null ? parsed : rule.and(parsed);
    }
    return type.inDomain(
        domain + ", which is " + type.name(), new NativeType.Domain(false, false, rule));
  }

  /** A file that was taken away goes on being written to by whoever has it open. */
  /**
   * H2 runs in this process and writes what is committed up to {@code WRITE_DELAY} later, in a
   * thread of its own. A checkpoint passes over what that thread has taken up and not yet written;
   * but as changes are written in their order, a second one behind another change does not.
   */
  @Override
  public void makeLasting(Connection connection) throws SQLException {
    Path known = file(connection);
    if (known == null) {
      return;
    }
    try (Statement statement = connection.createStatement()) {
      statement.execute(CHECKPOINT);
      statement.execute("CREATE LOCAL TEMPORARY TABLE " + PASSING + " (n INTEGER)");
      statement.execute("DROP TABLE " + PASSING);
      statement.execute(CHECKPOINT);
    } catch (SQLException e) {
      if (e.getErrorCode() != ADMIN_RIGHTS_REQUIRED) {
        throw e;
      }
      waitForWriting(connection, known);
    }
  }

  /** For those who may not ask for a checkpoint. */
  private static void waitForWriting(Connection connection, Path file) throws SQLException {
    try (PreparedStatement query =
            connection.prepareStatement(
                "SELECT CAST(setting_value AS INTEGER) FROM information_schema.settings"
                    + " WHERE setting_name = 'WRITE_DELAY'");
        ResultSet found = query.executeQuery()) {
      int millis = found.next() ? found.getInt(1) : USUAL_DELAY;
      Thread.sleep(2L * millis);
      try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
        channel.force(true);
      }
    } catch (IOException e) {
      throw new SQLException("the file can't be brought to the disk", e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new SQLException("interrupted while the file was being written", e);
    }
  }

  private @Nullable Path file(Connection connection) throws SQLException {
    if (!asked) {
      try (PreparedStatement query = connection.prepareStatement("SELECT DATABASE_PATH()");
          ResultSet found = query.executeQuery()) {
        String path = found.next() ? found.getString(1) : null;
        file = path == null ? null : Path.of(path + ".mv.db");
        asked = true;
      }
    }
    return file;
  }

  @Override
  public void requireThere(Connection connection) throws SQLException {
    Path known = file(connection);
    if (known != null && !Files.exists(known)) {
      throw DatabaseErrors.fileGone(known);
    }
  }
}
