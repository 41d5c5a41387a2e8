package org.zestyporter.core.plan;

import java.util.List;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.formula.FormulaException;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.LocaleSettings;

/** Checks one fill: its origin, its steps, and all that they name. */
final class FillCheck {
  private final FieldInfo field;
  private final List<String> columns;
  private final Predicate<String> hasBook;
  private final List<PlanCheck.Matter> matters;

  FillCheck(
      FieldInfo field,
      List<String> columns,
      Predicate<String> hasBook,
      List<PlanCheck.Matter> matters) {
    this.field = field;
    this.columns = columns;
    this.hasBook = hasBook;
    this.matters = matters;
  }

  private void matter(ErrorCode code, String message) {
    matters.add(new PlanCheck.Matter(code, field.name(), message));
  }

  void check(Fill fill) {
    Origin origin = fill.origin();
    if (origin == null || origin.kind() == null) {
      matter(ErrorCode.NO_ORIGIN, field.name() + " has no origin.");
      return;
    }
    origin(origin);
    for (Step step : fill.steps()) {
      String refusal = step.kind() == null ? "A step has no kind" : step.kind().refusal(step);
      if (refusal != null) {
        matter(ErrorCode.STEP_SETTINGS, field.name() + ": " + refusal + ".");
      } else if (!step.off()) {
        step(step);
      }
    }
  }

  private void origin(Origin origin) {
    switch (origin.kind()) {
      case COLUMN -> column(origin.column());
      case JOINED -> template(origin.template());
      case FORMULA -> formula(origin.formula(), columns);
      case GENERATED -> {
        if (origin.generator() == null) {
          matter(ErrorCode.NO_GENERATOR, "Say what is generated for " + field.name() + ".");
        }
      }
      case LINK -> link(origin);
      case DATABASE -> {
        if (field.required()) {
          matter(
              ErrorCode.REQUIRED_FIELD,
              field.name() + " is required and the database has no value of its own for it.");
        }
      }
      default -> {
        // a fixed value may be anything, even blank
      }
    }
  }

  private void link(Origin origin) {
    if (field.link() == null || origin.link() == null) {
      matter(ErrorCode.NO_LINK, field.name() + " is not a link to another table.");
      return;
    }
    if (origin.column() != null) {
      column(origin.column());
    } else if (origin.template() != null) {
      template(origin.template());
    } else if (origin.formula() != null) {
      formula(origin.formula(), columns);
    } else if (origin.value() == null) {
      matter(ErrorCode.NO_ORIGIN, "Say by which value " + field.name() + " is looked up.");
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

  private void step(Step step) {
    switch (step.kind()) {
      case JOIN, OR_COLUMN -> column(step.setting("column"));
      case TRANSLATE -> {
        if (!hasBook.test(step.setting("book"))) {
          matter(
              ErrorCode.NO_SUCH_PHRASEBOOK,
              field.name() + ": there is no phrasebook “" + step.setting("book") + "”.");
        }
      }
      case FORMULA ->
          formula(
              step.setting("formula"),
              Stream.concat(columns.stream(), Stream.of("value")).toList());
      default -> {
        // its settings are all there is to it
      }
    }
  }

  private void formula(String formula, List<String> names) {
    if (formula == null || formula.isBlank()) {
      matter(ErrorCode.FORMULA, field.name() + " has no formula yet.");
      return;
    }
    try {
      Formula.compile(formula, new Known(names));
    } catch (FormulaException e) {
      matter(ErrorCode.FORMULA, field.name() + ": " + e.getMessage());
    }
  }

  /** The columns by name only: types are told when the file is at hand. */
  private final class Known implements Names {
    private final List<String> names;

    Known(List<String> names) {
      this.names = names;
    }

    @Override
    public List<String> columns() {
      return names;
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
