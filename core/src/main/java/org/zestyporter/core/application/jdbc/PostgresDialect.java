package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.Driver;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.postgresql.util.PSQLException;
import org.postgresql.util.ServerErrorMessage;
import org.zestyporter.core.application.Abilities;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.Settled;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.DatabaseErrors.Failing;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.ErrorCode;

/** PostgreSQL 12 and newer. */
final class PostgresDialect implements Dialect {
  /** What is said of the number of a transaction that has never been. */
  private static final String IN_THE_FUTURE = "22023";

  private static final String STARTED = "extract(epoch FROM pg_postmaster_start_time())::text";

  /** Its states are those of the documentation's appendix A. */
  private static final DatabaseErrors ERRORS =
      new DatabaseErrors(
          List.of(
              Failing.states(ErrorCode.DATABASE_MISSING, DatabaseErrors.MISSING, "3D000"),
              Failing.states(ErrorCode.DATABASE_FULL_HOUSE, DatabaseErrors.FULL_HOUSE, "53300"),
              Failing.states(
                  ErrorCode.DATABASE_STOPPING, DatabaseErrors.ENDED, "57P01", "57P02", "57P03"),
              Failing.states(ErrorCode.DATABASE_LOCKED, DatabaseErrors.LOCKED, "55P03"),
              Failing.states(ErrorCode.DATABASE_DEADLOCK, DatabaseErrors.DEADLOCK, "40P01"),
              Failing.states(ErrorCode.DATABASE_SLOW, DatabaseErrors.SLOW, "57014"),
              Failing.states(ErrorCode.DATABASE_DISK, DatabaseErrors.DISK, "53100"),
              Failing.states(ErrorCode.DATABASE_READ_ONLY, DatabaseErrors.READ_ONLY, "25006"),
              Failing.states(ErrorCode.DATABASE_RIGHTS, DatabaseErrors.RIGHTS, "42501"),
              Failing.states(ErrorCode.TABLE_GONE, DatabaseErrors.GONE, "42P01")));

  private static final Pattern DETAIL =
      Pattern.compile("Key \\((?<fields>[^()]*)\\)=\\((?<value>.*)\\) ");
  private static final Pattern MALFORMED = Pattern.compile(": \"(?<value>.*)\"");

  @Override
  public Driver driver() {
    return new org.postgresql.Driver();
  }

  @Override
  public DatabaseErrors errors() {
    return ERRORS;
  }

  @Override
  public Map<String, String> checkTexts(Connection connection, String schema, String table)
      throws SQLException {
    String sql =
        """
        SELECT c.conname, pg_get_constraintdef(c.oid)
        FROM pg_constraint c
        JOIN pg_class t ON t.oid = c.conrelid
        JOIN pg_namespace n ON n.oid = t.relnamespace
        WHERE c.contype = 'c' AND n.nspname = ? AND t.relname = ?""";
    Map<String, String> checks = Queries.pairs(connection, sql, schema, table);
    checks.replaceAll((name, check) -> SqlText.ofPostgres(check));
    return checks;
  }

  @Override
  public List<String> ruleTexts(Connection connection, String schema, String table)
      throws SQLException {
    String sql =
        """
        WITH of AS (
          SELECT t.oid FROM pg_class t JOIN pg_namespace n ON n.oid = t.relnamespace
          WHERE n.nspname = ? AND t.relname = ?)
        SELECT 'trigger ' || tgname FROM pg_trigger, of
        WHERE tgrelid = of.oid AND NOT tgisinternal AND tgenabled <> 'D'
        UNION ALL
        SELECT 'rule ' || rulename FROM pg_rewrite, of
        WHERE ev_class = of.oid AND rulename <> '_RETURN'
        UNION ALL
        SELECT pg_get_constraintdef(c.oid) FROM pg_constraint c, of
        WHERE c.conrelid = of.oid AND c.contype = 'x'
        UNION ALL
        SELECT 'unique index ' || i.indexrelid::regclass FROM pg_index i, of
        WHERE i.indrelid = of.oid AND i.indisunique
          AND (i.indpred IS NOT NULL OR i.indexprs IS NOT NULL)""";
    return Queries.texts(connection, sql, schema, table);
  }

  @Override
  public Breach breach(SQLException e) {
    ServerErrorMessage told = e instanceof PSQLException p ? p.getServerErrorMessage() : null;
    if (told == null) {
      return Breach.of(e);
    }
    String detail = String.valueOf(told.getDetail());
    Breach breach =
        "23503".equals(e.getSQLState())
            ? Breach.of(detail.contains("not present") ? Breach.Kind.LINK : Breach.Kind.LINKED, e)
            : Breach.of(e);
    String column = told.getColumn();
    breach =
        new Breach(
            breach.kind(),
            told.getConstraint(),
            column == null ? List.of() : List.of(column),
            null,
            breach.kind() == Breach.Kind.OTHER ? said(told) : breach.said());
    return breach.read(breach.kind() == Breach.Kind.MALFORMED ? MALFORMED : DETAIL);
  }

