package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
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
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.Storage.Kind;

/** The types of fields as MariaDB's and MySQL's catalogue has them. */
final class MariaTypes {
  /** Character sets that have not all letters, by their names. */
  private static final Map<String, String> CHARSETS =
      Map.ofEntries(
          Map.entry("latin1", "windows-1252"),
          Map.entry("latin2", "ISO-8859-2"),
          Map.entry("latin5", "ISO-8859-9"),
          Map.entry("latin7", "ISO-8859-13"),
          Map.entry("cp1250", "windows-1250"),
          Map.entry("cp1251", "windows-1251"),
          Map.entry("cp1256", "windows-1256"),
          Map.entry("cp1257", "windows-1257"),
          Map.entry("cp850", "IBM850"),
          Map.entry("cp852", "IBM852"),
          Map.entry("cp866", "IBM866"),
          Map.entry("koi8r", "KOI8-R"),
          Map.entry("koi8u", "KOI8-U"),
          Map.entry("greek", "ISO-8859-7"),
          Map.entry("hebrew", "ISO-8859-8"),
          Map.entry("tis620", "TIS-620"),
          Map.entry("sjis", "Shift_JIS"),
          Map.entry("cp932", "windows-31j"),
          Map.entry("ujis", "EUC-JP"),
          Map.entry("eucjpms", "EUC-JP"),
          Map.entry("euckr", "EUC-KR"),
          Map.entry("gb2312", "GB2312"),
          Map.entry("gbk", "GBK"),
          Map.entry("big5", "Big5"),
          Map.entry("ascii", "US-ASCII"));

  private static final Pattern JSON = Pattern.compile("(?i)\\(?json_valid\\(`?([^`)]+)`?\\)\\)?");
  private static final Pattern LITERAL = Pattern.compile("'((?:[^']|'')*)'");

  private static final BigDecimal FIRST_YEAR = new BigDecimal(1901);
  private static final BigDecimal LAST_YEAR = new BigDecimal(2155);

  private final Connection connection;

  MariaTypes(Connection connection) {
    this.connection = connection;
  }

  /** The field that a check constraint says is JSON; null if it says something else. */
  static @Nullable String json(String check) {
    Matcher m = JSON.matcher(check.strip());
    return m.matches() ? m.group(1) : null;
  }

  /** The letters that a character set has; null if these are all, or nobody knows. */
  private static @Nullable Charset letters(@Nullable String characterSet) {
    String name = characterSet == null ? null : CHARSETS.get(characterSet);
    return name == null || !Charset.isSupported(name) ? null : Charset.forName(name);
  }

  /** What a number in a field for yes and no stands for; itself if it is neither. */
  static Object truth(int number) {
    return number == 0 || number == 1 ? (Object) (number == 1) : BigDecimal.valueOf(number);
  }

  /** The types of a table's fields by the fields' names. */
  Map<String, NativeType> of(String schema, String table) throws SQLException {
    String sql =
        """
        SELECT column_name, data_type, column_type, character_maximum_length, numeric_precision,
          numeric_scale, datetime_precision, extra, collation_name, generation_expression,
          character_set_name
        FROM information_schema.columns
        WHERE table_schema = COALESCE(?, DATABASE()) AND table_name = ?
        ORDER BY ordinal_position""";
    Set<String> json = jsonFields(schema, table);
    Map<String, NativeType> types = new LinkedHashMap<>();
    try (PreparedStatement query = connection.prepareStatement(sql)) {
      query.setString(1, schema);
      query.setString(2, table);
      try (ResultSet found = query.executeQuery()) {
        while (found.next()) {
          String name = found.getString(1);
          String extra = found.getString(8).toLowerCase(Locale.ROOT);
          NativeType type =
              json.contains(name)
                  ? NativeType.of("json", FieldType.OTHER, Kind.JSON)
                  : type(found).withIgnored(ignored(found.getString(9)));
          if (extra.contains("auto_increment")) {
            type = type.withNumbered(true);
          }
          type = type.withLetters(letters(found.getString(11)));
          boolean computed = found.getString(10) != null && !found.getString(10).isEmpty();
          types.put(name, computed ? type.always("the database computes it") : type);
        }
      }
    }
    return types;
  }

