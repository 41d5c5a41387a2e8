package org.zestyporter.core.application.jdbc;

import java.nio.charset.Charset;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.Storage.Kind;

/** The types of fields as PostgreSQL's catalogue has them: its own, enumerations and domains. */
final class PostgresTypes {
  /** What the length of a text or a number is given with, in the catalogue's modifiers. */
  private static final int HEADER = 4;

  private final Connection connection;
  private final Map<String, NativeType> known = new HashMap<>();

  /** Encodings of databases that have not all letters, by their names. */
  private static final Map<String, String> ENCODINGS =
      Map.ofEntries(
          Map.entry("LATIN1", "ISO-8859-1"),
          Map.entry("LATIN2", "ISO-8859-2"),
          Map.entry("LATIN5", "ISO-8859-9"),
          Map.entry("LATIN7", "ISO-8859-13"),
          Map.entry("LATIN9", "ISO-8859-15"),
          Map.entry("ISO_8859_5", "ISO-8859-5"),
          Map.entry("ISO_8859_7", "ISO-8859-7"),
          Map.entry("ISO_8859_8", "ISO-8859-8"),
          Map.entry("WIN1250", "windows-1250"),
          Map.entry("WIN1251", "windows-1251"),
          Map.entry("WIN1252", "windows-1252"),
          Map.entry("WIN1253", "windows-1253"),
          Map.entry("WIN1254", "windows-1254"),
          Map.entry("WIN1255", "windows-1255"),
          Map.entry("WIN1256", "windows-1256"),
          Map.entry("WIN1257", "windows-1257"),
          Map.entry("KOI8R", "KOI8-R"),
          Map.entry("KOI8U", "KOI8-U"),
          Map.entry("EUC_JP", "EUC-JP"),
          Map.entry("EUC_KR", "EUC-KR"),
          Map.entry("EUC_CN", "GB2312"));

  PostgresTypes(Connection connection) {
    this.connection = connection;
  }

  /** A type with what is known of it only by its number. */
  private record Found(
      long oid,
      String name,
      String schema,
      String family,
      String category,
      long base,
      int modifier,
      boolean required,
      boolean hasDefault) {}

