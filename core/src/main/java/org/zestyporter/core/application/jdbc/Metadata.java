package org.zestyporter.core.application.jdbc;

import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.LinkInfo;
import org.zestyporter.core.application.RowRule;
import org.zestyporter.core.application.TableInfo;

/** Reads tables and fields from the database's own catalogue. */
final class Metadata {
  private static final String[] TABLES = {"TABLE", "BASE TABLE", "PARTITIONED TABLE"};

  /** So many links of several fields are followed to where one of them points at in the end. */
  private static final int LINKS_FOLLOWED = 4;

  private static final String[] VIEWS = {"VIEW", "MATERIALIZED VIEW"};

  private final Connection connection;
  private final DatabaseMetaData meta;
  private final Dialect dialect;
  private final Dialect.Types types;
  private final @Nullable String catalog;
  private final @Nullable String home;
  private final Offer offer;
  private final PresumedLinks presumed;
  private @Nullable Map<String, Named> tables;

  Metadata(Connection connection, Dialect dialect, Offer offer) throws SQLException {
    this.offer = offer;
    this.connection = connection;
    this.meta = connection.getMetaData();
    this.dialect = dialect;
    this.types = dialect.types(connection);
    this.catalog = connection.getCatalog();
    this.home = connection.getSchema();
    this.presumed = new PresumedLinks(this, types);
  }

  /** A relation by its schema and name, and what the database says of it. */
  record Named(@Nullable String schema, String relation, @Nullable String comment) {}

  /**
   * What can be written to, by what plans call it: the tables of the connection's own schema first,
   * then those of others with their schema before them, each in alphabetical order.
   */
  Map<String, Named> tables() throws SQLException {
    if (tables == null) {
      tables = relations(TABLES);
    }
    return tables;
  }

  /** The tables of the connection's own schema, in alphabetical order. */
  List<String> ownTables() throws SQLException {
    return tables().entrySet().stream()
        .filter(e -> isHome(e.getValue().schema()))
        .map(Map.Entry::getKey)
        .toList();
  }

  /** The views, by what plans would call them. */
  Map<String, Named> views() throws SQLException {
    return relations(VIEWS);
  }

  private Map<String, Named> relations(String[] kinds) throws SQLException {
    List<Named> own = new ArrayList<>();
    List<Named> others = new ArrayList<>();
    try (ResultSet tables = meta.getTables(catalog, null, "%", kinds)) {
      while (tables.next()) {
        Named named =
            new Named(
                tables.getString("TABLE_SCHEM"),
                tables.getString("TABLE_NAME"),
                tables.getString("REMARKS"));
        if (!isOffered(named.schema(), named.relation())) {
          continue;
        }
        if (isHome(named.schema())) {
          own.add(named);
        } else if (!dialect.isSystemSchema(named.schema())) {
          others.add(named);
        }
      }
    }
    Map<String, Named> all = new LinkedHashMap<>();
    for (List<Named> part : List.of(own, others)) {
      Map<String, Named> sorted = new TreeMap<>(Metadata::alphabetical);
      part.forEach(n -> sorted.put(shown(n.schema(), n.relation()), n));
      sorted.forEach(all::putIfAbsent);
    }
    return all;
  }

  private boolean isOffered(@Nullable String schema, String relation) {
    return offer.offers(shown(schema, relation), schema, relation);
  }

  private static int alphabetical(String a, String b) {
    int bare = a.compareToIgnoreCase(b);
    return bare == 0 ? a.compareTo(b) : bare;
  }

  /** False if there is none of the schemas in which the connection looks for tables. */
  boolean hasHome() {
    return home != null;
  }

  private boolean isHome(@Nullable String schema) {
    return schema == null || schema.equals(home);
  }

  private String shown(@Nullable String schema, String relation) {
    return isHome(schema) ? relation : schema + "." + relation;
  }

  /** The tables whose records a view shows, as far as the database tells. */
  List<String> shownBy(Named view) throws SQLException {
    return dialect.shownBy(connection, view.schema(), view.relation());
  }

