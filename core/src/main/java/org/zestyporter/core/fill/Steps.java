package org.zestyporter.core.fill;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Locale;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.zestyporter.core.plan.Step;
import org.zestyporter.core.plan.StepKind;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueReader;
import org.zestyporter.core.value.Values;

/** The functions behind the kinds of steps. */
final class Steps {
  private static final Pattern SPACES = Pattern.compile("[\\s\\u00A0\\u202F]+");
  private static final Pattern ENDS =
      Pattern.compile("^[\\s\\u00A0\\u202F]+|[\\s\\u00A0\\u202F]+$");

  private Steps() {}

  static StepFunction compile(Step step, LocaleSettings locale) {
    StepKind kind = step.kind();
    kind.require(step);
    return switch (kind) {
      case TRIM -> text(s -> ENDS.matcher(s).replaceAll(""));
      case COLLAPSE_SPACES -> text(s -> SPACES.matcher(s).replaceAll(" "));
      case CASE -> text(changeCase(step.setting("to")));
      case REPLACE -> replace(step.setting("from"), step.setting("to"));
      case READ_NUMBER -> readNumber(step, locale);
      case READ_DATE -> readDate(step, locale);
      case READ_BOOLEAN ->
          value -> value instanceof Boolean ? value : ValueReader.truth(Values.text(value));
      case MULTIPLY -> multiply(new BigDecimal(step.setting("by")));
      case ROUND -> round(Integer.parseInt(step.setting("places")));
      case CUT -> cut(Integer.parseInt(step.setting("length")));
    };
  }

  /** Text steps leave numbers and dates of a workbook as they are. */
  private static StepFunction text(UnaryOperator<String> change) {
    return value -> {
      if (!(value instanceof String text)) {
        return value;
      }
      String changed = change.apply(text);
      return changed.isEmpty() ? null : changed;
    };
  }

  private static UnaryOperator<String> changeCase(String to) {
    return switch (to) {
      case "upper" -> s -> s.toUpperCase(Locale.ROOT);
      case "lower" -> s -> s.toLowerCase(Locale.ROOT);
      default -> Steps::titleCase;
    };
  }

  private static String titleCase(String text) {
    StringBuilder changed = new StringBuilder(text.length());
    boolean start = true;
    for (int i = 0; i < text.length(); ) {
      int c = text.codePointAt(i);
      changed.appendCodePoint(start ? Character.toTitleCase(c) : Character.toLowerCase(c));
      start = !Character.isLetterOrDigit(c) && c != '\'' && c != '’';
      i += Character.charCount(c);
    }
    return changed.toString();
  }

  private static StepFunction replace(String from, String to) {
    return value -> Values.text(value).equalsIgnoreCase(from) ? to : value;
  }

  private static StepFunction readNumber(Step step, LocaleSettings locale) {
    String decimal = step.setting("decimal") == null ? locale.decimal() : step.setting("decimal");
    return value -> {
      if (value instanceof BigDecimal) {
        return value;
      }
      return value instanceof String text
          ? ValueReader.number(text, decimal)
          : new Problem(ProblemCode.NOT_A_NUMBER, Values.text(value), "a date, not a number");
    };
  }

  private static StepFunction readDate(Step step, LocaleSettings locale) {
    DateOrder order = StepKind.order(step) == null ? locale.dateOrder() : StepKind.order(step);
    String century = step.setting("century") == null ? locale.century() : step.setting("century");
    return value -> {
      if (value instanceof BigDecimal number) {
        return new Problem(ProblemCode.NOT_A_DATE, Values.text(number), "a number, not a date");
      }
      if (!(value instanceof String text)) {
        return value;
      }
      boolean time = text.indexOf(':') > 0;
      return time
          ? ValueReader.dateTime(text, order, century)
          : ValueReader.date(text, order, century);
    };
  }

  private static StepFunction multiply(BigDecimal by) {
    return value ->
        value instanceof BigDecimal number ? number.multiply(by) : needsNumber(value, "multiply");
  }

  private static StepFunction round(int places) {
    return value ->
        value instanceof BigDecimal number
            ? number.setScale(places, RoundingMode.HALF_UP)
            : needsNumber(value, "round");
  }

  private static Problem needsNumber(Object value, String step) {
    return new Problem(
        ProblemCode.NOT_A_NUMBER,
        Values.text(value),
        "still text, so it can't " + step + "; read it as a number first");
  }

  private static StepFunction cut(int length) {
    return value ->
        value instanceof String text && text.codePointCount(0, text.length()) > length
            ? text.substring(0, text.offsetByCodePoints(0, length))
            : value;
  }
}
