package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.Driver;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.DateTimeException;
import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Abilities;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.application.jdbc.DatabaseErrors.Failing;
import org.zestyporter.core.value.ErrorCode;

/** MariaDB 10.5 and newer; MySQL 8 by the same driver. */
final class MariaDialect implements Dialect {
  /** Its numbers are those of the documentation's page "MariaDB Error Codes". */
  private static final DatabaseErrors ERRORS =
      new DatabaseErrors(
          List.of(
              Failing.numbers(ErrorCode.DATABASE_MISSING, DatabaseErrors.MISSING, 1049),
              Failing.numbers(ErrorCode.DATABASE_FULL_HOUSE, DatabaseErrors.FULL_HOUSE, 1040, 1203),
              Failing.numbers(ErrorCode.DATABASE_SIGN_IN, DatabaseErrors.SIGN_IN, 1045, 1044),
              Failing.numbers(
                  ErrorCode.DATABASE_STOPPING, DatabaseErrors.ENDED, 1053, 1077, 1079, 1927),
              Failing.states(ErrorCode.DATABASE_TLS, DatabaseErrors.TLS, "42000")
                  .saying("self signed"),
              Failing.states(ErrorCode.DATABASE_LOST, DatabaseErrors.LOST, "08")
                  .saying("socket error"),
              Failing.numbers(ErrorCode.DATABASE_LOCKED, DatabaseErrors.LOCKED, 1205, 3572),
              Failing.numbers(ErrorCode.DATABASE_DEADLOCK, DatabaseErrors.DEADLOCK, 1213),
              Failing.numbers(ErrorCode.DATABASE_SLOW, DatabaseErrors.SLOW, 1969, 1317, 3024),
              Failing.numbers(ErrorCode.DATABASE_DISK, DatabaseErrors.DISK, 1021, 1114),
              Failing.numbers(
                  ErrorCode.DATABASE_READ_ONLY, DatabaseErrors.READ_ONLY, 1290, 1792, 1836),
              Failing.numbers(
                  ErrorCode.DATABASE_RIGHTS, DatabaseErrors.RIGHTS, 1142, 1143, 1227, 1370),
              Failing.numbers(ErrorCode.TABLE_GONE, DatabaseErrors.GONE, 1146, 1051)));

  /** Records in one statement, what they may weigh, and the parameters that it may have. */
  private static final int RECORDS = 1_000;

  private static final int WEIGHT = 1 << 20;
  private static final int PARAMETERS = 60_000;

  /** What may not stand in any statement: a server could answer it by asking for a file of ours. */
  private static final Pattern LOADING =
      Pattern.compile(
          "LOAD\\s+(DATA|XML)\\b.*\\bINFILE", Pattern.CASE_INSENSITIVE | Pattern.DOTALL);

  private static final String TRIGGER = "trigger ";

  private static final Pattern UNIQUE =
      Pattern.compile("entry '(?<value>.*)' for key '(?:[^.']+\\.)?(?<rule>.*)'");
  private static final Pattern COLUMN =
      Pattern.compile("(?:[Cc]olumn|Field) ['`](?<fields>[^'`]+)['`]");
  private static final Pattern LINK = Pattern.compile("FOREIGN KEY \\((?<fields>[^)]*)\\)");
  private static final Pattern CHECK =
      Pattern.compile("(?:CONSTRAINT|constraint) [`'](?:[^.`']+\\.)?(?<rule>[^`']+)[`']");
  private static final Pattern MALFORMED =
      Pattern.compile("value: '(?<value>.*)' for column [^ ]*?`?(?<fields>[^`'. ]+)[`']? at");

  @Override
  public Driver driver() {
    return new org.mariadb.jdbc.Driver();
  }

  @Override
  public DatabaseErrors errors() {
    return ERRORS;
  }

  /** Nothing may be cut off, and 0 is a number like any other. */
  @Override
  public List<String> settings(long lockMillis) {
    long seconds = Math.max(1, TimeUnit.MILLISECONDS.toSeconds(lockMillis));
    return List.of(
        "SET SESSION sql_mode = CONCAT(@@SESSION.sql_mode,"
            + " ',STRICT_ALL_TABLES,NO_AUTO_VALUE_ON_ZERO')",
        "SET SESSION innodb_lock_wait_timeout = " + seconds,
        "SET SESSION lock_wait_timeout = " + seconds);
  }

  @Override
  public String quote(String identifier) {
    if (LOADING.matcher(identifier).find()) {
      throw ErrorCode.DATABASE_ODD_NAME.error(
          "The database calls something “"
              + identifier
              + "”, which could make this side send one of its own files, so nothing is done there.");
    }
    return '`' + identifier.replace("`", "``") + '`';
  }

