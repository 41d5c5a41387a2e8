package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a check constraint says of one field, where it is a list of texts or a range of numbers.
 *
 * <p>Other constraints can't be told beforehand; the database itself refuses what breaks them.
 */
record CheckRule(String field, List<String> choices, BigDecimal least, BigDecimal greatest) {
  private static final Pattern CAST =
      Pattern.compile(
          "::(?:character varying|double precision|[a-z_]+)(?:\\(\\d+(?:,\\s*\\d+)?\\))?(?:\\[])?");
  private static final Pattern CHOICES =
      Pattern.compile(
          "(?is)[\\s(]*[\"`]?(\\w+)[\"`]?[\\s)]*(?:IN\\s*\\(|=\\s*ANY\\s*\\(+\\s*ARRAY\\s*\\[)"
              + "((?:\\s*\\(?'(?:[^']|'')*'\\)?\\s*,?)+)[\\])\\s]*");
  private static final Pattern LITERAL = Pattern.compile("'((?:[^']|'')*)'");
  private static final Pattern BETWEEN =
      Pattern.compile(
          "(?i)[\"`]?(\\w+)[\"`]?\\s+BETWEEN\\s+\\(?(-?\\d+(?:\\.\\d+)?)\\)?\\s+AND\\s+\\(?(-?\\d+(?:\\.\\d+)?)\\)?");
  private static final Pattern BOUND =
      Pattern.compile("[\"`]?(\\w+)[\"`]?\\)?\\s*(>=|<=)\\s*\\(?(-?\\d+(?:\\.\\d+)?)\\)?");

  /** Both rules at once; the narrower bound counts. */
  CheckRule and(CheckRule other) {
    if (other == null) {
      return this;
    }
    List<String> both = choices == null ? other.choices : choices;
    return new CheckRule(
        field,
        both,
        least == null || other.least != null && other.least.compareTo(least) > 0
            ? other.least
            : least,
        greatest == null || other.greatest != null && other.greatest.compareTo(greatest) < 0
            ? other.greatest
            : greatest);
  }

  /** The rule in a constraint's text, or null if it is of another kind. */
  static CheckRule parse(String clause) {
    String text = CAST.matcher(clause).replaceAll("").replaceFirst("(?i)^\\s*CHECK\\s*", "");
    Matcher choices = CHOICES.matcher(text);
    if (choices.matches()) {
      List<String> values = new ArrayList<>();
      Matcher literal = LITERAL.matcher(choices.group(2));
      while (literal.find()) {
        values.add(literal.group(1).replace("''", "'"));
      }
      return new CheckRule(choices.group(1), values, null, null);
    }
    return range(text);
  }

  private static CheckRule range(String text) {
    String field = null;
    BigDecimal least = null;
    BigDecimal greatest = null;
    String rest = text;
    Matcher between = BETWEEN.matcher(rest);
    if (between.find()) {
      field = between.group(1);
      least = new BigDecimal(between.group(2));
      greatest = new BigDecimal(between.group(3));
      rest = between.replaceFirst("");
    } else {
      Matcher bound = BOUND.matcher(rest);
      while (bound.find()) {
        if (field != null && !field.equalsIgnoreCase(bound.group(1))) {
          return null;
        }
        field = bound.group(1);
        BigDecimal value = new BigDecimal(bound.group(3));
        if (">=".equals(bound.group(2))) {
          least = value;
        } else {
          greatest = value;
        }
      }
      rest = bound.replaceAll("");
    }
    boolean onlyThat = rest.replaceAll("(?i)\\bAND\\b|[()\\s]", "").isEmpty();
    return field == null || !onlyThat ? null : new CheckRule(field, null, least, greatest);
  }
}
