package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.Measures;
import org.zestyporter.core.value.OtherCalendar;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.UnitWords;
import org.zestyporter.core.value.ValueType;

/** Proposes the fill by which a column feeds a field: its origin, and the steps that it needs. */
final class FillDraft {
  private static final Pattern CENTS = Pattern.compile("(?i)(?:cents?|pence|centimes)$");

  /** A way of changing letters, as steps call it. */
  private record Letters(String to, UnaryOperator<String> change) {}

  /** By the last two only where that makes any more of them fit. */
  private static final List<Letters> CASES =
      List.of(
          new Letters("lower", text -> text.toLowerCase(Locale.ROOT)),
          new Letters("upper", text -> text.toUpperCase(Locale.ROOT)),
          new Letters("sentence", Texts::sentence),
          new Letters("title", Texts::title));

  private final SourceTable source;
  private final Pairing pairing;
  private final ColumnMeasures measures;
  private final CodeSteps codes;

  FillDraft(SourceTable source, Pairing pairing, HeldValues held) {
    this.source = source;
    this.pairing = pairing;
    this.measures = pairing.types().measures();
    this.codes = new CodeSteps(held);
  }

  Fill of(TableInfo table, Pair pair) {
    if (pair.remembered() != null) {
      return pair.remembered().withField(pair.field().name());
    }
    FieldInfo field = pair.field();
    String column = source.columns().get(pair.column());
    List<Step> steps = new ArrayList<>();
    Origin origin = Origin.column(column);
    if (pair.link() != null) {
      origin =
          Origin.linked(
              column,
              new Origin.Link(
                  pair.link().field(),
                  pair.link().with(),
                  null,
                  pair.link().ignoring(),
                  Origin.WhenMissing.ASK,
                  made(pair, column),
                  null));
      steps.add(Step.of(StepKind.TRIM));
      if (pair.link().isAddressed()) {
        steps.add(Salutations.step());
      }
    } else {
      addSteps(steps, table, field, pair.column(), column);
    }
    Fill fill = Fill.of(field.name(), origin, steps.toArray(Step[]::new));
    if (field.choices() != null) {
      fill = fill.withWhenBad(Fill.WhenBad.ASK);
    }
    return field.required() ? fill.rejectBlank() : fill;
  }

  /** How somebody's names are taken from a whole one, if a record is made of it one day. */
  private List<Fill> made(Pair pair, String column) {
    List<String> with = pair.link().with();
    boolean isAddressed = pair.link().isAddressed();
    List<String> names =
        PersonNames.values(pairing.values(pair.column())).stream()
            .map(name -> isAddressed ? Salutations.without(name) : name)
            .toList();
    NameParts parts = with.isEmpty() ? null : NameParts.of(column, names, with.size() > 1);
    if (parts == null) {
      return List.of();
    }
    List<Step> before = isAddressed ? List.of(Salutations.step()) : List.of();
    List<Fill> made = new ArrayList<>();
    made.add(taking(pair.link().field(), column, before, parts.first()));
    made.add(taking(with.get(0), column, before, parts.last()));
    if (parts.middle() != null) {
      made.add(taking(with.get(1), column, before, parts.middle()));
    }
    return made;
  }

  private static Fill taking(String field, String column, List<Step> before, List<Step> steps) {
    return Fill.of(
        field,
        Origin.column(column),
        Stream.concat(before.stream(), steps.stream()).toArray(Step[]::new));
  }

