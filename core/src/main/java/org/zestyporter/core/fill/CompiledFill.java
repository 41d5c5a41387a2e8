package org.zestyporter.core.fill;

import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.RowRule;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.step.Noted;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepFunction;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.Values;

/**
 * A fill made ready for use: a pure function from a row to a value of its field.
 *
 * <p>Safe for use by several threads.
 */
public final class CompiledFill {
  private final Fill fill;
  private final FieldInfo field;
  private final int fieldIndex;

  /** Rules of the table that look at this field alone. */
  private final List<RowRule> rules;

  private final List<Integer> columns;
  private final boolean perRow;
  private final Function<Row, Object> start;
  private final List<StepFunction> steps;
  private final @Nullable Links links;
  private final List<Inquiry> beforehand;
  private final @Nullable PlainFill plain;
  private final RunContext context;
  private final FillPolicies policies;

  CompiledFill(
      Fill fill,
      FieldInfo field,
      int fieldIndex,
      List<RowRule> rules,
      List<Integer> columns,
      boolean perRow,
      Function<Row, Object> start,
      List<StepFunction> steps,
      @Nullable Links links,
      List<Inquiry> beforehand,
      @Nullable PlainFill plain,
      RunContext context) {
    this.fill = fill;
    this.field = field;
    this.fieldIndex = fieldIndex;
    this.rules = rules;
    this.columns = columns;
    this.perRow = perRow;
    this.start = start;
    this.steps = steps;
    this.links = links;
    this.beforehand = beforehand;
    this.plain = plain;
    this.context = context;
    this.policies = new FillPolicies(fill, field);
  }

