package org.zestyporter.core.formula;

import java.math.BigDecimal;
import java.time.LocalTime;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/**
 * Comparisons. Capitals don't matter; a text beside a number or a date is read as one; with a blank
 * there is no earlier or later, so the answer is blank too.
 */
final class Comparing {
  private Comparing() {}

  /** The answer to {@code a sign b}: true, false, blank, or a problem. */
  static Object compare(
      String sign, Object a, Object b, LocaleSettings localeOfA, LocaleSettings localeOfB) {
    if (a instanceof Problem || b instanceof Problem) {
      return a instanceof Problem ? a : b;
    }
    boolean equality = sign.equals("=") || sign.equals("<>");
    if (isBlank(a) || isBlank(b)) {
      return equality ? (Object) (sign.equals("=") == (isBlank(a) && isBlank(b))) : null;
    }
    Object left = like(a, b, localeOfA);
    Object right = like(b, a, localeOfB);
    if (left instanceof Problem || right instanceof Problem) {
      return equality ? (Object) sign.equals("<>") : left instanceof Problem ? left : right;
    }
    Integer order = order(left, right);
    if (order == null) {
      return equality
          ? (Object) sign.equals("<>")
          : new Problem(
              ProblemCode.FORMULA,
              Values.text(a),
              "can’t be compared with “" + Reads.text(b) + "”");
    }
    return switch (sign) {
      case "=" -> order == 0;
      case "<>" -> order != 0;
      case "<" -> order < 0;
      case "<=" -> order <= 0;
      case ">" -> order > 0;
      default -> order >= 0;
    };
  }

  private static boolean isBlank(Object value) {
    return value == null || value.equals("");
  }

  /** A text read as the type of what it is compared with. */
  private static Object like(Object value, Object other, LocaleSettings locale) {
    if (!(value instanceof String)) {
      return value;
    }
    if (other instanceof BigDecimal) {
      return Reads.number(value, locale);
    }
    if (Reads.isDate(other)) {
      return Reads.date(value, locale);
    }
    if (other instanceof LocalTime) {
      return Reads.time(value, locale);
    }
    return other instanceof Boolean ? Reads.logical(value) : value;
  }

  private static Integer order(Object a, Object b) {
    if (a instanceof BigDecimal x && b instanceof BigDecimal y) {
      return x.compareTo(y);
    }
    if (a instanceof String x && b instanceof String y) {
      return x.compareToIgnoreCase(y);
    }
    if (Reads.isDate(a) && Reads.isDate(b)) {
      return Reads.moment(a).compareTo(Reads.moment(b));
    }
    if (a instanceof LocalTime x && b instanceof LocalTime y) {
      return x.compareTo(y);
    }
    return a instanceof Boolean x && b instanceof Boolean y ? x.compareTo(y) : null;
  }
}