  /** What a trigger's author wrote, without where in it that stands. */
  private static String said(ServerErrorMessage told) {
    return Stream.of(told.getMessage(), told.getDetail(), told.getHint())
        .filter(Objects::nonNull)
        .map(String::strip)
        .filter(part -> !part.isEmpty())
        .collect(Collectors.joining(": "));
  }

  @Override
  public boolean isSystemSchema(String schema) {
    return schema.startsWith("pg_") || schema.equals("information_schema");
  }

  @Override
  public List<String> settings(long lockMillis) {
    return List.of("SET lock_timeout = " + lockMillis, "SET intervalstyle = postgres");
  }

  /** Links and unique values; what a trigger says at the end it may say of all records together. */
  @Override
  public List<String> checkingAtOnce(Connection connection) throws SQLException {
    List<String> deferred =
        Queries.texts(
            connection,
            "SELECT quote_ident(n.nspname) || '.' || quote_ident(c.conname) FROM pg_constraint c"
                + " JOIN pg_namespace n ON n.oid = c.connamespace"
                + " WHERE c.condeferred AND c.contype IN ('f', 'p', 'u', 'x')"
                + " AND has_schema_privilege(n.oid, 'USAGE')");
    return deferred.isEmpty()
        ? List.of()
        : List.of("SET CONSTRAINTS " + String.join(", ", deferred) + " IMMEDIATE");
  }

  @Override
  public void checkAll(Connection connection) throws SQLException {
    try (Statement statement = connection.createStatement()) {
      statement.execute("SET CONSTRAINTS ALL IMMEDIATE");
    }
  }

  /** Only texts go as texts: the server then reads a value as the field's own type. */
  @Override
  public boolean openTyped(FieldInfo field) {
    return switch (field.storage().kind()) {
      case UUID, JSON, OTHER, CASELESS, PADDED, LIST, INTERVAL -> true;
      case TEXT -> field.choices() != null || !field.typeName().matches("text|character varying.*");
      default -> false;
    };
  }

  @Override
  public @Nullable String arrayOf(FieldInfo field) {
    return switch (field.storage().kind()) {
      case NUMBER ->
          field.type() == FieldType.WHOLE && field.precision() == null ? "int8" : "numeric";
      case TEXT -> openTyped(field) ? null : "text";
      case DATE -> "date";
      case MOMENT -> "timestamp";
      case UUID -> "uuid";
      default -> null;
    };
  }

  @Override
  public void toRead(PreparedStatement query) throws SQLException {
    PostgresValues.asTexts(query);
  }

  @Override
  public void read(ResultSet found, int column, FieldInfo field, ColumnMaker into)
      throws SQLException {
    PostgresValues.read(found, column, field, into);
  }

  @Override
  public Abilities abilities() {
    return new Abilities(true, true, true, true, true);
  }

  @Override
  public Types types(Connection connection) {
    return new PostgresTypes(connection)::of;
  }

  @Override
  public Collection<List<Pointer>> foreignKeys(
      Connection connection, String catalog, String schema, String table) throws SQLException {
    String sql =
        """
        SELECT k.oid::bigint, a.attname, tn.nspname, t.relname, b.attname
        FROM pg_constraint k
        JOIN pg_class c ON c.oid = k.conrelid
        JOIN pg_namespace n ON n.oid = c.relnamespace
        JOIN pg_class t ON t.oid = k.confrelid
        JOIN pg_namespace tn ON tn.oid = t.relnamespace
        CROSS JOIN LATERAL unnest(k.conkey, k.confkey) WITH ORDINALITY AS f (own, other, place)
        JOIN pg_attribute a ON a.attrelid = k.conrelid AND a.attnum = f.own
        JOIN pg_attribute b ON b.attrelid = k.confrelid AND b.attnum = f.other
        WHERE k.contype = 'f' AND n.nspname = ? AND c.relname = ? ORDER BY k.conname, f.place""";
    return Queries.groups(
            connection,
            sql,
            found ->
                new Pointer(
                    found.getString(2), found.getString(3), found.getString(4), found.getString(5)),
            schema,
            table)
        .values();
  }

