package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.temporal.ChronoField;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.value.Comparison.Ignore;
import org.zestyporter.core.value.Storage.Kind;

/**
 * The types of SQLite's fields, which are what a table's text declares: the database itself keeps
 * any value in any of them. Where records hold something else than is declared, that is believed.
 */
final class SqliteTypes {
  private static final Pattern DECLARED =
      Pattern.compile("([^(]*)(?:\\(\\s*(\\d+)\\s*(?:,\\s*(\\d+)\\s*)?\\))?.*");

  private static final Pattern CHECK =
      Pattern.compile(
          "(?i)(?:\\bCONSTRAINT\\s+(?:[\"`\\[]([^\"`\\]]+)[\"`\\]]|([^\\s\"`\\[]+))\\s+)?\\bCHECK\\s*$");

  /** Records that are looked at to see what a field holds. */
  private static final int LOOKED_AT = 200;

  private static final DateTimeFormatter MOMENT =
      new DateTimeFormatterBuilder()
          .appendPattern("uuuu-MM-dd HH:mm:ss")
          .appendFraction(ChronoField.NANO_OF_SECOND, 0, 9, true)
          .toFormatter(Locale.ROOT);

  private static final DateTimeFormatter TIME =
      new DateTimeFormatterBuilder()
          .appendPattern("HH:mm:ss")
          .appendFraction(ChronoField.NANO_OF_SECOND, 0, 9, true)
          .toFormatter(Locale.ROOT);

  private final Connection connection;
  private final Dialect dialect;

  SqliteTypes(Connection connection, Dialect dialect) {
    this.connection = connection;
    this.dialect = dialect;
  }

