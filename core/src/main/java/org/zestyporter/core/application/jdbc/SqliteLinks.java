package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
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

  @Override
  public @Nullable Breach broken(TableInfo table, List<List<Object>> keys, boolean removed)
      throws SQLException {
    if (links.isEmpty() || table.primaryKey().size() != 1) {
      return null;
    }
    FieldInfo key = table.fields(table.primaryKey()).get(0);
    for (Link link : links) {
      boolean is =
          removed
              ? link.to.equalsIgnoreCase(table.relation())
                  && link.toFields.size() == 1
                  && link.toFields.get(0).equalsIgnoreCase(key.name())
              : link.from.equalsIgnoreCase(table.relation());
      if (is && isAny(removed ? pointing(link) : hanging(link, key), key, keys)) {
        return new Breach(
            removed ? Breach.Kind.LINKED : Breach.Kind.LINK,
            null,
            removed ? List.of() : link.fields,
            null,
            "FOREIGN KEY constraint failed");
      }
    }
    return null;
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

  /** True if a question, which ends with the field that has to be one of the keys, finds any. */
  private boolean isAny(String question, FieldInfo key, List<List<Object>> keys)
      throws SQLException {
    List<Object> all = keys.stream().filter(Objects::nonNull).map(k -> k.get(0)).toList();
    for (int from = 0; from < all.size(); from += KEYS_AT_ONCE) {
      List<Object> some = all.subList(from, Math.min(all.size(), from + KEYS_AT_ONCE));
      String marks = String.join(", ", Collections.nCopies(some.size(), "?"));
      try (PreparedStatement query =
          connection.prepareStatement(question + " IN (" + marks + ") LIMIT 1")) {
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
