package org.zestyporter.core.step;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import java.util.Locale;

/**
 * The operations that a fill can do on a value; what there is to say of each stands in its class.
 */
public enum StepKind {
  TRIM(new Trim()),
  COLLAPSE_SPACES(new CollapseSpaces()),
  REMOVE_CONTROLS(new RemoveControls()),
  CASE(new Case()),
  REMOVE_ACCENTS(new RemoveAccents()),
  PLAIN_SIGNS(new PlainSigns()),
  CUT(new Cut()),
  PAD(new Pad()),
  TAKE_LEFT(new TakeLeft()),
  TAKE_RIGHT(new TakeRight()),
  TAKE_BETWEEN(new TakeBetween()),
  TAKE_WORD(new TakeWord()),
  TAKE_PATTERN(new TakePattern()),
  SPLIT(new Split()),
  REPLACE(new Replace()),
  REPLACE_WORDS(new ReplaceWords()),
  REPLACE_PATTERN(new ReplacePattern()),
  TRANSLATE(new Translate()),
  JOIN(new Join()),
  OR_COLUMN(new OrColumn()),
  BLANK_WHEN(new BlankWhen()),
  DEFAULT(new Default()),
  READ_NUMBER(new ReadNumber()),
  READ_MONEY(new ReadMoney()),
  READ_PERCENT(new ReadPercent()),
  READ_MEASURE(new ReadMeasure()),
  READ_DATE(new ReadDate()),
  READ_TIME(new ReadTime()),
  READ_BOOLEAN(new ReadBoolean()),
  MULTIPLY(new Multiply()),
  ADD(new Add()),
  ROUND(new Round()),
  CONVERT_UNIT(new ConvertUnit()),
  SHIFT_DATE(new ShiftDate()),
  PERIOD_EDGE(new PeriodEdge()),
  FORMAT(new Format()),
  PHONE(new Phone()),
  EMAIL(new Email()),
  COUNTRY(new Country()),
  LANGUAGE(new Language()),
  CURRENCY(new Currency()),
  FORMULA(new Formula());

  private final Operation operation;

  StepKind(Operation operation) {
    this.operation = operation;
  }

  Operation operation() {
    return operation;
  }

  /** The word by which plans call it, such as {@code take-left}. */
  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  public Group group() {
    return operation.group();
  }

  public String title() {
    return operation.title();
  }

  /** What it does, to be read after the title. */
  public String help() {
    return operation.help();
  }

  public List<Setting> settings() {
    return operation.settings();
  }

  /** True if what it makes of a value depends on other columns of the same row. */
  public boolean readsOtherColumns() {
    return settings().stream().anyMatch(s -> s.type().equals("column"));
  }

  /** Steps of this kind that are worth trying, the likeliest first. */
  public List<Step> worthTrying(Occasion occasion) {
    return operation.worthTrying(occasion).stream()
        .map(with -> new Step(this, with, false))
        .toList();
  }

  /** True if it may free a value from trouble by losing a part of it. */
  public boolean losesParts() {
    return operation.losesParts();
  }
}
