package org.zestyporter.core.draft;

import java.math.BigDecimal;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.AsciiSigns;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.ValueReader;

/**
 * Tells which of a few written values a field of a table holds, by asking for these alone, so that
 * it costs the same whatever the table holds.
 */
final class HeldValues {
  /** What stands between the parts of a code. */
  static final String SIGNS = Texts.BETWEEN_WORDS;

  private final Application application;

  HeldValues(Application application) {
    this.application = application;
  }

  /** True if a field's values can be asked for as they are written. */
  static boolean canAsk(FieldInfo field) {
    return field.type() == FieldType.TEXT
        || field.type() == FieldType.WHOLE
        || field.type() == FieldType.OTHER;
  }

  /** The first distinct values of a column as they are written, without blank ones. */
  static List<String> some(DistinctValues column, int most) {
    return column.tallies().keySet().stream()
        .limit(most)
        .map(c -> c.text().strip())
        .filter(t -> !t.isEmpty())
        .toList();
  }

  /**
   * Those that are there, and perhaps others, each in the form that is asked for.
   *
   * @param decimal the decimal sign of the texts
   * @param prepare makes the form of a record's value
   */
  Set<String> of(
      TableInfo table,
      FieldInfo field,
      List<String> texts,
      String decimal,
      Function<Object, String> prepare) {
    Set<List<Object>> wanted = new HashSet<>();
    for (String text : texts) {
      if (field.type() == FieldType.TEXT) {
        wanted.add(List.of(text));
        wanted.add(List.of(text.toUpperCase(Locale.ROOT)));
        wanted.add(List.of(text.toLowerCase(Locale.ROOT)));
        wanted.add(List.of(text.replaceAll(SIGNS, "")));
        wanted.add(List.of(AsciiSigns.tidy(text)));
      } else if (field.type() == FieldType.WHOLE) {
        if (ValueReader.number(text, decimal) instanceof BigDecimal number) {
          wanted.add(List.of(field.storage().canonical(number)));
        }
      } else if (!(field.storage().stored(text) instanceof Problem)) {
        wanted.add(List.of(field.storage().canonical(text)));
      }
    }
    Set<String> there = new HashSet<>();
    if (!wanted.isEmpty()) {
      application.look(
          Ask.keyed(table, List.of(field), List.of(field), wanted),
          Records.each(found -> there.add(prepare.apply(found[0]))));
    }
    return there;
  }

  /**
   * The whole names of people that are there, by their words: of those whose last name stands at
   * the beginning or the end of one of the texts.
   *
   * @param fields of the first and the last name
   */
  Set<String> people(TableInfo table, List<FieldInfo> fields, List<String> texts) {
    Set<List<Object>> wanted = new HashSet<>();
    for (String text : texts) {
      List<String> words = List.of(text.split("[\\s,]+"));
      for (int i = 0; i < words.size(); i++) {
        want(words.subList(0, i + 1), wanted);
        want(words.subList(i, words.size()), wanted);
      }
    }
    Set<String> there = new HashSet<>();
    if (!wanted.isEmpty()) {
      application.look(
          Ask.keyed(table, fields, fields.subList(1, 2), wanted),
          Records.each(found -> there.add(KnownRecords.words(Stream.of(found)))));
    }
    return there;
  }

  private static void want(List<String> words, Set<List<Object>> wanted) {
    String last = String.join(" ", words);
    if (!last.isEmpty()) {
      wanted.add(List.of(last));
      wanted.add(List.of(last.toUpperCase(Locale.ROOT)));
      wanted.add(List.of(last.charAt(0) + last.substring(1).toLowerCase(Locale.ROOT)));
    }
  }
}