  private Set<String> jsonFields(String schema, String table) throws SQLException {
    Set<String> fields = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    if (!connection.getMetaData().getDatabaseProductName().equals("MySQL")) {
      String sql =
          """
          SELECT check_clause FROM information_schema.check_constraints
          WHERE constraint_schema = COALESCE(?, DATABASE()) AND table_name = ?""";
      for (String check : Queries.texts(connection, sql, schema, table)) {
        String field = json(check);
        if (field != null) {
          fields.add(field);
        }
      }
    }
    return fields;
  }

  private static List<Ignore> ignored(@Nullable String collation) {
    return collation != null && collation.endsWith("_ci") ? List.of(Ignore.CASE) : List.of();
  }

  private static NativeType type(ResultSet column) throws SQLException {
    String shown = column.getString(3);
    boolean signed = !shown.contains("unsigned");
    long characters = column.getLong(4);
    Integer length = characters > 0 && characters < Integer.MAX_VALUE ? (int) characters : null;
    int digits = column.getInt(7);
    return switch (column.getString(2).toLowerCase(Locale.ROOT)) {
      case "tinyint" ->
          shown.equals("tinyint(1)")
              ? NativeType.of(shown, FieldType.BOOLEAN, Kind.BOOLEAN)
              : NativeType.whole(shown, 8, signed);
      case "smallint" -> NativeType.whole(shown, 16, signed);
      case "mediumint" -> NativeType.whole(shown, 24, signed);
      case "int" -> NativeType.whole(shown, 32, signed);
      case "bigint" -> NativeType.whole(shown, 64, signed);
      case "bit" ->
          shown.equals("bit(1)")
              ? NativeType.of(shown, FieldType.BOOLEAN, Kind.BOOLEAN)
              : NativeType.leftAlone(shown);
      case "year" ->
          NativeType.of(shown, FieldType.WHOLE, Kind.NUMBER)
              .withLeast(FIRST_YEAR)
              .withGreatest(LAST_YEAR);
      case "decimal" -> {
        NativeType exact = NativeType.exact(shown, column.getInt(5), column.getInt(6));
        yield signed ? exact : exact.withLeast(BigDecimal.ZERO);
      }
      case "float" -> NativeType.of(shown, FieldType.DECIMAL, Kind.REAL);
      case "double" -> NativeType.of(shown, FieldType.DECIMAL, Kind.DOUBLE);
      case "char" -> NativeType.text(shown, Kind.PADDED, length);
      case "varchar", "tinytext", "text", "mediumtext", "longtext" ->
          NativeType.text(shown, Kind.TEXT, length);
      case "enum" -> NativeType.text(shown, Kind.TEXT, null).withChoices(literals(shown));
      case "set" -> NativeType.of(shown, FieldType.TEXT, Storage.set(literals(shown)));
      case "date" -> NativeType.of(shown, FieldType.DATE, Kind.DATE);
      case "time" -> NativeType.timed(shown, FieldType.TIME, Kind.TIME, digits);
      case "datetime", "timestamp" ->
          NativeType.timed(shown, FieldType.DATETIME, Kind.MOMENT, digits);
      case "uuid" -> NativeType.of(shown, FieldType.OTHER, Kind.UUID);
      case "json" -> NativeType.of(shown, FieldType.OTHER, Kind.JSON);
      case "inet4", "inet6" -> NativeType.of(shown, FieldType.OTHER, Kind.OTHER);
      case "binary", "varbinary", "tinyblob", "blob", "mediumblob", "longblob" ->
          NativeType.of(shown, FieldType.OTHER, Kind.BINARY);
      default -> NativeType.leftAlone(shown);
    };
  }

  private static List<String> literals(String type) {
    List<String> literals = new ArrayList<>();
    Matcher literal = LITERAL.matcher(type);
    while (literal.find()) {
      literals.add(literal.group(1).replace("''", "'"));
    }
    return literals;
  }
}
