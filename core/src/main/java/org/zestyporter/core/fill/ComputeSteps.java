package org.zestyporter.core.fill;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.Period;
import java.time.temporal.TemporalAdjusters;
import java.util.function.UnaryOperator;
import org.zestyporter.core.formula.Formats;
import org.zestyporter.core.plan.Step;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Measures;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/** Steps that compute with numbers and dates, and write them as text. */
final class ComputeSteps {
  private ComputeSteps() {}

  static StepFunction compile(Step step) {
    return switch (step.kind()) {
      case MULTIPLY -> {
        BigDecimal by = new BigDecimal(step.setting("by"));
        yield number("multiply", n -> n.multiply(by));
      }
      case ADD -> {
        BigDecimal added = new BigDecimal(step.setting("number"));
        yield number("add", n -> n.add(added));
      }
      case ROUND -> {
        int places = Steps.whole(step, "places");
        RoundingMode mode = mode(step.setting("how"));
        yield number("round", n -> n.setScale(places, mode));
      }
      case CONVERT_UNIT -> convert(step.setting("from"), step.setting("to"));
      case SHIFT_DATE -> shift(Steps.whole(step, "by"), step.setting("unit"));
      case PERIOD_EDGE -> edge(step.setting("which"), step.setting("of"));
      case FORMAT -> format(step.setting("format"));
      default -> throw new IllegalArgumentException(step.kind().word());
    };
  }

  private static RoundingMode mode(String how) {
    return "up".equals(how)
        ? RoundingMode.UP
        : "down".equals(how) ? RoundingMode.DOWN : RoundingMode.HALF_UP;
  }

  private static StepFunction number(String what, UnaryOperator<BigDecimal> change) {
    return (value, row) ->
        value instanceof BigDecimal number
            ? change.apply(number)
            : new Problem(
                ProblemCode.NOT_A_NUMBER,
                Values.text(value),
                "still text, so it can't " + what + "; read it as a number first");
  }

  private static StepFunction convert(String from, String to) {
    Measures.Conversion conversion = Measures.conversion(from, to);
    if (conversion == null) {
      throw ErrorCode.STEP_SETTINGS.error(
          "Convert unit: "
              + Measures.find(from).title()
              + " and "
              + Measures.find(to).title()
              + " don't measure the same.");
    }
    return number("convert", conversion::apply);
  }

  private static StepFunction date(UnaryOperator<LocalDate> change) {
    return (value, row) -> {
      if (value instanceof LocalDate day) {
        return change.apply(day);
      }
      if (value instanceof LocalDateTime moment) {
        return LocalDateTime.of(change.apply(moment.toLocalDate()), moment.toLocalTime());
      }
      return new Problem(
          ProblemCode.NOT_A_DATE, Values.text(value), "still text; read it as a date first");
    };
  }

  private static StepFunction shift(int by, String unit) {
    Period period =
        switch (unit) {
          case "weeks" -> Period.ofWeeks(by);
          case "months" -> Period.ofMonths(by);
          case "years" -> Period.ofYears(by);
          default -> Period.ofDays(by);
        };
    return date(d -> d.plus(period));
  }

  private static StepFunction edge(String which, String of) {
    boolean first = which.equals("first");
    if (of.equals("year")) {
      return date(
          d ->
              d.with(
                  first ? TemporalAdjusters.firstDayOfYear() : TemporalAdjusters.lastDayOfYear()));
    }
    return date(
        d ->
            d.with(
                first ? TemporalAdjusters.firstDayOfMonth() : TemporalAdjusters.lastDayOfMonth()));
  }

  private static StepFunction format(String format) {
    return (value, row) -> {
      Object text = Formats.write(value, format);
      return "".equals(text) ? null : text;
    };
  }
}
