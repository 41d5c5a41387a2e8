package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.database.FieldInfo;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Step;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/**
 * A fill made ready for use: a pure function from a cell to a value of its field.
 *
 * <p>Safe for use by several threads.
 */
public final class CompiledFill {
  private static final int REMEMBERED = 20_000;

  private final Fill fill;
  private final FieldInfo field;
  private final int fieldIndex;
  private final int column;
  private final List<StepFunction> steps;
  private final Links links;
  private final Object generated;
  private final Object defaultValue;

  CompiledFill(
      Fill fill,
      FieldInfo field,
      int fieldIndex,
      int column,
      List<StepFunction> steps,
      Links links,
      Object generated) {
    this.fill = fill;
    this.field = field;
    this.fieldIndex = fieldIndex;
    this.column = column;
    this.steps = steps;
    this.links = links;
    this.generated = generated;
    this.defaultValue =
        fill.defaultValue() == null || fill.defaultValue().isBlank()
            ? null
            : FieldCheck.conform(fill.defaultValue(), field);
  }

  public Fill fill() {
    return fill;
  }

  public FieldInfo field() {
    return field;
  }

  /** Index of the field among the table's fields. */
  public int fieldIndex() {
    return fieldIndex;
  }

  /** Index of the source's column; -1 if the value does not come from one. */
  public int column() {
    return column;
  }

  /** True if the value is the row's own line number. */
  boolean isLine() {
    return fill.origin().generator() == Origin.Generator.LINE;
  }

  /** Computes the value for a cell; {@code line} is the row's line number. */
  public Filled compute(Cell cell, long line) {
    return settle(finish(chain(start(cell, line), null)));
  }

  private Object start(Cell cell, long line) {
    if (column >= 0) {
      return cell.value();
    }
    return isLine() ? (Object) java.math.BigDecimal.valueOf(line) : generated;
  }

  /** Runs the steps; notes the value after each step if {@code stages} is given. */
  private Object chain(Object start, List<Object> stages) {
    Object value = start;
    int at = 0;
    for (Step step : fill.steps()) {
      StepFunction function = steps.get(at++);
      if (!step.off() && value != null && !(value instanceof Problem)) {
        value = function.apply(value);
      }
      if (stages != null) {
        stages.add(value);
      }
    }
    return value;
  }

  /** The value after the last step, which a link is looked up by. */
  Object beforeLink(Cell cell) {
    return chain(cell.value(), null);
  }

  private Object finish(Object value) {
    if (value == null || value instanceof Problem) {
      return value;
    }
    Object found = value;
    if (links != null) {
      found = links.find(value);
      if (found instanceof Problem problem) {
        boolean blank =
            problem.code() == ProblemCode.UNKNOWN_LINK
                && fill.origin().link().whenMissing() == Origin.WhenMissing.BLANK;
        return blank ? new Softened(problem) : problem;
      }
    }
    return FieldCheck.conform(found, field);
  }

  private record Softened(Problem problem) {}

  private Filled settle(Object value) {
    if (value instanceof Softened softened) {
      return new Filled(null, softened.problem(), true);
    }
    if (value instanceof Problem problem) {
      return switch (fill.whenBad()) {
        case REJECT -> new Filled(null, problem, false);
        case BLANK -> new Filled(null, problem, true);
        case DEFAULT -> withDefault(problem);
      };
    }
    if (value != null) {
      return new Filled(value, null, false);
    }
    return switch (fill.whenBlank()) {
      case LEAVE -> Filled.BLANK;
      case DEFAULT -> withDefault(null);
      case REJECT ->
          new Filled(
              null, new Problem(ProblemCode.REQUIRED, "", "blank, and a value is required"), false);
    };
  }

  private Filled withDefault(Problem problem) {
    if (defaultValue instanceof Problem wrong) {
      return new Filled(
          null,
          new Problem(wrong.code(), wrong.value(), "the default can't be taken: " + wrong.reason()),
          false);
    }
    return new Filled(defaultValue, problem, problem != null);
  }

  /**
   * Computes one value for each distinct cell.
   *
   * @return a function to be used by one thread
   */
  public Memo memo() {
    return new Memo();
  }

  /** Remembers what was computed for a cell, in bounded memory. */
  public final class Memo {
    private final java.util.HashMap<Cell, Filled> known = new java.util.HashMap<>();

    /** The value for a cell of a row. */
    public Filled get(Cell cell, long line) {
      if (isLine()) {
        return compute(cell, line);
      }
      Filled filled = known.get(cell);
      if (filled == null) {
        if (known.size() >= REMEMBERED) {
          known.clear();
        }
        filled = compute(cell, line);
        known.put(cell, filled);
      }
      return filled;
    }
  }

  /**
   * The stages that a cell's value passes through.
   *
   * @param origin the value as it came, as text; null if blank
   * @param steps the value after each step, as text; null once blank, or from the failing step on
   * @param stoppedAt index of the failing step; the number of steps if the last check failed; -1 if
   *     nothing failed
   * @param result what is written, as text; null if blank or rejected
   * @param problem why it stops or was softened; null if all is well
   */
  public record Trace(
      @Nullable String origin,
      List<String> steps,
      int stoppedAt,
      @Nullable String result,
      @Nullable Problem problem,
      boolean softened) {}

  /** Shows the stages of a cell's value. */
  public Trace trace(Cell cell, long line) {
    List<Object> stages = new ArrayList<>();
    Object start = start(cell, line);
    Object last = chain(start, stages);
    Filled filled = settle(finish(last));
    int stopped = -1;
    List<String> texts = new ArrayList<>();
    for (int i = 0; i < stages.size(); i++) {
      boolean failed = stages.get(i) instanceof Problem;
      if (failed && stopped < 0) {
        stopped = i;
      }
      texts.add(failed ? null : Values.text(stages.get(i)));
    }
    if (filled.problem() != null && stopped < 0) {
      stopped = stages.size();
    }
    String origin = column >= 0 ? cell.text() : Values.text(start);
    return new Trace(
        origin, texts, stopped, Values.text(filled.value()), filled.problem(), filled.softened());
  }
}
