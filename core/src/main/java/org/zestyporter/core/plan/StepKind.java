package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonValue;
import java.math.BigDecimal;
import java.util.List;
import java.util.Locale;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Measures;
import org.zestyporter.core.value.Patterns;

/** The operations that a fill can do on a value, with the settings of each. */
public enum StepKind {
  TRIM(Group.TIDY, "Trim", "drops spaces at both ends"),
  COLLAPSE_SPACES(Group.TIDY, "Collapse spaces", "makes one space of several"),
  REMOVE_CONTROLS(
      Group.TIDY, "Remove control characters", "line breaks become spaces, others and marks go"),
  CASE(
      Group.TIDY,
      "Change case",
      "capitals, small letters or names with their particles",
      Setting.choice("to", "upper", "lower", "title", "sentence", "name")),
  REMOVE_ACCENTS(Group.TIDY, "Remove accents", "é becomes e, ø becomes o"),
  CUT(
      Group.TIDY,
      "Cut to length",
      "keeps the first characters and counts what it cut",
      Setting.whole("length")),
  PAD(
      Group.TIDY,
      "Pad",
      "fills up to a length with a sign",
      Setting.whole("length"),
      Setting.text("with"),
      Setting.choice("side", "left", "right").open()),

  TAKE_LEFT(Group.PARTS, "Take the first", "characters", Setting.whole("count")),
  TAKE_RIGHT(Group.PARTS, "Take the last", "characters", Setting.whole("count")),
  TAKE_BETWEEN(
      Group.PARTS,
      "Take between",
      "what stands behind one text and before another; the whole if neither is there",
      Setting.text("after").open(),
      Setting.text("before").open()),
  TAKE_WORD(
      Group.PARTS,
      "Take a word",
      "the first, second… or, with -1, the last",
      Setting.count("which")),
  TAKE_PATTERN(
      Group.PARTS,
      "Take by pattern",
      "the first part that is of a pattern, or its first group",
      Setting.pattern("pattern")),
  SPLIT(
      Group.PARTS,
      "Split and take",
      "parts at a sign and takes the first, second… part",
      Setting.text("at"),
      Setting.count("which")),

  REPLACE(
      Group.WORDS,
      "Replace",
      "one whole value by another, ignoring capitals",
      Setting.text("from"),
      Setting.text("to").open()),
  REPLACE_WORDS(
      Group.WORDS,
      "Replace inside",
      "a text inside the value wherever it stands, ignoring capitals",
      Setting.text("from"),
      Setting.text("to").open()),
  REPLACE_PATTERN(
      Group.WORDS,
      "Replace by pattern",
      "parts that are of a pattern; $1 is its first group",
      Setting.pattern("pattern"),
      Setting.text("to").open()),
  TRANSLATE(
      Group.WORDS,
      "By phrasebook",
      "the source’s words to the application’s",
      Setting.book("book"),
      Setting.choice("otherwise", "keep", "ask", "reject", "blank").open()),

  JOIN(
      Group.BLANKS,
      "Join",
      "another column behind it",
      Setting.column("column"),
      Setting.text("between").open()),
  OR_COLUMN(
      Group.BLANKS, "Else take", "another column where it is blank", Setting.column("column")),
  BLANK_WHEN(
      Group.BLANKS, "Blank when", "it is one of these words, parted by |", Setting.text("words")),
  DEFAULT(Group.BLANKS, "Where blank, use", "a fixed value", Setting.text("value")),

  READ_NUMBER(
      Group.READ,
      "Read as number",
      "in the sender's way of writing",
      Setting.choice("decimal", ",", ".").open()),
  READ_MONEY(
      Group.READ,
      "Read as money",
      "a number with a currency, which must be the one named if one is",
      Setting.choice("decimal", ",", ".").open(),
      Setting.text("currency").open()),
  READ_PERCENT(
      Group.READ,
      "Read as percent",
      "12 % becomes 0.12, or 12",
      Setting.choice("as", "fraction", "points").open(),
      Setting.choice("decimal", ",", ".").open()),
  READ_MEASURE(
      Group.READ,
      "Read measure",
      "32' 6\", 5 ft 3 in, 1 h 30 min or a bare number, into one unit",
      Setting.unit("in")),
  READ_DATE(
      Group.READ,
      "Read as date",
      "in the sender's order of day, month and year",
      Setting.choice("order", "day-month-year", "month-day-year", "year-month-day").open(),
      Setting.choice("century", "19", "20").open(),
      Setting.text("pattern").open()),
  READ_TIME(Group.READ, "Read as time", "9:30, 0930, 9.30 pm"),
  READ_BOOLEAN(
      Group.READ,
      "Read as yes or no",
      "yes, y, true, 1, x or no, n, false, 0; or your own words parted by |",
      Setting.text("yes").open(),
      Setting.text("no").open()),

