package org.zestyporter.core.step;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.formula.Scope;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/** What a step does to a value: gives another value, null for blank, or a problem. */
@FunctionalInterface
public interface StepFunction {

  /**
   * @param value null only if {@link #takesBlank}; never a problem
   */
  @Nullable Object apply(@Nullable Object value, Scope row);

  /** True if it also has something to do where the value is blank. */
  default boolean takesBlank() {
    return false;
  }

  /** Indexes of the columns that it reads beside the value. */
  default List<Integer> columns() {
    return List.of();
  }

  /** True if it gives another value in each row, whatever the columns hold. */
  default boolean perRow() {
    return false;
  }

  /** Changes texts, and leaves numbers and dates of a workbook as they are. */
  static StepFunction onText(UnaryOperator<String> change) {
    return (value, row) -> {
      if (!(value instanceof String text)) {
        return value;
      }
      String changed = change.apply(text);
      return changed.isEmpty() ? null : changed;
    };
  }

  /** Looks into a value, and takes numbers and dates as they are shown. */
  static StepFunction onShown(UnaryOperator<String> change) {
    return (value, row) -> {
      String text = Values.text(value);
      String changed = change.apply(text);
      return changed.equals(text) ? value : changed.isEmpty() ? null : changed;
    };
  }

  /**
   * Computes with numbers; anything else is a problem.
   *
   * @param what what it does, for that problem
   */
  static StepFunction onNumber(String what, UnaryOperator<BigDecimal> change) {
    return (value, row) ->
        value instanceof BigDecimal number
            ? change.apply(number)
            : new Problem(
                ProblemCode.NOT_A_NUMBER,
                Values.text(value),
                "still text, so it can't " + what + "; read it as a number first");
  }

  /** Computes with dates, and with the dates of moments; anything else is a problem. */
  static StepFunction onDate(UnaryOperator<LocalDate> change) {
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

  /** Reads texts as numbers; numbers stay as they are, anything else is a problem. */
  static StepFunction toNumber(Function<String, Object> read) {
    return (value, row) -> {
      if (value instanceof BigDecimal) {
        return value;
      }
      return value instanceof String text
          ? read.apply(text)
          : new Problem(ProblemCode.NOT_A_NUMBER, Values.text(value), "a date, not a number");
    };
  }
}
