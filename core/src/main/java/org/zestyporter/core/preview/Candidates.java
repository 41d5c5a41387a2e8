package org.zestyporter.core.preview;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.plan.Step;
import org.zestyporter.core.plan.StepKind;
import org.zestyporter.core.plan.UnitWords;
import org.zestyporter.core.value.Measures;

/** Settings that are worth trying for each kind of step, for a field and its troubled values. */
final class Candidates {
  private static final List<String> SEPARATORS = List.of("/", ";", ",", " - ", "|", " ");

  private final FieldInfo field;
  private final String column;
  private final List<String> values;
  private final List<String> books;
  private final List<String> others;

  /**
   * @param column the column that the values come from; null if none
   * @param values troubled values as they came
   * @param others other columns, the likeliest first
   */
  Candidates(
      FieldInfo field,
      @Nullable String column,
      List<String> values,
      List<String> books,
      List<String> others) {
    this.field = field;
    this.column = column == null ? "" : column;
    this.values = values.stream().filter(Objects::nonNull).filter(v -> !v.isBlank()).toList();
    this.books = books;
    this.others = others;
  }

  private static List<Step> one(StepKind kind, String... settings) {
    return List.of(Step.of(kind, settings));
  }

  private static List<Step> each(StepKind kind, String setting, List<String> choices) {
    return choices.stream().map(c -> Step.of(kind, setting, c)).toList();
  }

  List<Step> of(StepKind kind) {
    return switch (kind) {
      case CASE -> each(kind, "to", List.of("upper", "lower", "title", "sentence", "name"));
      case CUT -> one(kind, "length", length("40"));
      case PAD -> one(kind, "length", length("5"), "with", "0");
      case TAKE_LEFT, TAKE_RIGHT -> one(kind, "count", length("2"));
      case TAKE_BETWEEN -> List.of(Step.of(kind, "after", "(", "before", ")"));
      case TAKE_WORD -> each(kind, "which", List.of("1", "-1", "2"));
      case TAKE_PATTERN -> each(kind, "pattern", List.of(pattern()));
      case SPLIT -> splits(kind);
      case REPLACE, REPLACE_WORDS -> one(kind, "from", first("x"), "to", first("x"));
      case REPLACE_PATTERN -> one(kind, "pattern", "[^\\p{L}\\p{N}]+");
      case TRANSLATE -> each(kind, "book", books);
      case JOIN, OR_COLUMN ->
          others.stream().limit(6).map(o -> Step.of(kind, "column", o)).toList();
      case BLANK_WHEN -> one(kind, "words", first("n/a"));
      case DEFAULT -> one(kind, "value", usual());
      case READ_NUMBER -> plainAnd(kind, "decimal", List.of(",", "."));
      case READ_MONEY, READ_BOOLEAN, READ_TIME -> one(kind);
      case READ_PERCENT -> plainAnd(kind, "as", List.of("points"));
      case READ_MEASURE -> each(kind, "in", units());
      case READ_DATE -> dates(kind);
      case MULTIPLY -> one(kind, "by", "1");
      case ADD -> one(kind, "number", "0");
      case ROUND -> one(kind, "places", String.valueOf(field.scale() == null ? 0 : field.scale()));
      case CONVERT_UNIT -> conversions(kind);
      case SHIFT_DATE -> one(kind, "by", "1", "unit", "days");
      case PERIOD_EDGE -> one(kind, "which", "first", "of", "month");
      case FORMAT -> one(kind, "format", "0");
      case PHONE -> one(kind, "country", "GB");
      case COUNTRY -> codes(kind);
      case LANGUAGE -> codes(kind);
      case FORMULA -> one(kind, "formula", "[value]");
      default -> one(kind);
    };
  }

  private String length(String otherwise) {
    return field.length() == null ? otherwise : String.valueOf(field.length());
  }

  private String first(String otherwise) {
    return values.isEmpty() ? otherwise : values.get(0).strip();
  }

  private String usual() {
    if (field.choices() != null) {
      return field.choices().get(0);
    }
    return field.type().isNumber() ? "0" : "unknown";
  }

  /** The first number, or the first word of letters and digits. */
  private String pattern() {
    return field.type().isNumber() ? "-?\\d+(?:[.,]\\d+)?" : "[\\p{L}\\p{N}]+";
  }

  private List<Step> splits(StepKind kind) {
    List<Step> steps = new ArrayList<>();
    for (String separator : SEPARATORS) {
      if (values.stream().anyMatch(v -> v.strip().contains(separator))) {
        steps.add(Step.of(kind, "at", separator, "which", "1"));
        steps.add(Step.of(kind, "at", separator, "which", "2"));
      }
    }
    return steps.isEmpty() ? one(kind, "at", "/", "which", "1") : steps;
  }

  private static List<Step> plainAnd(StepKind kind, String setting, List<String> choices) {
    List<Step> steps = new ArrayList<>(one(kind));
    steps.addAll(each(kind, setting, choices));
    return steps;
  }

  private static List<Step> dates(StepKind kind) {
    List<Step> steps = new ArrayList<>(one(kind));
    steps.addAll(each(kind, "century", List.of("20")));
    for (String order : List.of("day-month-year", "month-day-year", "year-month-day")) {
      steps.add(Step.of(kind, "order", order));
      steps.add(Step.of(kind, "order", order, "century", "20"));
    }
    steps.add(Step.of(kind, "pattern", "mmm yyyy"));
    return steps;
  }

  /** The unit that the column's title names; of the field's otherwise. */
  private List<String> units() {
    Measures.Measure unit = UnitWords.in(column);
    unit = unit == null ? UnitWords.in(field.name()) : unit;
    return List.of(unit == null ? "m" : unit.symbol());
  }

  private List<Step> conversions(StepKind kind) {
    Measures.Measure from = UnitWords.in(column);
    Measures.Measure to = UnitWords.in(field.name());
    return from != null && to != null
        ? one(kind, "from", from.symbol(), "to", to.symbol())
        : one(kind, "from", "ft", "to", "m");
  }

  private List<Step> codes(StepKind kind) {
    return Integer.valueOf(3).equals(field.length())
        ? one(kind, "form", "three-letter")
        : one(kind);
  }
}
