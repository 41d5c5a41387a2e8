package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;

/**
 * The links of SQLite that are checked by the commit alone, which doesn't say what it is about.
 * They are looked for after each statement, of records with a single primary key.
 */
final class SqliteLinks implements LinkCheck {
  private static final int KEYS_AT_ONCE = 500;

  /**
   * A link.
   *
   * @param from the table that it stands in
   * @param fields its fields
   * @param to the table that it points at
   * @param toFields the fields there
   */
  private record Link(String from, List<String> fields, String to, List<String> toFields) {}

  private final Connection connection;
  private final Dialect dialect;
  private final List<Link> links = new ArrayList<>();

  SqliteLinks(Connection connection, Dialect dialect) throws SQLException {
    this.connection = connection;
    this.dialect = dialect;
    // one word in a table's text may be about another of its links, which does no harm
    for (String table :
        Queries.texts(
            connection,
            "SELECT name FROM sqlite_master WHERE type = 'table' AND sql LIKE '%deferred%'")) {
      for (List<Dialect.Pointer> key : dialect.foreignKeys(connection, "", "", table)) {
        links.add(
            new Link(
                table,
                key.stream().map(Dialect.Pointer::field).toList(),
                key.get(0).table(),
                key.stream().map(Dialect.Pointer::to).toList()));
      }
    }
  }

  /** What stood before in a field that was not given is nobody's mistake. */
  @Override
  public @Nullable Breach ofWritten(
      TableInfo table, Collection<FieldInfo> fields, List<List<Object>> keys) throws SQLException {
    for (Link link : links) {
      boolean isGiven =
          link.from.equalsIgnoreCase(table.relation())
              && fields.stream().anyMatch(f -> link.fields.contains(f.name()));
      if (isGiven && isAny(table, keys, key -> hanging(link, key))) {
        return broken(Breach.Kind.LINK, link.fields);
      }
    }
    return null;
  }

  @Override
  public @Nullable Breach ofRemoved(TableInfo table, List<List<Object>> keys) throws SQLException {
    for (Link link : links) {
      boolean isToIt =
          link.to.equalsIgnoreCase(table.relation())
              && link.toFields.size() == 1
              && table.primaryKey().stream().anyMatch(link.toFields.get(0)::equalsIgnoreCase);
      if (isToIt && isAny(table, keys, key -> pointing(link))) {
        return broken(Breach.Kind.LINKED, List.of());
      }
    }
    return null;
  }

  private static Breach broken(Breach.Kind kind, List<String> fields) {
    return new Breach(kind, null, fields, null, "FOREIGN KEY constraint failed");
  }

  /** Asks for records that point at some that are gone. */
  private String pointing(Link link) {
    return "SELECT 1 FROM " + dialect.quote(link.from) + " WHERE " + quoted(link.fields).get(0);
  }

  /** Asks for those of some records that point at none. */
  private String hanging(Link link, FieldInfo key) {
    List<String> fields = quoted(link.fields).stream().map(f -> "l." + f).toList();
    List<String> there = quoted(link.toFields).stream().map(f -> "t." + f).toList();
    StringBuilder sql =
        new StringBuilder("SELECT 1 FROM ").append(dialect.quote(link.from)).append(" l WHERE ");
    fields.forEach(f -> sql.append(f).append(" IS NOT NULL AND "));
    sql.append("NOT EXISTS (SELECT 1 FROM ").append(dialect.quote(link.to)).append(" t WHERE ");
    for (int i = 0; i < fields.size(); i++) {
      sql.append(i == 0 ? "" : " AND ").append(there.get(i)).append(" = ").append(fields.get(i));
    }
    return sql.append(") AND l.").append(dialect.quote(key.name())).toString();
  }

  private List<String> quoted(List<String> fields) {
    return fields.stream().map(dialect::quote).toList();
  }

  /**
   * True if a question finds any of some records, which are told by a single key.
   *
   * @param question gives it for the key; it ends with the field that has to be one of them
   */
  private boolean isAny(
      TableInfo table, List<List<Object>> keys, Function<FieldInfo, String> question)
      throws SQLException {
    if (table.primaryKey().size() != 1) {
      return false;
    }
    FieldInfo key = table.fields(table.primaryKey()).get(0);
    List<Object> all = keys.stream().filter(Objects::nonNull).map(k -> k.get(0)).toList();
    for (int from = 0; from < all.size(); from += KEYS_AT_ONCE) {
      List<Object> some = all.subList(from, Math.min(all.size(), from + KEYS_AT_ONCE));
      String marks = String.join(", ", Collections.nCopies(some.size(), "?"));
      try (PreparedStatement query =
          connection.prepareStatement(question.apply(key) + " IN (" + marks + ") LIMIT 1")) {
        for (int i = 0; i < some.size(); i++) {
          Fields.bind(query, i + 1, key, some.get(i), dialect);
        }
        try (ResultSet found = query.executeQuery()) {
          if (found.next()) {
            return true;
          }
        }
      }
    }
    return false;
  }
}
