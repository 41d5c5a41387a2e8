package org.zestyporter.core.draft;

import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.Codes;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.Words;

/**
 * Names of countries, languages or currencies in a column, for a field that holds their codes (ISO
 * 3166-1, 639, 4217): {@code čeština} for {@code cs}, {@code Österreich} for {@code AUT}.
 *
 * @param steps make the codes of the names
 * @param told why, in words
 */
record IsoCodes(List<Step> steps, String told) {
  /** Share of a column's rows whose names must be known. */
  private static final double ENOUGH = 0.6;

  private static final int MOST_NAMES = 400;
  private static final String FORM = "form";
  private static final String LONG = "three-letter";

  /** How a kind of code is made of a name, and written. */
  private record Form(
      String word,
      int length,
      UnaryOperator<@Nullable String> code,
      StepKind step,
      @Nullable String form) {
    Step made() {
      return form == null ? Step.of(step) : Step.of(step, FORM, form);
    }
  }

  private static final List<Form> FORMS =
      List.of(
          new Form("country", 2, IsoCodes::country, StepKind.COUNTRY, null),
          new Form("country", 3, t -> longer(country(t)), StepKind.COUNTRY, LONG),
          new Form("language", 2, IsoCodes::language, StepKind.LANGUAGE, null),
          new Form("language", 3, t -> longest(language(t)), StepKind.LANGUAGE, LONG),
          new Form("currency", 3, IsoCodes::currency, StepKind.CURRENCY, null));

  /**
   * The codes of what a column names; null if its title or the field says nothing of the kind, the
   * field has other values, or the column holds codes already.
   */
  static @Nullable IsoCodes of(FieldInfo field, String title, DistinctValues column) {
    if (field.type() != FieldType.TEXT
        || column.beyond() > 0
        || column.tallies().isEmpty()
        || column.tallies().size() > MOST_NAMES) {
      return null;
    }
    for (Form form : FORMS) {
      if (says(field, form.word()) && Words.says(title, form.word())) {
        IsoCodes codes = of(field, column, form);
        if (codes != null) {
          return codes;
        }
      }
    }
    return null;
  }

  private static boolean says(FieldInfo field, String word) {
    return Words.says(field.name(), word)
        || field.comment() != null && Words.says(field.comment(), word);
  }

  private static @Nullable IsoCodes of(FieldInfo field, DistinctValues column, Form form) {
    boolean isCapital =
        field.choices() == null ? form.step() != StepKind.LANGUAGE : !areSmall(field.choices());
    long rows = 0;
    long known = 0;
    long asTheyAre = 0;
    for (var value : column.tallies().entrySet()) {
      Cell cell = value.getKey();
      String text = cell.text().strip();
      rows += value.getValue().rows();
      asTheyAre += holds(field, form, text) ? value.getValue().rows() : 0;
      String code = form.code().apply(text);
      if (code != null && holds(field, form, letters(code, isCapital))) {
        known += value.getValue().rows();
      }
    }
    if (known < rows * ENOUGH || known <= asTheyAre) {
      return null;
    }
    Step made = form.made();
    boolean asMade = form.step() == StepKind.LANGUAGE != isCapital;
    String told =
        String.format(
            Locale.ROOT,
            "%,d of %,d values name a %s, of which it holds the code",
            known,
            rows,
            form.word());
    return new IsoCodes(
        asMade
            ? List.of(made)
            : List.of(made, Step.of(StepKind.CASE, "to", isCapital ? "upper" : "lower")),
        told);
  }

  /** True if a field can hold a text as a code of a form. */
  private static boolean holds(FieldInfo field, Form form, String text) {
    return field.choices() != null
        ? field.choices().contains(text)
        : Integer.valueOf(form.length()).equals(field.length()) && text.length() == form.length();
  }

  private static boolean areSmall(List<String> choices) {
    return choices.stream().allMatch(c -> c.equals(letters(c, false)));
  }

  private static String letters(String code, boolean isCapital) {
    return isCapital ? code.toUpperCase(Locale.ROOT) : code.toLowerCase(Locale.ROOT);
  }

  private static @Nullable String country(String text) {
    return Codes.country(text) instanceof String code ? code : null;
  }

  private static @Nullable String language(String text) {
    return Codes.language(text) instanceof String code ? code : null;
  }

  private static @Nullable String currency(String text) {
    return Codes.currency(text) instanceof String code ? code : null;
  }

  private static @Nullable String longer(@Nullable String country) {
    return country == null ? null : Codes.longCountry(country);
  }

  private static @Nullable String longest(@Nullable String language) {
    return language == null ? null : Codes.longLanguage(language);
  }
}