  /** Only whole, valid indexes over fields: no expressions, no conditions, no carried fields. */
  @Override
  public List<List<String>> uniques(
      Connection connection, String catalog, String schema, String table) throws SQLException {
    String sql =
        """
        SELECT i.indexrelid::bigint, a.attname
        FROM pg_index i
        JOIN pg_class c ON c.oid = i.indrelid
        JOIN pg_namespace n ON n.oid = c.relnamespace
        CROSS JOIN LATERAL unnest(i.indkey) WITH ORDINALITY AS k (number, place)
        JOIN pg_attribute a ON a.attrelid = i.indrelid AND a.attnum = k.number
        WHERE n.nspname = ? AND c.relname = ? AND i.indisunique AND i.indisvalid
          AND i.indpred IS NULL AND i.indexprs IS NULL AND k.place <= i.indnkeyatts
        ORDER BY 1, k.place""";
    return List.copyOf(
        Queries.groups(connection, sql, found -> found.getString(2), schema, table).values());
  }

  @Override
  public List<String> shownBy(Connection connection, String schema, String view)
      throws SQLException {
    String sql =
        """
        SELECT DISTINCT t.relname
        FROM pg_rewrite r
        JOIN pg_class v ON v.oid = r.ev_class
        JOIN pg_namespace n ON n.oid = v.relnamespace
        JOIN pg_depend d ON d.objid = r.oid AND d.refclassid = 'pg_class'::regclass
        JOIN pg_class t ON t.oid = d.refobjid AND t.oid <> v.oid
        WHERE n.nspname = ? AND v.relname = ? AND t.relkind IN ('r', 'p')
        ORDER BY 1""";
    return Queries.texts(connection, sql, schema, view);
  }

  /** By advisory locks, which other programs neither see nor wait for. */
  @Override
  public boolean claim(Connection connection, Set<String> exclusive, Set<String> shared)
      throws SQLException {
    Set<String> all = new TreeSet<>(exclusive);
    all.addAll(shared);
    for (String table : all) {
      String call =
          exclusive.contains(table) ? "pg_try_advisory_lock" : "pg_try_advisory_lock_shared";
      try (PreparedStatement query =
          connection.prepareStatement("SELECT " + call + "(hashtextextended(?, 20261125))")) {
        query.setString(1, "porter " + table);
        try (ResultSet got = query.executeQuery()) {
          got.next();
          if (!got.getBoolean(1)) {
            return false;
          }
        }
      }
    }
    return true;
  }

  /** A run in batches has its tables for itself over several transactions. */
  @Override
  public void release(Connection connection) throws SQLException {
    Queries.texts(connection, "SELECT pg_advisory_unlock_all()::text");
  }

  @Override
  public Copying copying(Connection connection, Going going) {
    return new PostgresCopy(this, connection);
  }

  @Override
  public @Nullable String together(Connection connection, TableInfo table, List<List<Object>> keys)
      throws SQLException {
    return new PostgresPlaces(this, connection, table).together(keys);
  }

  /** Values come in the form in which the field's storage keeps them. */
  @Override
  public boolean keeps(FieldInfo field) {
    return switch (field.storage().kind()) {
      case TEXT, INSTANT -> true;
      default -> Dialect.super.keeps(field);
    };
  }

  @Override
  public boolean isUntouched(Connection connection, TableInfo table) throws SQLException {
    String sql =
        """
        SELECT (c.relkind = 'r' AND NOT c.relhasrules AND NOT EXISTS (
          SELECT 1 FROM pg_trigger t
          WHERE t.tgrelid = c.oid AND NOT t.tgisinternal AND t.tgenabled <> 'D'))::text
        FROM pg_class c WHERE c.oid = ?::regclass""";
    return Queries.texts(connection, sql, name(table)).contains("true");
  }

  /**
   * The transaction's number, and when the server was started that gave it: a number that was not
   * made lasting before the server was lost is given again after it has come back.
   */
  @Override
  public @Nullable String mark(Connection connection) throws SQLException {
    return Queries.texts(connection, "SELECT txid_current()::text || '@' || " + STARTED).get(0);
  }

  @Override
  public @Nullable Settled settled(Connection connection, String mark) throws SQLException {
    int at = mark.indexOf('@');
    long number = Long.parseLong(at < 0 ? mark : mark.substring(0, at));
    boolean isSameServer =
        at >= 0 && Queries.texts(connection, "SELECT " + STARTED).contains(mark.substring(at + 1));
    String status;
    try {
      status = Queries.texts(connection, "SELECT txid_status(" + number + ")").get(0);
    } catch (SQLException e) {
      if (IN_THE_FUTURE.equals(e.getSQLState())) {
        // a server that does not know it has lost it
        return Settled.TAKEN_BACK;
      }
      throw e;
    }
    if (status == null) {
      return null;
    }
    return switch (status) {
      case "aborted" -> Settled.TAKEN_BACK;
      // the number may be another's by now: the records tell
      case "committed" -> isSameServer ? Settled.COMMITTED : null;
      default -> isSameServer ? Settled.GOING : Settled.TAKEN_BACK;
    };
  }
}
