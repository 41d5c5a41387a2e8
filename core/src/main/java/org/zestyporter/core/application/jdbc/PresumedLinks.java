package org.zestyporter.core.application.jdbc;

import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.LinkInfo;
import org.zestyporter.core.value.Words;

/**
 * Links that the database does not declare, as far as names tell them: many applications keep their
 * links to themselves.
 */
final class PresumedLinks {
  /** A name that says of what a field holds the key: customer_id, customerId, CustomerID. */
  private static final Pattern KEY_OF =
      Pattern.compile("(?<of>.{2,})_(?i:id)|(?<of2>.*[\\p{Ll}\\d])I[dD]");

  /** Keys that are called so tell nothing of what they are keys of. */
  private static final Set<String> TELL_NOTHING =
      Set.of("id", "uuid", "guid", "key", "code", "name", "number", "no", "nr", "type", "title");

  /** A field that so many tables have is none by which one of them is known. */
  private static final int MOST_TABLES = 40;

  private final Metadata metadata;
  private final Dialect.Types types;

  /** By the schemas, which of their tables have a field of a name. */
  private final Map<String, Map<String, List<String>>> tablesByField = new HashMap<>();

  /** The keys of tables that were looked at; the field and its type, if a key is one field. */
  private final Map<Metadata.Named, Optional<Key>> keys = new HashMap<>();

  private record Key(String field, NativeType type) {}

  PresumedLinks(Metadata metadata, Dialect.Types types) {
    this.metadata = metadata;
    this.types = types;
  }

  /**
   * Where a field points: {@code customer_id} at the key of {@code customers}, {@code parent_id} at
   * its own table's, and in a table of which no link is declared {@code dept_no} at the only other
   * table whose key is called so. A table of the same schema goes before the only one of the
   * others.
   *
   * @param isSilent true if the database declares no link of the field's table
   * @return null if it is none of which that can be told
   */
  @Nullable LinkInfo of(Metadata.Named own, String field, NativeType type, boolean isSilent)
      throws SQLException {
    Matcher name = KEY_OF.matcher(field);
    LinkInfo link =
        name.matches()
            ? byTable(own, bare(name.group(name.group("of") == null ? "of2" : "of")), type)
            : null;
    return link == null && isSilent ? byKey(own, field, type) : link;
  }

  private @Nullable LinkInfo byTable(Metadata.Named own, String one, NativeType type)
      throws SQLException {
    List<LinkInfo> near = new ArrayList<>();
    List<LinkInfo> far = new ArrayList<>();
    for (Map.Entry<String, Metadata.Named> other : metadata.tables().entrySet()) {
      Metadata.Named table = other.getValue();
      boolean isNear = Objects.equals(table.schema(), own.schema());
      boolean isItself = isNear && table.relation().equals(own.relation());
      if (isItself ? one.equals("parent") : isOneOf(one, bare(table.relation()))) {
        LinkInfo link = to(other.getKey(), table, type);
        if (link != null) {
          (isNear ? near : far).add(link);
        }
      }
    }
    return !near.isEmpty() ? near.get(0) : far.size() == 1 ? far.get(0) : null;
  }

  private @Nullable LinkInfo byKey(Metadata.Named own, String field, NativeType type)
      throws SQLException {
    if (TELL_NOTHING.contains(field.toLowerCase(Locale.ROOT))) {
      return null;
    }
    String schema = String.valueOf(own.schema());
    Map<String, List<String>> known = tablesByField.get(schema);
    if (known == null) {
      known = metadata.tablesByField(own.schema());
      tablesByField.put(schema, known);
    }
    List<String> having = known.getOrDefault(field, List.of());
    if (having.size() < 2 || having.size() > MOST_TABLES) {
      return null;
    }
    List<LinkInfo> links = new ArrayList<>();
    for (Map.Entry<String, Metadata.Named> other : metadata.tables().entrySet()) {
      Metadata.Named table = other.getValue();
      boolean isOther =
          Objects.equals(table.schema(), own.schema())
              && !table.relation().equals(own.relation())
              && having.contains(table.relation());
      LinkInfo link = isOther ? to(other.getKey(), table, type) : null;
      if (link != null && link.keyField().equals(field)) {
        links.add(link);
      }
    }
    // the list of words is long, and hardly a field comes that far
    boolean isOne = links.size() == 1 && !TELL_NOTHING.containsAll(Words.split(field));
    return isOne ? links.get(0) : null;
  }

  /** A link to a table's key, if that is one field of such a type; otherwise null. */
  private @Nullable LinkInfo to(String name, Metadata.Named table, NativeType type)
      throws SQLException {
    Optional<Key> known = keys.get(table);
    if (known == null) {
      known = Optional.ofNullable(key(table));
      keys.put(table, known);
    }
    NativeType held = known.map(Key::type).orElse(null);
    boolean isAlike =
        held != null && LinkInfo.isAlike(held.type(), held.name(), type.type(), type.name());
    return isAlike ? new LinkInfo(name, known.get().field(), false) : null;
  }

  private @Nullable Key key(Metadata.Named table) throws SQLException {
    List<String> key = metadata.primaryKey(table.schema(), table.relation());
    return key.size() == 1
        ? new Key(key.get(0), types.of(table.schema(), table.relation()).get(key.get(0)))
        : null;
  }

  private static String bare(String name) {
    return name.toLowerCase(Locale.ROOT).replace("_", "");
  }

  /** True if a table is called by what its records are, one of them or several. */
  private static boolean isOneOf(String one, String table) {
    return table.equals(one)
        || table.equals(one + "s")
        || table.equals(one + "es")
        || one.endsWith("y") && table.equals(one.substring(0, one.length() - 1) + "ies");
  }
}