  /** The types of a table's fields by the fields' names. */
  Map<String, NativeType> of(String schema, String table) throws SQLException {
    Map<String, NativeType> types = new LinkedHashMap<>();
    String sql =
        """
        SELECT a.attname, a.attidentity, a.attgenerated, a.atttypid::bigint, a.atttypmod,
          format_type(a.atttypid, a.atttypmod), getdatabaseencoding()
        FROM pg_attribute a
        JOIN pg_class c ON c.oid = a.attrelid
        JOIN pg_namespace n ON n.oid = c.relnamespace
        WHERE n.nspname = ? AND c.relname = ? AND a.attnum > 0 AND NOT a.attisdropped
        ORDER BY a.attnum""";
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      query.setString(1, schema);
      query.setString(2, table);
      try (ResultSet found = query.executeQuery()) {
        while (found.next()) {
          NativeType type = known(found.getLong(4), found.getInt(5), found.getString(6));
          if ("a".equals(found.getString(2))) {
            type = type.always("the database numbers it itself");
          } else if (!found.getString(3).isEmpty()) {
            type = type.always("the database computes it");
          }
          String letters = ENCODINGS.get(found.getString(7));
          types.put(
              found.getString(1),
              letters == null ? type : type.withLetters(Charset.forName(letters)));
        }
      }
    }
    return types;
  }

  private NativeType known(long oid, int modifier, String shown) throws SQLException {
    String key = oid + " " + modifier + " " + shown;
    NativeType type = known.get(key);
    if (type == null) {
      type = type(oid, modifier, shown);
      known.put(key, type);
    }
    return type;
  }

  private NativeType type(long oid, int modifier, String shown) throws SQLException {
    Found found = find(oid);
    if (found.family().equals("d")) {
      int inner = found.modifier() >= 0 ? found.modifier() : modifier;
      String base = format(found.base(), inner);
      NativeType type = type(found.base(), inner, base);
      String sql = "SELECT pg_get_constraintdef(oid) FROM pg_constraint WHERE contypid = ?::oid";
      List<String> checks = texts(sql, oid).stream().map(SqlText::ofPostgres).toList();
      NativeType.Domain inside = type.domain();
      return type.inDomain(
          shown + ", which is " + (inside == null ? base : type.name()),
          NativeType.Domain.of(found.required(), found.hasDefault(), checks, inside));
    }
    if (found.family().equals("e")) {
      String sql = "SELECT enumlabel FROM pg_enum WHERE enumtypid = ?::oid ORDER BY enumsortorder";
      return NativeType.text(shown, Kind.TEXT, null).withChoices(texts(sql, oid));
    }
    return found.category().equals("A")
        ? array(oid, modifier, shown)
        : base(found, modifier, shown);
  }

  /** An array of plain values; of others it is left alone. */
  private NativeType array(long oid, int modifier, String shown) throws SQLException {
    List<String> of = texts("SELECT typelem::bigint::text FROM pg_type WHERE oid = ?::oid", oid);
    long element = Long.parseLong(of.get(0));
    NativeType type = element == 0 ? null : known(element, modifier, format(element, modifier));
    boolean isPlain =
        type != null
            && type.domain() == null
            && type.choices() == null
            && type.isFillable()
            && Set.of(Kind.TEXT, Kind.NUMBER, Kind.BOOLEAN, Kind.DATE, Kind.UUID)
                .contains(type.storage().kind());
    return isPlain
        ? NativeType.of(shown, FieldType.OTHER, Storage.list(type.storage()))
        : NativeType.leftAlone(shown);
  }

  private static NativeType base(Found found, int modifier, String shown) {
    boolean own = found.schema().equals("pg_catalog") || found.name().equals("citext");
    return switch (own ? found.name() : "") {
      case "int2" -> NativeType.whole(shown, 16);
      case "int4" -> NativeType.whole(shown, 32);
      case "int8" -> NativeType.whole(shown, 64);
      case "numeric" -> numeric(modifier, shown);
      case "float4" -> NativeType.of(shown, FieldType.DECIMAL, Kind.REAL);
      case "float8" -> NativeType.of(shown, FieldType.DECIMAL, Kind.DOUBLE);
      case "bool" -> NativeType.of(shown, FieldType.BOOLEAN, Kind.BOOLEAN);
      case "text", "name" -> NativeType.text(shown, Kind.TEXT, null);
      case "varchar" -> NativeType.text(shown, Kind.TEXT, length(modifier));
      case "char" -> NativeType.text(shown, Kind.TEXT, 1);
      case "bpchar" -> NativeType.text(shown, Kind.PADDED, length(modifier));
      case "citext" -> NativeType.text(shown, Kind.CASELESS, null);
      case "date" -> NativeType.of(shown, FieldType.DATE, Kind.DATE);
      case "time" -> NativeType.timed(shown, FieldType.TIME, Kind.TIME, digits(modifier));
      case "timestamp" ->
          NativeType.timed(shown, FieldType.DATETIME, Kind.MOMENT, digits(modifier));
      case "timestamptz" ->
          NativeType.timed(shown, FieldType.DATETIME, Kind.INSTANT, digits(modifier));
      case "interval" ->
          // one that keeps only some of its parts has another number here
          modifier < 0
              ? NativeType.of(shown, FieldType.OTHER, Kind.INTERVAL)
              : NativeType.leftAlone(shown);
      case "uuid" -> NativeType.of(shown, FieldType.OTHER, Kind.UUID);
      case "json", "jsonb" -> NativeType.of(shown, FieldType.OTHER, Kind.JSON);
      case "bytea" -> NativeType.of(shown, FieldType.OTHER, Kind.BINARY);
      case "inet", "cidr", "macaddr", "macaddr8", "bit", "varbit" ->
          NativeType.of(shown, FieldType.OTHER, Kind.OTHER);
      default -> NativeType.leftAlone(shown);
    };
  }

  private static NativeType numeric(int modifier, String shown) {
    if (modifier < HEADER) {
      return NativeType.exact(shown, null, null);
    }
    int precision = (modifier - HEADER >> 16) & 0xFFFF;
    // eleven bits with a sign
    int scale = ((modifier - HEADER & 0x7FF) ^ 0x400) - 0x400;
    return NativeType.exact(shown, precision, scale);
  }

  private static @Nullable Integer length(int modifier) {
    return modifier < HEADER ? null : Integer.valueOf(modifier - HEADER);
  }

  private static int digits(int modifier) {
    return modifier < 0 ? 6 : modifier;
  }

  private Found find(long oid) throws SQLException {
    String sql =
        """
        SELECT t.typname, n.nspname, t.typtype::text, t.typcategory::text, t.typbasetype::bigint,
          t.typtypmod, t.typnotnull, t.typdefault IS NOT NULL
        FROM pg_type t JOIN pg_namespace n ON n.oid = t.typnamespace WHERE t.oid = ?::oid""";
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      query.setLong(1, oid);
      try (ResultSet t = query.executeQuery()) {
        t.next();
        return new Found(
            oid,
            t.getString(1),
            t.getString(2),
            t.getString(3),
            t.getString(4),
            t.getLong(5),
            t.getInt(6),
            t.getBoolean(7),
            t.getBoolean(8));
      }
    }
  }

  private String format(long oid, int modifier) throws SQLException {
    return texts("SELECT format_type(?::oid, " + modifier + ")", oid).get(0);
  }

  private List<String> texts(String sql, long oid) throws SQLException {
    List<String> texts = new ArrayList<>();
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      query.setLong(1, oid);
      try (ResultSet found = query.executeQuery()) {
        while (found.next()) {
          texts.add(found.getString(1));
        }
      }
    }
    return texts;
  }
}