  private void addSteps(
      List<Step> steps, TableInfo table, FieldInfo field, int column, String title) {
    CommentCodes codes = CommentCodes.of(field, pairing.values(column));
    if (codes != null) {
      steps.add(Step.of(StepKind.TRIM));
      codes
          .meanings()
          .forEach((word, code) -> steps.add(Step.of(StepKind.REPLACE, "from", word, "to", code)));
      if (field.type() == FieldType.WHOLE) {
        steps.add(Step.of(StepKind.READ_NUMBER));
      }
      return;
    }
    IsoCodes iso = IsoCodes.of(field, title, pairing.values(column));
    if (iso != null) {
      steps.add(Step.of(StepKind.TRIM));
      steps.addAll(iso.steps());
      return;
    }
    ChoiceWords words = ChoiceWords.of(field, pairing.values(column));
    if (words != null) {
      steps.addAll(words.steps());
      return;
    }
    switch (field.type()) {
      case WHOLE, DECIMAL -> {
        steps.add(numberStep(field, column));
        if (UnitWords.differ(title, field.name())) {
          steps.add(
              Step.of(
                  StepKind.CONVERT_UNIT,
                  "from",
                  UnitWords.in(title).symbol(),
                  "to",
                  UnitWords.in(field.name()).symbol()));
          int places =
              field.type() == FieldType.WHOLE ? 0 : field.scale() == null ? 2 : field.scale();
          steps.add(Step.of(StepKind.ROUND, "places", String.valueOf(places)));
        } else if (isInHundredths(field, column, title)) {
          steps.add(Step.of(StepKind.MULTIPLY, "by", "100"));
          steps.add(Step.of(StepKind.ROUND, "places", "0"));
        }
      }
      case DATE, DATETIME -> {
        OtherCalendar other = pairing.types().calendar(column);
        steps.add(
            other == null
                ? Step.of(StepKind.READ_DATE)
                : Step.of(StepKind.READ_DATE, "calendar", other.word()));
      }
      case TIME -> steps.add(Step.of(StepKind.READ_TIME));
      case BOOLEAN -> {
        TruthWords truth = TruthWords.of(field, pairing.values(column));
        steps.add(truth == null ? Step.of(StepKind.READ_BOOLEAN) : truth.step());
      }
      case TEXT -> addTextSteps(steps, table, field, column);
      default -> {
        // taken as it comes
      }
    }
  }

  /** True if a field counts cents, and the column holds amounts with places for them. */
  private boolean isInHundredths(FieldInfo field, int column, String title) {
    return field.type() == FieldType.WHOLE
        && source.profiles().get(column).type() == ValueType.DECIMAL
        && CENTS.matcher(field.name()).find()
        && !CENTS.matcher(title).find();
  }

  private Step numberStep(FieldInfo field, int column) {
    if (measures.isPercent(column)) {
      // a field without room for figures before the sign holds fractions
      boolean fraction =
          field.precision() != null
              && field.scale() != null
              && field.precision() - field.scale() <= 1;
      return Step.of(StepKind.READ_PERCENT, "as", fraction ? "fraction" : "points");
    }
    Measures.Measure unit = measures.unitFor(column, field.name());
    return unit == null
        ? Step.of(StepKind.READ_NUMBER)
        : Step.of(StepKind.READ_MEASURE, "in", unit.symbol());
  }

  private void addTextSteps(List<Step> steps, TableInfo table, FieldInfo field, int column) {
    steps.add(Step.of(StepKind.TRIM));
    Set<Cell> cells = pairing.values(column).tallies().keySet();
    if (cells.stream().anyMatch(c -> c.text().strip().matches("(?s).*\\s{2,}.*"))) {
      steps.add(Step.of(StepKind.COLLAPSE_SPACES));
    }
    if (field.choices() != null) {
      addCase(steps, field.choices(), cells);
    } else if (field.unique()) {
      long upper =
          cells.stream().filter(c -> c.text().equals(c.text().toUpperCase(Locale.ROOT))).count();
      if (upper < cells.size() && upper * 10 >= cells.size() * 7L) {
        steps.add(Step.of(StepKind.CASE, "to", "upper"));
      }
    }
    steps.addAll(codes.of(table, field, pairing.values(column)));
  }

  /** The letters as all choices have them, be they capitals, small, or only the first ones. */
  private static void addCase(List<Step> steps, List<String> choices, Set<Cell> cells) {
    // many alphabets have no capitals
    if (choices.stream().allMatch(FillDraft::isWithoutCase)) {
      return;
    }
    boolean differ = cells.stream().anyMatch(c -> !choices.contains(c.text().strip()));
    CASES.subList(0, differ ? CASES.size() : 2).stream()
        .filter(how -> choices.stream().allMatch(c -> c.equals(how.change().apply(c))))
        .findFirst()
        .ifPresent(how -> steps.add(Step.of(StepKind.CASE, "to", how.to())));
  }

  private static boolean isWithoutCase(String text) {
    return text.toLowerCase(Locale.ROOT).equals(text.toUpperCase(Locale.ROOT));
  }
}