  MULTIPLY(Group.COMPUTE, "Multiply", "by a fixed number", Setting.number("by")),
  ADD(
      Group.COMPUTE,
      "Add",
      "a fixed number, or take it away with a minus",
      Setting.number("number")),
  ROUND(
      Group.COMPUTE,
      "Round",
      "half away from zero, or always up or down",
      Setting.whole("places"),
      Setting.choice("how", "half", "up", "down").open()),
  CONVERT_UNIT(
      Group.COMPUTE,
      "Convert unit",
      "from one unit of measure to another",
      Setting.unit("from"),
      Setting.unit("to")),
  SHIFT_DATE(
      Group.COMPUTE,
      "Shift date",
      "so many days, weeks, months or years on, or back",
      Setting.count("by"),
      Setting.choice("unit", "days", "weeks", "months", "years")),
  PERIOD_EDGE(
      Group.COMPUTE,
      "First or last day",
      "of the date's month or year",
      Setting.choice("which", "first", "last"),
      Setting.choice("of", "month", "year")),
  FORMAT(
      Group.COMPUTE,
      "Write as text",
      "a number or date in a format: 0000, #,##0.00, d mmmm yyyy",
      Setting.text("format")),

  PHONE(
      Group.KNOWN,
      "Phone number",
      "to the international form, +44 20 7946 0018",
      Setting.text("country"),
      Setting.choice("form", "spaced", "plain").open()),
  EMAIL(Group.KNOWN, "E-mail", "tidied, in small letters, and checked"),
  COUNTRY(
      Group.KNOWN,
      "Country to code",
      "names in many languages and codes to the code of ISO 3166",
      Setting.choice("form", "two-letter", "three-letter", "number").open()),
  LANGUAGE(
      Group.KNOWN,
      "Language to code",
      "names in many languages to the code of ISO 639",
      Setting.choice("form", "two-letter", "three-letter").open()),
  CURRENCY(Group.KNOWN, "Currency to code", "signs, names and codes to the code of ISO 4217"),

  FORMULA(
      Group.KNOWN,
      "Formula",
      "write your own; [value] is the value so far",
      Setting.formula("formula"));

  /** What steps are for. */
  public enum Group {
    TIDY,
    PARTS,
    WORDS,
    BLANKS,
    READ,
    COMPUTE,
    KNOWN;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /**
   * A setting of a step.
   *
   * @param type text, number, whole, count (a whole number, also under 0), choice, column, book,
   *     pattern, unit or formula
   * @param required false if it may be left open
   */
  public record Setting(String name, String type, boolean required, List<String> choices) {
    private static Setting of(String name, String type) {
      return new Setting(name, type, true, List.of());
    }

    static Setting text(String name) {
      return of(name, "text");
    }

    static Setting number(String name) {
      return of(name, "number");
    }

    static Setting whole(String name) {
      return of(name, "whole");
    }

    static Setting count(String name) {
      return of(name, "count");
    }

    static Setting column(String name) {
      return of(name, "column");
    }

    static Setting book(String name) {
      return of(name, "book");
    }

    static Setting pattern(String name) {
      return of(name, "pattern");
    }

    static Setting unit(String name) {
      return of(name, "unit");
    }

    static Setting formula(String name) {
      return of(name, "formula");
    }

    static Setting choice(String name, String... choices) {
      return new Setting(name, "choice", true, List.of(choices));
    }

    Setting open() {
      return new Setting(name, type, false, choices);
    }

    /** Why a value can't be used for this setting; null if it can. */
    String refusal(String value) {
      if (value == null) {
        return required ? "needs “" + name + "”" : null;
      }
      boolean fits =
          switch (type) {
            case "number" -> isNumber(value);
            case "whole" -> value.matches("\\d{1,4}");
            case "count" -> value.matches("-?\\d{1,4}");
            case "choice" -> choices.contains(value);
            case "unit" -> Measures.find(value) != null;
            case "pattern" -> Patterns.mistake(value) == null;
            default -> true;
          };
      return fits ? null : "can't use “" + value + "” for “" + name + "”";
    }

    private static boolean isNumber(String value) {
      try {
        return new BigDecimal(value).precision() < 40
            && Math.abs(new BigDecimal(value).scale()) < 40;
      } catch (NumberFormatException e) {
        return false;
      }
    }
  }

  private final Group group;
  private final String title;
  private final String help;
  private final List<Setting> settings;

  StepKind(Group group, String title, String help, Setting... settings) {
    this.group = group;
    this.title = title;
    this.help = help;
    this.settings = List.of(settings);
  }

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  public Group group() {
    return group;
  }

  public String title() {
    return title;
  }

  public String help() {
    return help;
  }

  public List<Setting> settings() {
    return settings;
  }

  /** Why a step's settings can't be used; null if they can. */
  public String refusal(Step step) {
    for (Setting setting : settings) {
      String refusal = setting.refusal(step.setting(setting.name()));
      if (refusal != null) {
        return title + " " + refusal;
      }
    }
    return null;
  }

  /** The date order that a step sets, or null if it is left to the reading. */
  public static DateOrder order(Step step) {
    String word = step.setting("order");
    return word == null ? null : DateOrder.of(word);
  }

  /** Throws if the settings can't be used. */
  public void require(Step step) {
    String refusal = refusal(step);
    if (refusal != null) {
      throw ErrorCode.STEP_SETTINGS.error(refusal + ".");
    }
  }
}
