package org.zestyporter.core.application.jdbc;

import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import net.sf.jsqlparser.JSQLParserException;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.operators.relational.ParenthesedExpressionList;
import net.sf.jsqlparser.parser.CCJSqlParserUtil;
import net.sf.jsqlparser.parser.TokenMgrException;
import org.jspecify.annotations.Nullable;

/** The texts of check constraints: made plainer, and parsed. */
final class SqlText {
  private static final int LONGEST = 4_000;

  /** A quote inside a text stands there twice, which makes two of one. */
  private static final Pattern QUOTED = Pattern.compile("'[^']*+'|\"[^\"]*+\"|`[^`]*+`");

  private static final Pattern UNICODE = Pattern.compile("U&((?:'[^']*+')++|(?:\"[^\"]*+\")++)");

  private static final Pattern NUMBERED =
      Pattern.compile("\\\\(?:\\\\|[0-9a-fA-F]{4}|\\+(?:0[0-9a-fA-F]|10)[0-9a-fA-F]{4})");

  private static final Pattern CAST =
      Pattern.compile(
          "::\\s*(?:character varying|double precision|(?:time|timestamp) with(?:out)? time zone"
              + "|[a-z_]\\w*)(?:\\(\\d+(?:,\\s*\\d+)?\\))?(?:\\[])?");
  private static final Pattern VALUE = Pattern.compile("(?i)\\bVALUE\\b");
  private static final String LIST = "((?:[^'\\[\\]]++|'[^']*+')*+)";
  private static final Pattern ANY =
      Pattern.compile(
          "(= ANY|<> ALL) (?:\\(\\(ARRAY\\[" + LIST + "]\\)\\)|\\(ARRAY\\[" + LIST + "]\\))");

  private SqlText() {}

  /** A constraint of PostgreSQL without its casts, in the words that other databases use. */
  static String ofPostgres(String constraint) {
    if (constraint.length() > LONGEST) {
      return constraint;
    }
    String text =
        outsideQuotes(
            constraint,
            part ->
                CAST.matcher(part)
                    .replaceAll("")
                    .replace("!~~*", "NOT ILIKE")
                    .replace("!~~", "NOT LIKE")
                    .replace("~~*", "ILIKE")
                    .replace("~~", "LIKE"));
    text =
        ANY.matcher(text)
            .replaceAll(
                m ->
                    Matcher.quoteReplacement(
                        (m.group(1).startsWith("=") ? "IN (" : "NOT IN (")
                            + (m.group(2) == null ? m.group(3) : m.group(2))
                            + ")"));
    return bare(text);
  }

  /**
   * A text of H2 with the letters that it writes as numbers, as it does with all that is not ASCII:
   * {@code U&"\0643\0645"} (ISO/IEC 9075-2, 5.3 and 5.4).
   */
  static String ofH2(String text) {
    return UNICODE
        .matcher(text)
        .replaceAll(
            m ->
                Matcher.quoteReplacement(
                    NUMBERED.matcher(m.group(1)).replaceAll(n -> letter(n.group()))));
  }

  private static String letter(String numbered) {
    String number = numbered.substring(1);
    return Matcher.quoteReplacement(
        number.equals("\\")
            ? number
            : Character.toString(Integer.parseInt(number.replace("+", ""), 16)));
  }

  /** A check of a domain, said of what stands for its VALUE. */
  static String withValue(String check, String value) {
    return outsideQuotes(
        check, part -> VALUE.matcher(part).replaceAll(Matcher.quoteReplacement(value)));
  }

  private static String outsideQuotes(String text, UnaryOperator<String> change) {
    StringBuilder changed = new StringBuilder();
    Matcher quoted = QUOTED.matcher(text);
    int from = 0;
    while (quoted.find()) {
      changed.append(change.apply(text.substring(from, quoted.start()))).append(quoted.group());
      from = quoted.end();
    }
    return changed.append(change.apply(text.substring(from))).toString();
  }

  /** Without the word CHECK and the brackets around all of it. */
  static String bare(String constraint) {
    String text = constraint.replaceFirst("(?is)^\\s*CHECK\\s*(?=\\()", "").strip();
    while (text.startsWith("(") && closes(text) == text.length() - 1) {
      text = text.substring(1, text.length() - 1).strip();
    }
    return text;
  }

  private static boolean isBalanced(String text) {
    String plain = plain(text);
    return plain.chars().filter(c -> c == '(').count()
        == plain.chars().filter(c -> c == ')').count();
  }

  /** The text with something else in the place of each quoted letter. */
  private static String plain(String text) {
    return QUOTED.matcher(text).replaceAll(m -> "x".repeat(m.group().length()));
  }

  /** Where the first bracket is closed. */
  private static int closes(String text) {
    String plain = plain(text);
    int depth = 0;
    for (int i = 0; i < plain.length(); i++) {
      char c = plain.charAt(i);
      depth += c == '(' ? 1 : c == ')' ? -1 : 0;
      if (depth == 0) {
        return i;
      }
    }
    return -1;
  }

  /** What a constraint says; null if it is not understood. */
  static @Nullable Expression parse(String constraint) {
    if (constraint.length() > LONGEST || !isBalanced(constraint)) {
      return null;
    }
    try {
      // without looking far ahead, which takes for ever where nothing comes of it
      return inner(
          CCJSqlParserUtil.parseCondExpression(
              bare(constraint), false, parser -> parser.withAllowComplexParsing(false)));
    } catch (JSQLParserException | TokenMgrException e) {
      return null;
    }
  }

  /** An expression without the brackets around it. */
  static Expression inner(Expression expression) {
    Expression inner = expression;
    while (inner instanceof ParenthesedExpressionList<?> list && list.size() == 1) {
      inner = list.get(0);
    }
    return inner;
  }

  /** A name without its quotes. */
  static String name(String quoted) {
    boolean is = quoted.length() > 1 && "\"`[".indexOf(quoted.charAt(0)) >= 0;
    return is ? quoted.substring(1, quoted.length() - 1).replace("\"\"", "\"") : quoted;
  }
}
