package org.zestyporter.core.application.jdbc;

import java.sql.SQLException;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.RowRule;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession.Refusal;

/**
 * Why a database refused a record, as far as it told.
 *
 * @param kind what was broken
 * @param rule name of the constraint; null if it was not told
 * @param fields names of the fields concerned; empty if they were not told
 * @param value the value concerned; null if it was not told
 * @param said what the database itself said
 */
record Breach(
    Kind kind, @Nullable String rule, List<String> fields, @Nullable String value, String said) {

  /** What can be broken. */
  enum Kind {
    REQUIRED,
    UNIQUE,
    /** It points at a record that is not there. */
    LINK,
    /** Others point at it. */
    LINKED,
    CHECK,
    /** Another record is in its way, as by a time that both have in part. */
    COLLISION,
    TOO_LONG,
    OUT_OF_RANGE,
    MALFORMED,
    /** Anything else, such as what a trigger says. */
    OTHER
  }

  /**
   * Ways of breaking something by the standard's SQL states (ISO/IEC 9075-2, table 38), and by
   * those of PostgreSQL, which begin with a P in their second part.
   */
  private static final Map<String, Kind> STATES =
      Map.ofEntries(
          Map.entry("23502", Kind.REQUIRED),
          Map.entry("23505", Kind.UNIQUE),
          Map.entry("23514", Kind.CHECK),
          Map.entry("23513", Kind.CHECK),
          Map.entry("22001", Kind.TOO_LONG),
          Map.entry("22003", Kind.OUT_OF_RANGE),
          Map.entry("22007", Kind.MALFORMED),
          Map.entry("22008", Kind.MALFORMED),
          Map.entry("22018", Kind.MALFORMED),
          Map.entry("23P01", Kind.COLLISION),
          Map.entry("22P02", Kind.MALFORMED));

  /** What no dialect has to say more of. */
  static Breach of(SQLException e) {
    Kind kind = STATES.getOrDefault(String.valueOf(e.getSQLState()), Kind.OTHER);
    return of(kind, e);
  }

  static Breach of(Kind kind, SQLException e) {
    return new Breach(kind, null, List.of(), null, DatabaseErrors.reason(e));
  }

  /** The same, with what a pattern finds in the database's words: rule, field and value. */
  Breach read(Pattern words) {
    Matcher m = words.matcher(said);
    if (!m.find()) {
      return this;
    }
    return new Breach(
        kind,
        group(m, words, "rule") == null ? rule : group(m, words, "rule"),
        group(m, words, "fields") == null
            ? fields
            : List.of(group(m, words, "fields").replaceAll("[\"`]", "").split(",\\s*")),
        group(m, words, "value") == null ? value : group(m, words, "value"),
        said);
  }

  /** The same, with the database's words made plainer. */
  Breach saying(UnaryOperator<String> plainer) {
    return new Breach(kind, rule, fields, value, plainer.apply(said));
  }

  /**
   * The same of a removal: what is gone points nowhere, so a broken link is one that points at it.
   */
  Breach ofRemoval() {
    return kind == Kind.LINK ? new Breach(Kind.LINKED, rule, fields, value, said) : this;
  }

  private static @Nullable String group(Matcher m, Pattern words, String name) {
    return words.pattern().contains("<" + name + ">") ? m.group(name) : null;
  }

  /** In the user's words. */
  Refusal told(long line, @Nullable TableInfo table) {
    String clause = clause(table);
    String field = field(table, clause);
    String among = fields.size() > 1 ? String.join(" with ", fields) : field;
    String reason =
        switch (kind) {
          case REQUIRED -> "a value is required";
          case UNIQUE -> "another record has it already, and it must be unique";
          case LINK -> "it points at a record that is not there";
          case LINKED -> "other records point at it";
          case CHECK ->
              clause == null
                  ? RowRule.broken(rule == null ? "that is told as: " + said : rule)
                  : RowRule.broken(clause);
          case COLLISION ->
              "another record is in its way" + (rule == null ? "" : ", by the rule " + rule);
          case TOO_LONG ->
              isNumber(table, field)
                  ? "it is beyond what the field can keep"
                  : "it is longer than the field has room for";
          case OUT_OF_RANGE -> "it is beyond what the field can keep";
          case MALFORMED -> "it is no value of the field's type";
          case OTHER -> said;
        };
    return new Refusal(line, table == null ? null : table.name(), among, value, reason);
  }

  private static boolean isNumber(@Nullable TableInfo table, @Nullable String field) {
    FieldInfo known = table == null || field == null ? null : table.find(field);
    return known != null && known.type().isNumber();
  }

  private @Nullable String clause(@Nullable TableInfo table) {
    if (table == null || rule == null || kind != Kind.CHECK) {
      return null;
    }
    return table.checks().entrySet().stream()
        .filter(c -> c.getKey().equalsIgnoreCase(rule))
        .map(c -> c.getValue().replaceFirst("(?is)^\\s*CHECK\\s*", ""))
        .findFirst()
        .orElse(null);
  }

  /** The one field that it is about; null if there is none or several. */
  private @Nullable String field(@Nullable TableInfo table, @Nullable String clause) {
    if (table == null || fields.size() > 1) {
      return null;
    }
    if (fields.size() == 1) {
      FieldInfo known = table.find(fields.get(0));
      return known == null ? null : known.name();
    }
    if (kind == Kind.UNIQUE && rule != null) {
      // an index is called as its only field unless it was given a name
      String name =
          rule.equals("PRIMARY") && table.primaryKey().size() == 1
              ? table.primaryKey().get(0)
              : rule;
      FieldInfo known = table.find(name);
      return known != null && known.unique() ? known.name() : null;
    }
    String text = clause == null ? "" : clause.toLowerCase(Locale.ROOT);
    List<String> named =
        table.fields().stream()
            .map(FieldInfo::name)
            .filter(n -> mentions(text, n.toLowerCase(Locale.ROOT)))
            .toList();
    return named.size() == 1 ? named.get(0) : null;
  }

  private static boolean mentions(String text, String name) {
    return Pattern.compile("(?<![\\p{L}\\p{N}_'])" + Pattern.quote(name) + "(?![\\p{L}\\p{N}_'(])")
        .matcher(text)
        .find();
  }
}
