package org.zestyporter.core.application;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Words;

/** Which fields of a table tell what its records are called, by their names in any language. */
public final class Called {
  private static final int MOST = 2;

  private Called() {}

  /** The fields of first and last name of a table that has just one of each; empty otherwise. */
  public static List<FieldInfo> people(TableInfo table) {
    FieldInfo first = only(table, "forename");
    FieldInfo last = only(table, "surname");
    return first == null || last == null || first == last ? List.of() : List.of(first, last);
  }

  /** The only text field that says a part of a name; null if there is not just one. */
  private static @Nullable FieldInfo only(TableInfo table, String part) {
    List<FieldInfo> saying =
        table.fields().stream()
            .filter(f -> f.type() == FieldType.TEXT && f.isFillable() && !f.generated())
            .filter(f -> Words.says(f.name(), part))
            .toList();
    return saying.size() == 1 ? saying.get(0) : null;
  }

  /**
   * The fields by which a record is shown where there is little room: the names of people, or the
   * first unique text with the name if that is another, or else the first text.
   */
  public static List<FieldInfo> of(TableInfo table) {
    List<FieldInfo> people = people(table);
    if (!people.isEmpty()) {
      return people;
    }
    List<FieldInfo> texts =
        table.fields().stream()
            .filter(f -> f.type() == FieldType.TEXT && f.link() == null)
            .toList();
    List<FieldInfo> shown = new ArrayList<>();
    texts.stream().filter(FieldInfo::unique).limit(MOST).forEach(shown::add);
    for (FieldInfo field : texts) {
      if (shown.size() < MOST && !shown.contains(field) && isName(field)) {
        shown.add(field);
      }
    }
    return shown.isEmpty() ? texts.subList(0, Math.min(1, texts.size())) : shown;
  }

  private static boolean isName(FieldInfo field) {
    List<String> words = Words.of(field.name());
    return words.size() == 1 && Words.says(field.name(), "name");
  }
}