  @Override
  public String asText(String expression) {
    return "CAST(" + expression + " AS CHAR(4000))";
  }

  @Override
  public String onlyDefaults() {
    return " () VALUES ()";
  }

  @Override
  public boolean isSystemSchema(String schema) {
    return Set.of("information_schema", "performance_schema", "mysql", "sys").contains(schema);
  }

  @Override
  public Abilities abilities() {
    return new Abilities(true, true, false, true, true);
  }

  @Override
  public SqlRule.Ways ways() {
    return new SqlRule.Ways(true, false);
  }

  @Override
  public boolean isUntouched(Connection connection, TableInfo table) throws SQLException {
    String sql =
        """
        SELECT 1 FROM information_schema.triggers
        WHERE event_object_schema = COALESCE(?, DATABASE()) AND event_object_table = ?
        UNION ALL
        SELECT 1 FROM information_schema.columns
        WHERE table_schema = COALESCE(?, DATABASE()) AND table_name = ?
          AND extra LIKE '%on update%'
        UNION ALL
        SELECT 1 FROM information_schema.views
        WHERE table_schema = COALESCE(?, DATABASE()) AND table_name = ?""";
    String in = table.schema();
    String of = table.relation();
    return Queries.texts(connection, sql, in, of, in, of, in, of).isEmpty();
  }

  private static boolean isMySql(Connection connection) throws SQLException {
    return connection.getMetaData().getDatabaseProductName().equals("MySQL");
  }

  @Override
  public Map<String, String> checkTexts(Connection connection, String schema, String table)
      throws SQLException {
    String own =
        isMySql(connection)
            ? """
              SELECT c.constraint_name, c.check_clause FROM information_schema.check_constraints c
              JOIN information_schema.table_constraints t
                ON t.constraint_schema = c.constraint_schema
                  AND t.constraint_name = c.constraint_name
              WHERE t.table_schema = COALESCE(?, DATABASE()) AND t.table_name = ?"""
            : """
              SELECT constraint_name, check_clause FROM information_schema.check_constraints
              WHERE constraint_schema = COALESCE(?, DATABASE()) AND table_name = ?""";
    Map<String, String> checks = Queries.pairs(connection, own, schema, table);
    // what makes a text JSON is part of its type
    checks.values().removeIf(check -> MariaTypes.json(check) != null);
    checks.replaceAll((name, check) -> check.replace("\\'", "''"));
    return checks;
  }

  @Override
  public Breach breach(SQLException e) {
    return switch (e.getErrorCode()) {
      case 1062 -> Breach.of(Breach.Kind.UNIQUE, e).read(UNIQUE);
      case 1048, 1364 -> Breach.of(Breach.Kind.REQUIRED, e).read(COLUMN);
      case 1452, 1216 -> Breach.of(Breach.Kind.LINK, e).read(LINK);
      case 1451, 1217 -> Breach.of(Breach.Kind.LINKED, e);
      case 4025, 3819 -> Breach.of(Breach.Kind.CHECK, e).read(CHECK);
      case 1366, 1265, 1292 -> Breach.of(Breach.Kind.MALFORMED, e).read(MALFORMED);
      default -> Breach.of(e).read(COLUMN);
    };
  }

  @Override
  public List<String> ruleTexts(Connection connection, String schema, String table)
      throws SQLException {
    String sql =
        """
        SELECT CONCAT('%s', trigger_name) FROM information_schema.triggers
        WHERE event_object_schema = COALESCE(?, DATABASE()) AND event_object_table = ?
          AND event_manipulation <> 'DELETE'""";
    return Queries.texts(connection, sql.formatted(TRIGGER), schema, table);
  }

  @Override
  public Types types(Connection connection) {
    return new MariaTypes(connection)::of;
  }

  /** Only whole fields: an index over the first letters of a field says less than it seems. */
  @Override
  public List<List<String>> uniques(
      Connection connection, String catalog, String schema, String table) throws SQLException {
    String sql =
        """
        SELECT index_name, CASE WHEN sub_part IS NULL THEN column_name END
        FROM information_schema.statistics
        WHERE table_schema = COALESCE(?, DATABASE()) AND table_name = ? AND non_unique = 0
        ORDER BY index_name, seq_in_index""";
    Map<String, List<String>> indexes =
        Queries.groups(connection, sql, found -> found.getString(2), schema, table);
    // an expression, or only the beginning of a field
    indexes.values().removeIf(fields -> fields.contains(null));
    return List.copyOf(indexes.values());
  }

