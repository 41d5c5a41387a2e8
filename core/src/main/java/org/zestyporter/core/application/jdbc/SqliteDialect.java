package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.sqlite.SQLiteConfig.TransactionMode;
import org.sqlite.SQLiteConnection;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.DatabaseErrors.Failing;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Storage.Kind;

/** SQLite 3.35 and newer, which is part of this build. */
final class SqliteDialect implements Dialect {
  /** Its numbers are those of the documentation's page "Result and Error Codes". */
  private static final DatabaseErrors ERRORS =
      new DatabaseErrors(
          List.of(
              Failing.numbers(ErrorCode.DATABASE_LOCKED, DatabaseErrors.LOCKED, 5, 6),
              Failing.numbers(ErrorCode.DATABASE_READ_ONLY, DatabaseErrors.READ_ONLY, 8),
              Failing.numbers(ErrorCode.DATABASE_SLOW, DatabaseErrors.SLOW, 9),
              Failing.numbers(ErrorCode.TABLE_GONE, DatabaseErrors.GONE, 1).saying("no such table"),
              Failing.numbers(ErrorCode.DATABASE_DISK, DatabaseErrors.DISK, 13),
              Failing.numbers(
                  ErrorCode.DATABASE_LOST,
                  "The database's file can't be read or written: it is damaged, gone, or on a disk"
                      + " that failed.",
                  10,
                  11,
                  14,
                  26)));

  private static final Pattern FIELDS =
      Pattern.compile("failed: [^.]*\\.(?<fields>[^,.]*(?:, [^.]*\\.[^,.]*)*)$");
  private static final Pattern CHECK = Pattern.compile("failed: (?<rule>.*)");

  @Override
  public Driver driver() {
    return new org.sqlite.JDBC();
  }

  @Override
  public DatabaseErrors errors() {
    return ERRORS;
  }

  /** What is committed stays after a power cut, and links point at records that are there. */
  @Override
  public List<String> settings(long lockMillis) {
    return List.of(
        "PRAGMA busy_timeout = " + lockMillis,
        "PRAGMA synchronous = FULL",
        "PRAGMA foreign_keys = ON",
        "PRAGMA trusted_schema = OFF");
  }

  /** The driver takes a statement's time for that of waiting for a lock. */
  @Override
  public void limit(Statement statement, int seconds) {
    // it runs in this process, and can be stopped
  }

  @Override
  public boolean isSystemSchema(String schema) {
    return false;
  }

  @Override
  public Map<String, String> checkTexts(Connection connection, String schema, String table)
      throws SQLException {
    List<String> made =
        Queries.texts(
            connection, "SELECT sql FROM sqlite_master WHERE type = 'table' AND name = ?", table);
    return made.isEmpty() ? Map.of() : SqliteTypes.checks(made.get(0));
  }

  @Override
  public SqlRule.Ways ways() {
    return new SqlRule.Ways(false, true);
  }

  @Override
  public Breach breach(SQLException e) {
    String message = String.valueOf(e.getMessage());
    return switch (message.replaceFirst("(?s)^\\[SQLITE_CONSTRAINT_(\\w+)].*", "$1")) {
      case "UNIQUE", "PRIMARYKEY", "ROWID" -> Breach.of(Breach.Kind.UNIQUE, e).read(FIELDS);
      case "NOTNULL" -> Breach.of(Breach.Kind.REQUIRED, e).read(FIELDS);
      case "CHECK" -> Breach.of(Breach.Kind.CHECK, e).read(CHECK);
      case "FOREIGNKEY" -> Breach.of(Breach.Kind.LINK, e);
      default -> Breach.of(e);
    };
  }

  @Override
  public List<String> ruleTexts(Connection connection, String schema, String table)
      throws SQLException {
    String sql =
        """
        SELECT 'trigger ' || name FROM sqlite_master WHERE type = 'trigger' AND tbl_name = ?
        UNION ALL
        SELECT 'unique index ' || l.name FROM pragma_index_list(?) l
        WHERE l."unique" = 1 AND (l.partial = 1 OR EXISTS
          (SELECT 1 FROM pragma_index_info(l.name) i WHERE i.name IS NULL))""";
    return Queries.texts(connection, sql, table, table);
  }

  @Override
  public Types types(Connection connection) {
    SqliteTypes types = new SqliteTypes(connection, this);
    return (schema, table) -> types.of(table);
  }

  /** They have no names; without a field they point at the other table's primary key. */
  @Override
  public Collection<List<Pointer>> foreignKeys(
      Connection connection, String catalog, String schema, String table) throws SQLException {
    String sql =
        """
        SELECT k.id, k."from", k."table", COALESCE(k."to",
          (SELECT name FROM pragma_table_info(k."table") WHERE pk = k.seq + 1))
        FROM pragma_foreign_key_list(?) k ORDER BY k.id, k.seq""";
    Collection<List<Pointer>> keys =
        Queries.groups(
                connection,
                sql,
                found ->
                    new Pointer(found.getString(2), null, found.getString(3), found.getString(4)),
                table)
            .values();
    // nobody has made the table that it points at
    keys.removeIf(key -> key.stream().anyMatch(p -> p.to() == null));
    return keys;
  }

