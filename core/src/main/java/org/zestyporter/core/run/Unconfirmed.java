package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.run.RunReport.Question;
import org.zestyporter.core.source.Ambiguity;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.WarningCode;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.ProblemCode;

/**
 * What of a plan is only supposed, and has to be confirmed by somebody before anything is written:
 * fills that a draft guessed, and dates and numbers that read in two ways. A rehearsal supposes
 * them and asks.
 */
public final class Unconfirmed {
  private final List<Supposed> all = new ArrayList<>();

  /** Something supposed, and what is said where it must not be. */
  private record Supposed(Question question, PorterException refusal) {}

  public Unconfirmed(OpenedPlan opened) {
    SourceTable source = opened.source();
    List<Ambiguity> ambiguities = source.ambiguities();
    for (Destination destination : opened.plan().destinations()) {
      TableInfo table = opened.table(destination);
      for (Fill fill : destination.fills()) {
        if (fill.awaitsConfirmation()) {
          all.add(guess(destination, fill, source.rowCount()));
        }
        for (Ambiguity ambiguity : ambiguities) {
          FieldInfo field = table.field(fill.field());
          if (reads(fill, ambiguity.column()) && follows(fill, field, ambiguity.code())) {
            all.add(ambiguous(destination, fill, ambiguity));
          }
        }
      }
    }
  }

  /** What is asked, each with its rows. */
  Stream<Question> questions() {
    return all.stream().map(Supposed::question);
  }

  /**
   * Throws if anything is only supposed.
   *
   * @throws PorterException with code {@code guess}, {@code ambiguous-dates} or {@code
   *     ambiguous-decimals}
   */
  public void require() {
    if (!all.isEmpty()) {
      throw all.get(0).refusal();
    }
  }

  private static boolean reads(Fill fill, String column) {
    return fill.columnsRead().anyMatch(column::equalsIgnoreCase);
  }

  /** True if what a fill makes of a column depends on how the file writes dates, or numbers. */
  private static boolean follows(Fill fill, FieldInfo field, WarningCode code) {
    boolean dates = code == WarningCode.AMBIGUOUS_DATES;
    boolean computed = fill.origin().lookedUpBy() instanceof Origin.Formula;
    boolean typed =
        field != null
            && switch (field.type()) {
              case DATE, DATETIME -> dates;
              case WHOLE, DECIMAL -> !dates;
              default -> false;
            };
    return computed && typed
        || fill.steps().stream().anyMatch(dates ? Step::followsDateOrder : Step::followsDecimal);
  }

  private static Supposed guess(Destination destination, Fill fill, long rows) {
    String always = fill.origin() instanceof Origin.Fixed fixed ? fixed.value() : null;
    String from = always == null ? fill.origin().column() : always;
    return new Supposed(
        new Question(ProblemCode.GUESS, destination.label(), fill.field(), from, rows),
        ErrorCode.GUESS.error(
            fill.field()
                + " of "
                + destination.label()
                + (always == null ? " is filled from “" : " is always “")
                + from
                + "” by a guess that nobody has confirmed.",
            "Confirm it at Fill, or fill it otherwise. In the plan's document, take its"
                + " \"guess\" away once you have looked at it."));
  }

  private static Supposed ambiguous(Destination destination, Fill fill, Ambiguity ambiguity) {
    boolean dates = ambiguity.code() == WarningCode.AMBIGUOUS_DATES;
    ProblemCode code = dates ? ProblemCode.AMBIGUOUS_DATES : ProblemCode.AMBIGUOUS_DECIMALS;
    Question question =
        new Question(code, destination.label(), fill.field(), ambiguity.sample(), ambiguity.rows());
    String what = "“" + ambiguity.sample() + "” of the column “" + ambiguity.column() + "” ";
    return new Supposed(
        question,
        dates
            ? ErrorCode.AMBIGUOUS_DATES.error(
                what + "may have the day or the month first, and no date of the file tells which.",
                "Say which comes first at Read or Rehearse. In the plan's document, the reading's"
                    + " \"locale\" says it: {\"decimal\": \".\", \"dateOrder\": \"day-month-year\"}.")
            : ErrorCode.AMBIGUOUS_DECIMALS.error(
                what
                    + "may have a sign between thousands or before decimals, and no number of the"
                    + " file tells which.",
                "Say which at Read or Rehearse. In the plan's document, the reading's \"locale\""
                    + " says it: {\"decimal\": \",\", \"dateOrder\": \"day-month-year\"}."));
  }
}