  /** The same with other steps. */
  CompiledFill withSteps(Fill other, List<StepFunction> functions) {
    return new CompiledFill(
        other,
        field,
        fieldIndex,
        rules,
        columns,
        perRow,
        start,
        functions,
        links,
        beforehand,
        null,
        context);
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

  /** Indexes of the source's columns that the value depends on, in order; may be empty. */
  public List<Integer> columns() {
    return columns;
  }

  /** Index of the only column that the value depends on; -1 if it depends on more, or on none. */
  public int column() {
    return columns.size() == 1 && !perRow ? columns.get(0) : -1;
  }

  /** True if rows differ in the value though their columns hold the same. */
  public boolean perRow() {
    return perRow;
  }

  /** True if it has to know something of the application for the rows that it computes. */
  public boolean looksUp() {
    return links != null;
  }

  /** The field of the linked table that its values hold; it must {@link #looksUp look up}. */
  public FieldInfo pointsAt() {
    return links.keyField();
  }

  /** True if it has linked records made that are missing. */
  public boolean makes() {
    return links != null && links.maker() != null;
  }

  /** True if its values depend on the application's records. */
  public boolean dependsOnRecords() {
    return links != null || !beforehand.isEmpty();
  }

  /** Adds what it has to know before any row. */
  public void ask(Asking asking) {
    beforehand.forEach(asking::add);
    if (links != null && links.maker() != null) {
      links.maker().fills().forEach(f -> f.ask(asking));
    }
  }

  /** Adds what it has to know for a row. */
  public void ask(Row row, Asking asking) {
    if (links == null) {
      return;
    }
    Object value = beforeLink(row);
    if (value != null && !(value instanceof Problem)) {
      asking.want(links, links.parts(value, row));
    }
    if (links.maker() != null) {
      links.maker().fills().forEach(f -> f.ask(row, asking));
    }
  }

  /** Adds all that it could ever have to know, up to a limit: for trials of other steps. */
  public void askForAll(Asking asking) {
    ask(asking);
    if (links != null) {
      asking.add(links.inquiryForAll());
      if (links.maker() != null) {
        links.maker().fills().forEach(f -> f.askForAll(asking));
      }
    }
  }

  /** The run that its values are computed for. */
  public RunContext context() {
    return context;
  }

  /** Computes the value for a row. */
  public Filled compute(Row row) {
    return compute(row, null);
  }

  /**
   * Computes the value for a row.
   *
   * @param altered counts, for each step, the values that it changed; null if nobody counts
   */
  public Filled compute(Row row, int @Nullable [] altered) {
    Chain chain = new Chain(row, null, altered);
    return settled(chain, row);
  }

  private Filled settled(Chain chain, Row row) {
    Object value = finish(chain.value, row);
    boolean isMade = chain.note == null && value instanceof PendingRecord && links.maker() != null;
    Problem note = isMade ? links.maker().otherwise((PendingRecord) value, row) : chain.note;
    return policies.settle(value, note);
  }

  /** The value after the last step, which a link is looked up by. */
  Object beforeLink(Row row) {
    return new Chain(row, null, null).value;
  }

  /** A value on its way through the steps; notes the value after each if stages are wanted. */
  private final class Chain {
    private final Object origin;
    private Object value;
    private Problem note;

    Chain(Row row, List<Object> stages, int[] altered) {
      origin = start.apply(row);
      value = origin;
      List<Step> settings = fill.steps();
      for (int i = 0; i < settings.size(); i++) {
        StepFunction step = steps.get(i);
        boolean runs =
            !settings.get(i).off()
                && !(value instanceof Problem)
                && (value != null || step.takesBlank());
        if (runs) {
          Object before = value;
          // steps compute on the office's own clock; a zone lasts only to the field
          value =
              step.apply(
                  value instanceof OffsetDateTime moment ? Storage.local(moment) : value, row);
          if (value instanceof Noted noted) {
            value = noted.value();
            note = note == null ? noted.note() : note;
          }
          if (altered != null && isAltered(before, value)) {
            altered[i]++;
          }
        }
        if (stages != null) {
          stages.add(value);
        }
      }
    }
  }

  /** True if a step made another value that reads differently. */
  private static boolean isAltered(Object before, Object after) {
    if (after == null || after instanceof Problem || after.equals(before)) {
      return false;
    }
    return before instanceof String && after instanceof String
        || !Values.text(after).equals(Values.text(before));
  }

  private Object finish(Object value, Row row) {
    if (value == null || value instanceof Problem) {
      return value;
    }
    if (links == null) {
      return conform(value);
    }
    if (links.awaited() != null) {
      List<Object> parts = links.parts(value, row);
      if (links.known(parts) == null && links.expects(parts)) {
        Filled missing = policies.settle(links.find(value, row), null);
        return new Awaited(
            links.table(), links.keyField(), links.awaited(), parts, missing, Values.text(value));
      }
    }
    Object found = links.find(value, row);
    return found instanceof Problem || found instanceof Pending ? found : conform(found);
  }

  /** The value as the field takes it, or the problem that keeps it out. */
  private Object conform(Object value) {
    Object checked = FieldCheck.conform(value, field);
    if (rules.isEmpty() || checked == null || checked instanceof Problem) {
      return checked;
    }
    Object[] values = new Object[fieldIndex + 1];
    values[fieldIndex] = checked;
    for (RowRule rule : rules) {
      if (!rule.holds(values)) {
        String reason = RowRule.broken(rule.text());
        return new Problem(ProblemCode.CHECK, Values.text(checked), reason);
      }
    }
    return checked;
  }

  /**
   * Lets its link await no records but some.
   *
   * @param values what they will be found by, by the fields of {@link #awaited}; null for any
   */
  public void expect(@Nullable Collection<List<Object>> values) {
    if (links != null && values != null) {
      links.expect(values);
    }
  }

  /** How rows of the same source are looked up that its link may await; null if it awaits none. */
  public @Nullable LinkKey awaited() {
    return links == null ? null : links.awaited();
  }

  /** The way of its values that need no chain; null if it has none. */
  @Nullable PlainFill plain() {
    return plain;
  }

  /**
   * The stages that a row's value passes through.
   *
   * @param cells the cells of the columns that it depends on, in their order
   * @param origin the value as it came, as text; null if blank, or if it can't be computed
   * @param steps the value after each step, as text; null once blank, or from the failing step on
   * @param stoppedAt index of the failing step; the number of steps if the last check failed; -1 if
   *     nothing failed
   * @param result what is written, as text; null if blank or rejected
   * @param problem why it stops or was softened; null if all is well
   * @param question true if one answer settles it for all its rows
   */
  public record Trace(
      List<String> cells,
      @Nullable String origin,
      List<String> steps,
      int stoppedAt,
      @Nullable String result,
      @Nullable Problem problem,
      boolean softened,
      boolean question) {}

  /** Shows the stages of a row's value. */
  public Trace trace(Row row) {
    List<Object> stages = new ArrayList<>();
    Chain chain = new Chain(row, stages, null);
    Filled filled = settled(chain, row);
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
    boolean single = column() >= 0 && fill.origin().column() != null;
    Object origin = chain.origin;
    return new Trace(
        columns.stream().map(c -> row.cell(c).text()).toList(),
        single ? row.cell(column()).text() : origin instanceof Problem ? null : Values.text(origin),
        texts,
        stopped,
        Values.text(filled.value()),
        filled.problem(),
        filled.softened(),
        filled.question());
  }
}