  /** The types of a table's fields by the fields' names. */
  Map<String, NativeType> of(String table) throws SQLException {
    Map<String, NativeType> types = new LinkedHashMap<>();
    Set<String> caseless = caseless(table);
    String numbered = numbered(table);
    String sql = "SELECT name, type, hidden FROM pragma_table_xinfo(?)";
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      query.setString(1, table);
      try (ResultSet found = query.executeQuery()) {
        while (found.next()) {
          String name = found.getString(1);
          String declared = found.getString(2) == null ? "" : found.getString(2);
          NativeType type = asHeld(type(declared), table, name);
          if (caseless.contains(name)) {
            type = type.withIgnored(List.of(Ignore.CASE));
          }
          if (name.equals(numbered)) {
            type = type.withNumbered(true);
          }
          boolean computed = found.getInt(3) > 1;
          types.put(name, computed ? type.always("the database computes it") : type);
        }
      }
    }
    return types;
  }

  /** The field by which the table numbers its records; null if it is not said that it does. */
  private @Nullable String numbered(String table) throws SQLException {
    String sql =
        """
        SELECT x.name FROM sqlite_master m, pragma_table_xinfo(m.name) x
        WHERE m.name = ? AND x.pk = 1 AND m.sql LIKE '%AUTOINCREMENT%'""";
    List<String> names = Queries.texts(connection, sql, table);
    return names.isEmpty() ? null : names.get(0);
  }

  private Set<String> caseless(String table) throws SQLException {
    String sql =
        """
        SELECT x.name FROM pragma_index_list(?) l, pragma_index_xinfo(l.name) x
        WHERE l."unique" = 1 AND x.key = 1 AND upper(x.coll) = 'NOCASE'""";
    return new TreeSet<>(Queries.texts(connection, sql, table));
  }

  private static NativeType type(String declared) {
    Matcher m = DECLARED.matcher(declared.strip().toUpperCase(Locale.ROOT));
    String name = m.matches() ? m.group(1).strip() : "";
    Integer first = m.matches() && m.group(2) != null ? Integer.valueOf(m.group(2)) : null;
    Integer second = m.matches() && m.group(3) != null ? Integer.valueOf(m.group(3)) : null;
    String shown = declared.isEmpty() ? "any" : declared.toLowerCase(Locale.ROOT);
    if (name.startsWith("BOOL")) {
      return NativeType.of(shown, FieldType.BOOLEAN, Kind.BOOLEAN);
    } else if (name.contains("INT")) {
      return NativeType.whole(shown, name.equals("SMALLINT") ? 16 : 64);
    } else if (name.contains("CHAR") || name.contains("CLOB") || name.contains("TEXT")) {
      return NativeType.text(shown, Kind.TEXT, first);
    } else if (name.contains("BLOB")) {
      return NativeType.of(shown, FieldType.OTHER, Kind.BINARY);
    } else if (name.contains("REAL") || name.contains("FLOA") || name.contains("DOUB")) {
      return NativeType.of(shown, FieldType.DECIMAL, Kind.DOUBLE);
    } else if (name.startsWith("DATETIME") || name.startsWith("TIMESTAMP")) {
      return NativeType.timed(shown, FieldType.DATETIME, Kind.MOMENT, first == null ? 6 : first);
    } else if (name.equals("DATE")) {
      return NativeType.of(shown, FieldType.DATE, Kind.DATE);
    } else if (name.startsWith("TIME")) {
      return NativeType.timed(shown, FieldType.TIME, Kind.TIME, first == null ? 6 : first);
    } else if (name.startsWith("DEC") || name.startsWith("NUM") || name.equals("MONEY")) {
      return number(shown, first, second);
    } else if (name.startsWith("JSON")) {
      return NativeType.of(shown, FieldType.OTHER, Kind.JSON);
    }
    return name.equals("UUID")
        ? NativeType.of(shown, FieldType.OTHER, Kind.UUID)
        : NativeType.of(shown, FieldType.TEXT, Kind.OTHER);
  }

  /** Numbers with decimals are kept as floating point of 64 bits. */
  private static NativeType number(String shown, Integer precision, Integer scale) {
    if (precision != null && (scale == null || scale == 0)) {
      return NativeType.exact(shown, precision, 0);
    }
    return NativeType.of(shown, FieldType.DECIMAL, Kind.DOUBLE)
        .withLimit(precision)
        .withScale(scale);
  }

  /** The type that the records themselves show, where it is another family than is declared. */
  private NativeType asHeld(NativeType type, String table, String field) throws SQLException {
    String expected =
        switch (type.storage().kind()) {
          case DATE, TIME, MOMENT -> "text";
          case BOOLEAN -> "integer";
          default -> null;
        };
    if (expected == null) {
      return type;
    }
    String name = dialect.quote(field);
    String sql =
        "SELECT typeof("
            + name
            + ") AS t FROM (SELECT "
            + name
            + " FROM "
            + dialect.quote(table)
            + " WHERE "
            + name
            + " IS NOT NULL LIMIT "
            + LOOKED_AT
            + ") GROUP BY t ORDER BY COUNT(*) DESC";
    List<String> held = Queries.texts(connection, sql);
    if (held.isEmpty() || held.get(0).equals(expected)) {
      return type;
    }
    String shown = type.name() + ", kept as " + held.get(0);
    return switch (held.get(0)) {
      case "integer" -> NativeType.whole(shown, 64);
      case "real" -> NativeType.of(shown, FieldType.DECIMAL, Kind.DOUBLE);
      default -> NativeType.text(shown, Kind.TEXT, null);
    };
  }

  /** The texts of the check constraints in what made a table, by their names or by themselves. */
  static Map<String, String> checks(String made) {
    Map<String, String> checks = new LinkedHashMap<>();
    int begin = -1;
    int depth = 0;
    int checkDepth = 0;
    String name = null;
    for (int i = 0; i < made.length(); i++) {
      char c = made.charAt(i);
      if (c == '\'' || c == '"' || c == '`') {
        int end = made.indexOf(c, i + 1);
        i = end < 0 ? made.length() : end;
      } else if (c == '(') {
        depth++;
        Matcher check = CHECK.matcher(made.substring(0, i));
        if (begin < 0 && check.find()) {
          begin = i + 1;
          checkDepth = depth;
          name = check.group(1) == null ? check.group(2) : check.group(1);
        }
      } else if (c == ')') {
        if (begin >= 0 && depth == checkDepth) {
          String text = made.substring(begin, i).strip();
          checks.put(name == null ? text : name, text);
          begin = -1;
        }
        depth--;
      }
    }
    return checks;
  }

  /** A value that was held, as one of the field's kind; a text if it is none. */
  static Object read(Object held, Kind kind) {
    if (held instanceof byte[] bytes) {
      return "\\x" + HexFormat.of().formatHex(bytes);
    }
    if (held instanceof Number number) {
      BigDecimal exact =
          number instanceof Double d
              ? (Double.isFinite(d) ? new BigDecimal(d.toString()) : null)
              : BigDecimal.valueOf(number.longValue());
      return switch (kind) {
        case BOOLEAN ->
            exact != null && (number.longValue() & ~1L) == 0 && exact.scale() <= 0
                ? (Object) (number.longValue() == 1)
                : exact == null ? held.toString() : exact;
        case NUMBER, REAL, DOUBLE -> exact == null ? held.toString() : exact;
        default -> exact == null ? held.toString() : exact.toPlainString();
      };
    }
    String text = held.toString();
    try {
      return switch (kind) {
        case DATE -> LocalDate.parse(text);
        case TIME -> LocalTime.parse(text);
        case MOMENT -> LocalDateTime.parse(text.replace(' ', 'T'));
        default -> text;
      };
    } catch (DateTimeException e) {
      return text;
    }
  }

  /** A day, time or moment as it is kept (ISO 8601, with a space before the time). */
  static String written(Object value) {
    return value instanceof LocalDateTime moment
        ? MOMENT.format(moment)
        : value instanceof LocalTime time ? TIME.format(time) : value.toString();
  }
}
