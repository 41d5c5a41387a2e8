package org.zestyporter.core.fill;

import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;

/** What a fill makes of a blank or a bad value: a default, a blank, a rejection or a question. */
final class FillPolicies {
  private final Fill fill;

  /** The default as the field keeps it, or why it can't; null if there is none. */
  private final @Nullable Object defaultValue;

  FillPolicies(Fill fill, FieldInfo field) {
    this.fill = fill;
    this.defaultValue =
        fill.defaultValue() == null || fill.defaultValue().isBlank()
            ? null
            : FieldCheck.conform(FieldCheck.fromText(fill.defaultValue(), field), field);
  }

  /**
   * What becomes of a value.
   *
   * @param value the value, null for blank, or a problem
   * @param note what a step changed in a way that is counted; null if nothing
   */
  Filled settle(@Nullable Object value, @Nullable Problem note) {
    if (value instanceof Problem problem) {
      return bad(problem);
    }
    if (value != null) {
      return note == null ? new Filled(value, null, false) : new Filled(value, note, true);
    }
    return switch (fill.whenBlank()) {
      case LEAVE -> note == null ? Filled.BLANK : new Filled(null, note, true);
      case DEFAULT -> withDefault(null);
      case REJECT ->
          new Filled(
              null, new Problem(ProblemCode.REQUIRED, "", "blank, and a value is required"), false);
    };
  }

  private Filled bad(Problem problem) {
    if (problem.code() == ProblemCode.UNKNOWN_LINK
        && fill.origin().link() != null
        && fill.origin().link().whenMissing() == Origin.WhenMissing.BLANK) {
      return new Filled(null, problem, true);
    }
    if (isQuestion(problem)) {
      return new Filled(null, problem, false, true);
    }
    return switch (fill.whenBad()) {
      case ASK, REJECT -> new Filled(null, problem, false);
      case BLANK -> new Filled(null, problem, true);
      case DEFAULT -> withDefault(problem);
    };
  }

  private boolean isQuestion(Problem problem) {
    return switch (problem.code()) {
      case UNKNOWN_WORD -> true;
      case UNKNOWN_CHOICE -> fill.whenBad() == Fill.WhenBad.ASK;
      case UNKNOWN_LINK, SEVERAL_LINKS ->
          fill.origin().link() != null && fill.origin().link().asks();
      default -> false;
    };
  }

  /** The default, counted: what was blank or bad is told in the ledger. */
  private Filled withDefault(@Nullable Problem problem) {
    if (defaultValue instanceof Problem wrong) {
      return new Filled(
          null,
          new Problem(wrong.code(), wrong.value(), "the default can't be taken: " + wrong.reason()),
          false);
    }
    Problem told =
        problem != null
            ? problem
            : new Problem(ProblemCode.DEFAULTED, "", "blank, so the default is used");
    return new Filled(defaultValue, told, true);
  }
}
