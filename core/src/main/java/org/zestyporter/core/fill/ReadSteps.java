package org.zestyporter.core.fill;

import java.math.BigDecimal;
import java.time.LocalTime;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.zestyporter.core.formula.Formats;
import org.zestyporter.core.plan.Step;
import org.zestyporter.core.plan.StepKind;
import org.zestyporter.core.value.Codes;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.Measures;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueReader;
import org.zestyporter.core.value.Values;

/** Steps that read a text as a type. What has the type already stays as it is. */
final class ReadSteps {
  private static final Pattern CLOCK =
      Pattern.compile(
          "(?i)(\\d{1,2})(?:[:.h](\\d{2}))?(?:[:.](\\d{2}))?\\s*([ap])?\\.?(?:m\\.?)?h?");
  private static final Pattern DIGITS = Pattern.compile("\\d{4}|\\d{6}");
  private static final Pattern CURRENCY = Pattern.compile("[\\p{L}\\p{Sc}]+\\.?");
  private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);

  private ReadSteps() {}

  static StepFunction compile(Step step, LocaleSettings locale) {
    String decimal = step.setting("decimal") == null ? locale.decimal() : step.setting("decimal");
    return switch (step.kind()) {
      case READ_NUMBER -> number(decimal);
      case READ_MONEY -> money(decimal, step.setting("currency"));
      case READ_PERCENT -> percent(decimal, "points".equals(step.setting("as")));
      case READ_MEASURE -> measure(step.setting("in"), decimal);
      case READ_DATE -> date(step, locale);
      case READ_TIME -> (value, row) -> value instanceof String text ? time(text) : value;
      case READ_BOOLEAN -> truth(step.setting("yes"), step.setting("no"));
      default -> throw new IllegalArgumentException(step.kind().word());
    };
  }

  private static Problem noNumber(Object value) {
    return new Problem(ProblemCode.NOT_A_NUMBER, Values.text(value), "a date, not a number");
  }

  private static StepFunction number(String decimal) {
    return (value, row) -> {
      if (value instanceof BigDecimal) {
        return value;
      }
      return value instanceof String text ? ValueReader.number(text, decimal) : noNumber(value);
    };
  }

  private static StepFunction money(String decimal, String currency) {
    Object wanted = currency == null ? null : Codes.currency(currency);
    return (value, row) -> {
      if (!(value instanceof String text)) {
        return value instanceof BigDecimal ? value : noNumber(value);
      }
      Object amount = ValueReader.number(text, decimal);
      Matcher sign = CURRENCY.matcher(text);
      if (amount instanceof Problem || wanted == null || !sign.find()) {
        return amount;
      }
      Object found = Codes.currency(sign.group());
      return found.equals(wanted)
          ? amount
          : new Problem(
              ProblemCode.WRONG_TYPE, text, "“" + sign.group() + "” is not sure to be " + wanted);
    };
  }

  private static StepFunction percent(String decimal, boolean points) {
    return (value, row) -> {
      if (value instanceof BigDecimal) {
        return value;
      }
      if (!(value instanceof String text)) {
        return noNumber(value);
      }
      boolean signed = text.contains("%");
      Object number = ValueReader.number(text.replace("%", "").strip(), decimal);
      if (!(number instanceof BigDecimal n)) {
        return number instanceof Problem p ? new Problem(p.code(), text, p.reason()) : number;
      }
      return points || !signed ? n : n.divide(HUNDRED);
    };
  }

  private static StepFunction measure(String unit, String decimal) {
    return (value, row) -> {
      if (value instanceof BigDecimal) {
        return value;
      }
      return value instanceof String text ? Measures.read(text, unit, decimal) : noNumber(value);
    };
  }

  private static StepFunction date(Step step, LocaleSettings locale) {
    DateOrder order = StepKind.order(step) == null ? locale.dateOrder() : StepKind.order(step);
    String century = step.setting("century") == null ? locale.century() : step.setting("century");
    String pattern = step.setting("pattern");
    return (value, row) -> {
      if (value instanceof BigDecimal number && pattern == null) {
        return new Problem(ProblemCode.NOT_A_DATE, Values.text(number), "a number, not a date");
      }
      String text = value instanceof BigDecimal number ? Values.plain(number) : null;
      text = value instanceof String s ? s : text;
      if (text == null) {
        return value;
      }
      if (pattern != null) {
        return Formats.readDate(text, pattern);
      }
      return text.indexOf(':') > 0
          ? ValueReader.dateTime(text, order, century)
          : ValueReader.date(text, order, century);
    };
  }

  private static Object time(String text) {
    String trimmed = text.strip();
    Object plain = ValueReader.time(trimmed);
    if (!(plain instanceof Problem)) {
      return plain;
    }
    String spread =
        DIGITS.matcher(trimmed).matches() ? trimmed.replaceAll("(\\d\\d)(?=\\d)", "$1:") : trimmed;
    Matcher clock = CLOCK.matcher(spread);
    if (!clock.matches() || (clock.group(2) == null && clock.group(4) == null)) {
      return plain;
    }
    int hour = Integer.parseInt(clock.group(1));
    int minute = clock.group(2) == null ? 0 : Integer.parseInt(clock.group(2));
    int second = clock.group(3) == null ? 0 : Integer.parseInt(clock.group(3));
    if (clock.group(4) != null) {
      if (hour < 1 || hour > 12) {
        return plain;
      }
      hour = hour % 12 + (clock.group(4).equalsIgnoreCase("p") ? 12 : 0);
    }
    return hour < 24 && minute < 60 && second < 60 ? LocalTime.of(hour, minute, second) : plain;
  }

  private static StepFunction truth(String yes, String no) {
    Set<String> yesses = words(yes);
    Set<String> noes = words(no);
    return (value, row) -> {
      if (value instanceof Boolean) {
        return value;
      }
      String text = Values.text(value);
      String word = Steps.trim(text).toLowerCase(Locale.ROOT);
      if (yesses.contains(word) || noes.contains(word)) {
        return yesses.contains(word);
      }
      return ValueReader.truth(text);
    };
  }

  private static Set<String> words(String list) {
    return list == null
        ? Set.of()
        : Stream.of(list.split("\\|"))
            .map(w -> Steps.trim(w).toLowerCase(Locale.ROOT))
            .collect(Collectors.toSet());
  }
}