  @Override
  public List<List<String>> uniques(
      Connection connection, String catalog, String schema, String table) throws SQLException {
    String sql =
        """
        SELECT l.name || ' ' || l.seq, i.name FROM pragma_index_list(?) l, pragma_index_info(l.name) i
        WHERE l."unique" = 1 AND l.partial = 0 AND NOT EXISTS
          (SELECT 1 FROM pragma_index_info(l.name) o WHERE o.name IS NULL)
        ORDER BY l.seq, i.seqno""";
    return List.copyOf(
        Queries.groups(connection, sql, found -> found.getString(2), table).values());
  }

  @Override
  public @Nullable Object value(ResultSet found, int column, FieldInfo field) throws SQLException {
    Object held = found.getObject(column);
    return held == null ? null : SqliteTypes.read(held, field.storage().kind());
  }

  /** It has no types of its own for days, times and truth. */
  @Override
  public Object bound(FieldInfo field, Object value) {
    if (value instanceof LocalDateTime
        || value instanceof LocalDate
        || value instanceof LocalTime) {
      return SqliteTypes.written(value);
    }
    return value instanceof Boolean truth ? java.math.BigDecimal.valueOf(truth ? 1 : 0) : value;
  }

  /** The same moment can be written in several ways. */
  @Override
  public boolean canBeKey(FieldInfo field) {
    Kind kind = field.storage().kind();
    return kind == Kind.DOUBLE
        || kind != Kind.MOMENT && kind != Kind.UUID && Dialect.super.canBeKey(field);
  }

  /** One connection writes at a time: this one, from now on. */
  @Override
  public boolean claim(Connection connection, Set<String> exclusive, Set<String> shared)
      throws SQLException {
    begin(connection, TransactionMode.IMMEDIATE);
    return true;
  }

  @Override
  public LinkCheck linkCheck(Connection connection) throws SQLException {
    return new SqliteLinks(connection, this);
  }

  @Override
  public void release(Connection connection) throws SQLException {
    begin(connection, TransactionMode.DEFERRED);
  }

  private static void begin(Connection connection, TransactionMode mode) throws SQLException {
    connection.unwrap(SQLiteConnection.class).getConnectionConfig().setTransactionMode(mode);
    connection.rollback();
  }

  @Override
  public List<List<Object>> insert(Load load) throws SQLException {
    Returning returning = new Returning(this, load);
    boolean isKept =
        returning.knowsKeys()
            && load.keyFields().stream().allMatch(this::keeps)
            && isUntouched(load.connection(), load.table());
    return isKept ? returning.silently() : returning.each();
  }

  @Override
  public void requireThere(Connection connection) throws SQLException {
    String sql = "SELECT file FROM pragma_database_list WHERE name = 'main'";
    for (String file : Queries.texts(connection, sql)) {
      if (file != null && !file.isEmpty() && !Files.exists(Path.of(file))) {
        throw DatabaseErrors.fileGone(Path.of(file));
      }
    }
  }

  @Override
  public boolean isNear() {
    return true;
  }

  @Override
  public boolean isUntouched(Connection connection, TableInfo table) throws SQLException {
    String sql =
        """
        SELECT type FROM sqlite_master WHERE type = 'trigger' AND tbl_name = ? COLLATE NOCASE
        UNION ALL
        SELECT type FROM sqlite_master WHERE type = 'view' AND name = ? COLLATE NOCASE""";
    return Queries.texts(connection, sql, table.relation(), table.relation()).isEmpty();
  }

  /**
   * A text that looks like a number becomes one, where the field's type does not say text (SQLite's
   * documentation, datatype3, 3.1).
   */
  @Override
  public boolean keeps(FieldInfo field) {
    boolean isText =
        switch (field.storage().kind()) {
          case TEXT, PADDED, CASELESS -> true;
          default -> false;
        };
    String type = field.typeName().toUpperCase(Locale.ROOT);
    boolean keepsText = !type.contains("INT") && type.matches(".*(CHAR|CLOB|TEXT).*");
    return Dialect.super.keeps(field) && (!isText || keepsText);
  }

  /** Its other sum fails where whole numbers add up to more than 64 bits. */
  @Override
  public String sum(String field) {
    return "TOTAL(" + field + ")";
  }

  /** Numbers are added up as binary ones, near enough to tell up to 15 digits. */
  @Override
  public BigDecimal sum(BigDecimal told, FieldInfo field) {
    return field.scale() == null || told.scale() <= field.scale()
        ? told
        : told.setScale(field.scale(), RoundingMode.HALF_EVEN);
  }
}