  /** A table with its fields. */
  TableInfo table(String name, Named table) throws SQLException {
    String schema = table.schema();
    String relation = table.relation();
    List<String> key = primaryKey(schema, relation);
    Map<String, NativeType> own = types.of(schema, relation);
    List<List<String>> uniques =
        dialect.uniques(connection, catalog, schema, relation).stream()
            .filter(fields -> !fields.equals(key) && own.keySet().containsAll(fields))
            .distinct()
            .toList();
    Collection<List<Dialect.Pointer>> foreignKeys =
        dialect.foreignKeys(connection, catalog, schema, relation);
    Map<String, LinkInfo> links = links(foreignKeys);
    Map<String, CheckRule> checks = new HashMap<>();
    Map<String, String> texts = dialect.checkTexts(connection, schema, relation);
    List<String> others = new ArrayList<>();
    for (String text : texts.values()) {
      CheckRule rule = CheckRule.parse(text);
      if (rule == null) {
        others.add(text);
      } else {
        checks.merge(rule.field().toLowerCase(Locale.ROOT), rule, CheckRule::and);
      }
    }
    List<FieldInfo> fields = new ArrayList<>();
    try (ResultSet columns = meta.getColumns(catalog, escaped(schema), escaped(relation), "%")) {
      while (columns.next()) {
        String field = columns.getString("COLUMN_NAME");
        NativeType type = own.get(field);
        if (type != null) {
          boolean unique = key.equals(List.of(field)) || uniques.contains(List.of(field));
          CheckRule rule = checks.get(field.toLowerCase(Locale.ROOT));
          LinkInfo link = links.get(field);
          if (link == null && !unique) {
            link = presumed.of(table, field, type, foreignKeys.isEmpty());
          }
          fields.add(field(columns, type, unique, link, rule));
          others.addAll(type.domain() == null ? List.of() : type.domain().checksOf(field));
        }
      }
    }
    List<RowRule> rules = new ArrayList<>();
    List<String> ownRules = new ArrayList<>();
    for (String text : others) {
      RowRule rule = SqlRule.parse(text, fields, dialect.ways());
      if (rule == null) {
        ownRules.add(text);
      } else {
        rules.add(rule);
      }
    }
    ownRules.addAll(dialect.ruleTexts(connection, schema, relation));
    ownRules.addAll(widerLinks(foreignKeys));
    return new TableInfo(
        schema, name, relation, comment(table), fields, key, uniques, rules, ownRules, texts);
  }

  private static FieldInfo field(
      ResultSet column,
      NativeType type,
      boolean unique,
      @Nullable LinkInfo link,
      @Nullable CheckRule check)
      throws SQLException {
    NativeType.Domain domain = type.domain();
    CheckRule rule = domain == null || domain.rule() == null ? check : domain.rule().and(check);
    boolean exact = type.limit() != null && type.type().isNumber();
    String comment = column.getString("REMARKS");
    return new FieldInfo(
        column.getString("COLUMN_NAME"),
        type.type(),
        type.type() == FieldType.TEXT ? type.limit() : null,
        exact ? type.limit() : null,
        exact ? type.scale() : null,
        column.getInt("NULLABLE") != DatabaseMetaData.columnNoNulls
            && (domain == null || !domain.required()),
        isDefault(column.getString("COLUMN_DEF")) || domain != null && domain.hasDefault(),
        type.always()
            || type.numbered()
            || "YES".equals(column.getString("IS_AUTOINCREMENT"))
            || "YES".equals(column.getString("IS_GENERATEDCOLUMN")),
        unique,
        comment == null || comment.isBlank() ? null : comment,
        type.choices() != null ? type.choices() : rule == null ? null : rule.choices(),
        rule == null || rule.least() == null ? type.least() : rule.least(),
        rule == null || rule.greatest() == null ? type.greatest() : rule.greatest(),
        link,
        column.getInt("DATA_TYPE"),
        type.storage(),
        type.name(),
        type.unfillable(),
        type.ignored(),
        type.letters());
  }

  /** True if a default is anything but nothing, which some databases spell out. */
  private static boolean isDefault(@Nullable String sql) {
    return sql != null && !sql.toUpperCase(Locale.ROOT).matches("NULL(::.*)?");
  }

