package org.zestyporter.core.formula;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.value.Texts;

/**
 * A word of a formula.
 *
 * @param text what it says, without the signs around it
 * @param number the value of a number
 * @param from its first character
 * @param to the character after its last one
 */
record Token(Sort sort, String text, BigDecimal number, int from, int to) {

  /** The sorts of words. */
  enum Sort {
    NUMBER,
    TEXT,
    COLUMN,
    NAME,
    SIGN,
    END
  }

  private static final String SIGNS = "+-*/^&=<>%();,";

  boolean is(String sign) {
    return sort == Sort.SIGN && text.equals(sign);
  }

  /** Parts a formula into words, the last of them {@link Sort#END}. */
  static List<Token> of(String formula) {
    List<Token> tokens = new ArrayList<>();
    int at = 0;
    while (at < formula.length()) {
      char c = formula.charAt(at);
      if (Character.isWhitespace(c) || c == '\u00A0') {
        at++;
        continue;
      }
      Token token = next(formula, at, c);
      tokens.add(token);
      at = token.to();
    }
    tokens.add(new Token(Sort.END, "", null, formula.length(), formula.length()));
    return tokens;
  }

  private static Token next(String formula, int at, char c) {
    if (c == '"' || c == '“' || c == '”') {
      return enclosed(formula, at, '"', Sort.TEXT);
    }
    if (c == '[') {
      return enclosed(formula, at, ']', Sort.COLUMN);
    }
    if (isDigit(c) || (c == '.' && at + 1 < formula.length() && isDigit(formula.charAt(at + 1)))) {
      return number(formula, at);
    }
    if (Character.isLetter(c) || c == '_') {
      int end = at;
      while (end < formula.length() && isNamePart(formula.charAt(end))) {
        end++;
      }
      return new Token(Sort.NAME, formula.substring(at, end), null, at, end);
    }
    if (formula.startsWith("<>", at)
        || formula.startsWith("<=", at)
        || formula.startsWith(">=", at)) {
      return new Token(Sort.SIGN, formula.substring(at, at + 2), null, at, at + 2);
    }
    if (SIGNS.indexOf(c) >= 0) {
      return new Token(Sort.SIGN, String.valueOf(c), null, at, at + 1);
    }
    throw new FormulaException("“" + c + "” has no meaning here", at, at + 1);
  }

  private static boolean isDigit(char c) {
    return c >= '0' && c <= '9';
  }

  private static boolean isNamePart(char c) {
    return Texts.isOfWord(c) || c == '.' || c == '_';
  }

  /** A text or a column's name; its closing sign is doubled where it is meant itself. */
  private static Token enclosed(String formula, int from, char closing, Sort sort) {
    StringBuilder text = new StringBuilder();
    int at = from + 1;
    while (at < formula.length()) {
      char c = formula.charAt(at);
      boolean closes = c == closing || (closing == '"' && (c == '“' || c == '”'));
      if (!closes) {
        text.append(c);
        at++;
      } else if (at + 1 < formula.length() && formula.charAt(at + 1) == c && c == closing) {
        text.append(c);
        at += 2;
      } else {
        return new Token(sort, text.toString(), null, from, at + 1);
      }
    }
    String what =
        sort == Sort.TEXT
            ? "the text is never closed by \""
            : "the column’s name is never closed by ]";
    throw new FormulaException(what, from, formula.length());
  }

  private static Token number(String formula, int from) {
    int at = digits(formula, from);
    if (at < formula.length() && formula.charAt(at) == '.') {
      at = digits(formula, at + 1);
    }
    if (at < formula.length() && (formula.charAt(at) == 'e' || formula.charAt(at) == 'E')) {
      int sign = at + 1 < formula.length() && "+-".indexOf(formula.charAt(at + 1)) >= 0 ? 1 : 0;
      int end = digits(formula, at + 1 + sign);
      at = end > at + 1 + sign ? end : at;
    }
    String text = formula.substring(from, at);
    try {
      BigDecimal number = new BigDecimal(text);
      if (Math.abs((long) number.precision() - number.scale()) > Numbers.MOST_DIGITS
          || text.length() > Numbers.MOST_DIGITS) {
        throw new FormulaException("the number has too many digits", from, at);
      }
      return new Token(Sort.NUMBER, text, number, from, at);
    } catch (NumberFormatException e) {
      throw new FormulaException("“" + text + "” is no number", from, at);
    }
  }

  private static int digits(String formula, int from) {
    int at = from;
    while (at < formula.length() && isDigit(formula.charAt(at))) {
      at++;
    }
    return at;
  }
}
