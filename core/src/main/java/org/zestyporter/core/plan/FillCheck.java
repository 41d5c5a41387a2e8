package org.zestyporter.core.plan;

import java.util.List;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.formula.FormulaException;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.PorterException;

/** Checks one fill: its origin, its steps, and all that they name. */
final class FillCheck {
  private final FieldInfo field;
  private final List<String> columns;
  private final Predicate<String> hasBook;
  private final List<PlanCheck.Matter> matters;
  private final boolean needed;

  /**
   * @param needed true if the field must have a value
   */
  FillCheck(
      FieldInfo field,
      boolean needed,
      List<String> columns,
      Predicate<String> hasBook,
      List<PlanCheck.Matter> matters) {
    this.field = field;
    this.needed = needed;
    this.columns = columns;
    this.hasBook = hasBook;
    this.matters = matters;
  }

  private void matter(ErrorCode code, String message) {
    matters.add(new PlanCheck.Matter(code, field.name(), message));
  }

  void check(Fill fill) {
    Origin origin = fill.origin();
    if (origin == null) {
      matter(ErrorCode.NO_ORIGIN, field.name() + " has no origin.");
      return;
    }
    origin(origin);
    boolean hasSize =
        switch (field.type()) {
          case WHOLE, DECIMAL, DATE, DATETIME, TIME -> field.link() == null;
          default -> false;
        };
    if (fill.never() != null && !hasSize) {
      matter(
          ErrorCode.NEVER,
          field.name()
              + " is to be never made "
              + (fill.never() == Fill.Never.LOWER ? "lower" : "higher")
              + ", but it is no number and no date.");
    }
    for (String right : fill.farOff() == null ? List.<String>of() : fill.farOff()) {
      if (!right.equals(Fill.ANY) && !(hasSize && field.type().read(right) != null)) {
        matter(
            ErrorCode.FAR_OFF,
            field.name()
                + " is to have \""
                + right
                + "\" though it is far off, which is no number and no day that it can have.");
      }
    }
    for (Step step : fill.steps()) {
      if (step.kind() == null) {
        matter(ErrorCode.STEP_SETTINGS, field.name() + ": A step has no kind.");
      } else if (!step.off()) {
        step(step);
      } else if (step.refusal() != null) {
        matter(ErrorCode.STEP_SETTINGS, field.name() + ": " + step.refusal() + ".");
      }
    }
  }

  private void origin(Origin origin) {
    if (origin instanceof Origin.Column of) {
      column(of.column());
    } else if (origin instanceof Origin.Joined of) {
      template(of.template());
    } else if (origin instanceof Origin.Formula of) {
      formula(of.formula());
    } else if (origin instanceof Origin.Generated of && of.generator() == null) {
      matter(ErrorCode.NO_GENERATOR, "Say what is generated for " + field.name() + ".");
    } else if (origin instanceof Origin.Linked of) {
      link(of);
    } else if (origin instanceof Origin.Database && needed) {
      matter(
          ErrorCode.REQUIRED_FIELD,
          field.name() + " is required and the database has no value of its own for it.");
    }
  }

  private void link(Origin.Linked origin) {
    if (field.link() == null || origin.link() == null) {
      matter(ErrorCode.NO_LINK, field.name() + " is not a link to another table.");
      return;
    }
    if (origin.from() == null) {
      matter(ErrorCode.NO_ORIGIN, "Say by which value " + field.name() + " is looked up.");
    } else {
      origin(origin.from());
    }
    origin.link().also().forEach(a -> column(a.column()));
  }

  private void column(String column) {
    if (column == null || columns.stream().noneMatch(c -> c.equalsIgnoreCase(column))) {
      matter(
          ErrorCode.NO_SUCH_COLUMN,
          "The file has no column “" + column + "”, which fills " + field.name() + ".");
    }
  }

  private void template(String template) {
    List<String> named = template == null ? List.of() : Templates.columns(template);
    if (named.isEmpty()) {
      matter(ErrorCode.NO_COLUMNS, "Say which columns are joined for " + field.name() + ".");
    }
    named.forEach(this::column);
  }

  /** What keeps a step from being compiled keeps its plan from being used. */
  private void step(Step step) {
    try {
      step.compile(new Known());
    } catch (PorterException e) {
      matter(e.code(), field.name() + ": " + e.getMessage());
    }
  }

  private void formula(@Nullable String formula) {
    if (formula == null || formula.isBlank()) {
      matter(ErrorCode.FORMULA, field.name() + " has no formula yet.");
      return;
    }
    try {
      Formula.compile(formula, new Known());
    } catch (FormulaException e) {
      matter(ErrorCode.FORMULA, field.name() + ": " + e.getMessage());
    }
  }

  /** The columns by name only: types are told when the file is at hand. */
  private final class Known implements Names {
    @Override
    public List<String> columns() {
      return columns;
    }

    @Override
    public LocaleSettings locale() {
      return LocaleSettings.DEFAULT;
    }

    @Override
    public UnaryOperator<String> phrasebook(String name) {
      return hasBook.test(name) ? word -> word : null;
    }
  }
}
