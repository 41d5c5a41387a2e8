package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonValue;
import java.math.BigDecimal;
import java.util.List;
import java.util.Locale;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.PorterException;

/** The operations that a fill can do on a value, with the settings of each. */
public enum StepKind {
  TRIM("Trim", "drops spaces at both ends"),
  COLLAPSE_SPACES("Collapse spaces", "makes one space of several"),
  CASE("Change case", "capitals or small letters", Setting.choice("to", "upper", "lower", "title")),
  REPLACE(
      "Replace",
      "one whole value by another, ignoring capitals",
      Setting.text("from"),
      Setting.text("to")),
  READ_NUMBER(
      "Read as number",
      "in the sender's way of writing",
      Setting.choice("decimal", ",", ".").open()),
  READ_DATE(
      "Read as date",
      "in the sender's order of day, month and year",
      Setting.choice("order", "day-month-year", "month-day-year", "year-month-day").open(),
      Setting.choice("century", "19", "20").open()),
  READ_BOOLEAN("Read as yes or no", "yes, y, true, 1, x or no, n, false, 0"),
  MULTIPLY("Multiply", "by a fixed number", Setting.number("by")),
  ROUND("Round", "half away from zero", Setting.whole("places")),
  CUT(
      "Cut to length",
      "keeps the first characters and counts what it cut",
      Setting.whole("length"));

  /**
   * A setting of a step.
   *
   * @param type text, number, whole or choice
   * @param required false if it may be left to the reading
   */
  public record Setting(String name, String type, boolean required, List<String> choices) {
    static Setting text(String name) {
      return new Setting(name, "text", true, List.of());
    }

    static Setting number(String name) {
      return new Setting(name, "number", true, List.of());
    }

    static Setting whole(String name) {
      return new Setting(name, "whole", true, List.of());
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
            case "choice" -> choices.contains(value);
            default -> true;
          };
      return fits ? null : "can't use “" + value + "” for “" + name + "”";
    }

    private static boolean isNumber(String value) {
      try {
        return new BigDecimal(value).precision() < 40;
      } catch (NumberFormatException e) {
        return false;
      }
    }
  }

  private final String title;
  private final String help;
  private final List<Setting> settings;

  StepKind(String title, String help, Setting... settings) {
    this.title = title;
    this.help = help;
    this.settings = List.of(settings);
  }

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT).replace('_', '-');
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
      throw PorterException.input("step-settings", refusal + ".");
    }
  }
}
