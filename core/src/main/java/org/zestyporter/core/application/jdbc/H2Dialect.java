package org.zestyporter.core.application.jdbc;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.DatabaseErrors.Failing;
import org.zestyporter.core.value.ErrorCode;

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
  public Driver driver() throws SQLException {
    // it comes with the server
    return DriverManager.getDriver("jdbc:h2:mem:");
  }

  @Override
  public DatabaseErrors errors() {
    return ERRORS;
  }

  private static final Pattern UNIQUE =
      Pattern.compile(
          " ON (?:[^()\"]++|\"[^\"]*+\")++\\((?<fields>[^)]*?)(?: NULLS \\w+)?\\) VALUES \\( /\\* .*? \\*/ '?(?<value>.*?)'? \\)");
  private static final Pattern LINK =
      Pattern.compile("FOREIGN KEY\\((?<fields>[^)]*)\\) REFERENCES .*\\((?<value>[^()]*)\\)\"$");
  private static final Pattern CHECK = Pattern.compile("\"(?<rule>[^\"]*): ");
  private static final Pattern RANGE =
      Pattern.compile("\"(?<value>[^\"]*)\"(?: in column \"(?<fields>[^\"]*)\")?");
  private static final Pattern COLUMN =
      Pattern.compile("column \"(?<fields>[^\"]+?)(?: [A-Z]{3,}[A-Z ]*(?:\\([^\"]*)?)?\"");

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
    Map<String, String> checks = Queries.pairs(connection, sql, schema, table);
    checks.replaceAll((name, check) -> SqlText.ofH2(check));
    return checks;
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
      case 23_505 -> breach(Breach.Kind.UNIQUE, e).read(UNIQUE);
      case 23_506 -> breach(Breach.Kind.LINK, e).read(LINK);
      case 23_503 -> breach(Breach.Kind.LINKED, e);
      case 23_513 -> breach(Breach.Kind.CHECK, e).read(CHECK);
      case 22_003, 22_004 -> breach(Breach.Kind.OUT_OF_RANGE, e).read(RANGE);
      default -> Breach.of(e).read(COLUMN);
    };
  }

  private static Breach breach(Breach.Kind kind, SQLException e) {
    return Breach.of(kind, e)
        .saying(said -> SqlText.ofH2(said.replace("\"\"", "\"").replace("\\\\", "\\")));
  }

  @Override
  public boolean isSystemSchema(String schema) {
    return schema.equalsIgnoreCase("information_schema");
  }

  /** What is looked for is made a value of the field's own type. */
  @Override
  public boolean canAsk(FieldInfo field, Object value) {
    int bits =
        switch (field.jdbcType()) {
          case java.sql.Types.TINYINT -> Byte.SIZE;
          case java.sql.Types.SMALLINT -> Short.SIZE;
          case java.sql.Types.INTEGER -> Integer.SIZE;
          default -> Long.SIZE;
        };
    return !(value instanceof BigDecimal number)
        || field.type() != FieldType.WHOLE
        || field.precision() != null
        || number.toBigInteger().bitLength() < bits;
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
    return new H2Types(connection)::of;
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

  @Override
  public boolean isNear() {
    return true;
  }
}