  @Override
  public Set<String> indexed(Connection connection, TableInfo table) throws SQLException {
    // what others call a schema is a catalogue here
    String catalog = table.schema() == null ? connection.getCatalog() : table.schema();
    return indexed(connection, catalog, null, table.relation());
  }

  /** What a table is kept by decides whether anything that was written can be taken back. */
  @Override
  public void requireFillable(Connection connection, String schema, String table)
      throws SQLException {
    String sql =
        """
        SELECT t.engine FROM information_schema.tables t
        JOIN information_schema.engines e ON e.engine = t.engine
        WHERE t.table_schema = COALESCE(?, DATABASE()) AND t.table_name = ?
          AND COALESCE(e.transactions, 'NO') <> 'YES'""";
    for (String engine : Queries.texts(connection, sql, schema, table)) {
      throw ErrorCode.NO_TRANSACTIONS.error(
          "The table “"
              + table
              + "” is kept by "
              + engine
              + ", which can't take back what it was given, so nothing is brought into it.",
          "Have it kept by InnoDB, or choose another table.");
    }
  }

  @Override
  public @Nullable Object value(ResultSet found, int column, FieldInfo field) throws SQLException {
    switch (field.storage().kind()) {
      case BOOLEAN -> {
        if (field.typeName().startsWith("bit")) {
          return Fields.read(found, column, field);
        }
        int number = found.getInt(column);
        return found.wasNull() ? null : MariaTypes.truth(number);
      }
      case NUMBER -> {
        if (field.typeName().startsWith("year")) {
          int year = found.getInt(column);
          return found.wasNull() ? null : java.math.BigDecimal.valueOf(year);
        }
        return Fields.read(found, column, field);
      }
      case TIME -> {
        // it may be a span of days
        String text = found.getString(column);
        return text == null ? null : time(text);
      }
      case DATE, MOMENT -> {
        try {
          return Fields.read(found, column, field);
        } catch (DateTimeException e) {
          // the driver can't read days such as the 5th of no month, not even as texts
          return "a day that the calendar does not have";
        }
      }
      default -> {
        return Fields.read(found, column, field);
      }
    }
  }

  private static Object time(String text) {
    try {
      return LocalTime.parse(text);
    } catch (DateTimeParseException e) {
      return text;
    }
  }

  /** By named locks, which belong to the connection and which other programs don't wait for. */
  @Override
  public boolean claim(Connection connection, Set<String> exclusive, Set<String> shared)
      throws SQLException {
    String database = Queries.texts(connection, "SELECT DATABASE()").get(0);
    for (String table : new TreeSet<>(exclusive)) {
      // a name has up to 64 characters
      String name = "porter " + Integer.toHexString((database + "." + table).hashCode());
      String got = Queries.texts(connection, "SELECT GET_LOCK(?, 0)", name).get(0);
      if (!"1".equals(got)) {
        return false;
      }
    }
    return true;
  }

  @Override
  public void release(Connection connection) throws SQLException {
    Queries.texts(connection, "SELECT RELEASE_ALL_LOCKS()");
  }

  @Override
  public boolean takesDefaults() {
    return true;
  }

  @Override
  public @Nullable List<List<Object>> insert(Load load) throws SQLException {
    Returning returning = new Returning(this, load);
    boolean triggered = load.table().ownRules().stream().anyMatch(r -> r.startsWith(TRIGGER));
    if (returning.knowsKeys() && !triggered) {
      return returning.silently();
    }
    DatabaseMetaData meta = load.connection().getMetaData();
    if (isMySql(load.connection()) || !tells(meta) || load.fields().isEmpty()) {
      return null;
    }
    List<WriteSession.Change> changes = load.changes();
    int most = Math.max(1, Math.min(RECORDS, PARAMETERS / load.fields().size()));
    List<List<Object>> keys = new ArrayList<>(changes.size());
    for (int from = 0; from < changes.size(); ) {
      int to = from;
      for (long weight = 0; to < changes.size() && to - from < most && weight < WEIGHT; to++) {
        weight += weight(changes.get(to));
      }
      keys.addAll(returning.together(changes.subList(from, to)));
      from = to;
    }
    return keys;
  }

  @Override
  public Copying copying(Connection connection, Going going) {
    return new MariaLoad(this, connection, going);
  }

  private static boolean tells(DatabaseMetaData meta) throws SQLException {
    int major = meta.getDatabaseMajorVersion();
    return major > 10 || major == 10 && meta.getDatabaseMinorVersion() >= 5;
  }

  private static long weight(WriteSession.Change change) {
    long weight = 0;
    for (Object value : change.values()) {
      weight += value instanceof String text ? text.length() : Long.BYTES;
    }
    return weight;
  }
}
