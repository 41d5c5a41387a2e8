package org.zestyporter.core.step;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.value.Measures;
import org.zestyporter.core.value.UnitWords;

/**
 * What a step would be tried for.
 *
 * @param field the field that is filled
 * @param column the column that the values come from; null if none
 * @param values troubled values as they came
 * @param books names of the phrasebooks that there are
 * @param others other columns, the likeliest first
 */
public record Occasion(
    FieldInfo field,
    @Nullable String column,
    List<String> values,
    List<String> books,
    List<String> others) {

  public Occasion {
    values = values.stream().filter(Objects::nonNull).filter(v -> !v.isBlank()).toList();
  }

  /** The length of the field, if it has one. */
  String length(String otherwise) {
    return field.length() == null ? otherwise : String.valueOf(field.length());
  }

  /** The first troubled value, if there is one. */
  String first(String otherwise) {
    return values.isEmpty() ? otherwise : values.get(0).strip();
  }

  /** True if a troubled value holds some text. */
  boolean holds(String text) {
    return values.stream().anyMatch(v -> v.strip().contains(text));
  }

  /** What all troubled values begin with, without digits: 〒, No. or Tel: ; empty if nothing. */
  String commonBeginning() {
    String common = values.size() < 2 ? "" : values.get(0).strip();
    for (String value : values) {
      int same = 0;
      String text = value.strip();
      while (same < common.length()
          && same < text.length()
          && common.charAt(same) == text.charAt(same)
          && !Character.isDigit(common.charAt(same))) {
        same++;
      }
      common = common.substring(0, same);
    }
    // not a part of a word
    while (!common.isEmpty() && Character.isLetter(common.charAt(common.length() - 1))) {
      common = common.substring(0, common.length() - 1);
    }
    return common;
  }

  /** What all of them end with. */
  String commonEnd() {
    List<String> turned =
        values.stream().map(v -> new StringBuilder(v.strip()).reverse().toString()).toList();
    Occasion reversed = new Occasion(field, column, turned, books, others);
    return new StringBuilder(reversed.commonBeginning()).reverse().toString();
  }

  /** The unit that the column's title names; null if none. */
  Measures.@Nullable Measure columnUnit() {
    return column == null ? null : UnitWords.in(column);
  }

  /** The unit that the field's name names; null if none. */
  Measures.@Nullable Measure fieldUnit() {
    return UnitWords.in(field.name());
  }
}