  private static @Nullable String comment(Named table) {
    return table.comment() == null || table.comment().isBlank() ? null : table.comment();
  }

  /** The fields of the tables of a schema: by the fields' names, the tables that have one. */
  Map<String, List<String>> tablesByField(@Nullable String schema) throws SQLException {
    Map<String, List<String>> relations = new HashMap<>();
    try {
      noteFields(schema, "%", relations);
    } catch (SQLException e) {
      // a view of what is no longer there keeps some from telling of all at once
      relations.clear();
      for (Named table : tables().values()) {
        if (Objects.equals(table.schema(), schema)) {
          noteFields(schema, escaped(table.relation()), relations);
        }
      }
    }
    return relations;
  }

  private void noteFields(
      @Nullable String schema, String pattern, Map<String, List<String>> relations)
      throws SQLException {
    try (ResultSet columns = meta.getColumns(catalog, escaped(schema), pattern, "%")) {
      while (columns.next()) {
        relations
            .computeIfAbsent(columns.getString("COLUMN_NAME"), f -> new ArrayList<>())
            .add(columns.getString("TABLE_NAME"));
      }
    }
  }

  List<String> primaryKey(@Nullable String schema, String relation) throws SQLException {
    Map<Short, String> fields = new TreeMap<>();
    try (ResultSet keys = meta.getPrimaryKeys(catalog, schema, relation)) {
      while (keys.next()) {
        fields.put(keys.getShort("KEY_SEQ"), keys.getString("COLUMN_NAME"));
      }
    }
    return List.copyOf(fields.values());
  }

  /** Links of one field, by the fields. */
  private Map<String, LinkInfo> links(Collection<List<Dialect.Pointer>> foreignKeys)
      throws SQLException {
    Map<String, LinkInfo> links = new HashMap<>();
    for (List<Dialect.Pointer> key : foreignKeys) {
      Dialect.Pointer only = key.get(0);
      if (key.size() == 1 && isOffered(only.schema(), only.table())) {
        links.put(only.field(), new LinkInfo(shown(only.schema(), only.table()), only.to()));
      }
    }
    for (List<Dialect.Pointer> key : foreignKeys) {
      for (Dialect.Pointer part : key) {
        if (key.size() > 1 && !links.containsKey(part.field())) {
          LinkInfo beyond = beyond(part, LINKS_FOLLOWED);
          if (beyond != null) {
            links.put(part.field(), beyond);
          }
        }
      }
    }
    return links;
  }

  /**
   * Where a part of a link of several fields points at in the end: the tenant of a policy is that
   * of its customer, which is a link to the tenants.
   *
   * @return null if the field that it has to equal is no link itself
   */
  private @Nullable LinkInfo beyond(Dialect.Pointer part, int most) throws SQLException {
    if (most == 0) {
      return null;
    }
    LinkInfo found = null;
    for (List<Dialect.Pointer> key :
        dialect.foreignKeys(connection, catalog, part.schema(), part.table())) {
      for (Dialect.Pointer next : key) {
        if (!next.field().equals(part.to())) {
          continue;
        }
        if (key.size() > 1) {
          found = found == null ? beyond(next, most - 1) : found;
        } else if (isOffered(next.schema(), next.table())) {
          return new LinkInfo(shown(next.schema(), next.table()), next.to());
        }
      }
    }
    return found;
  }

  /** Links of several fields, which are left to the database, in a few words each. */
  private List<String> widerLinks(Collection<List<Dialect.Pointer>> foreignKeys) {
    return foreignKeys.stream()
        .filter(key -> key.size() > 1)
        .map(
            key ->
                "link of "
                    + key.stream().map(Dialect.Pointer::field).collect(Collectors.joining(", "))
                    + " to "
                    + shown(key.get(0).schema(), key.get(0).table())
                    + " ("
                    + key.stream().map(Dialect.Pointer::to).collect(Collectors.joining(", "))
                    + ")")
        .toList();
  }

  private @Nullable String escaped(@Nullable String name) throws SQLException {
    String escape = meta.getSearchStringEscape();
    return name == null
        ? null
        : name.replace(escape, escape + escape)
            .replace("_", escape + "_")
            .replace("%", escape + "%");
  }
}
