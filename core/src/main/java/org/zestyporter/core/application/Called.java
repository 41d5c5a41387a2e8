package org.zestyporter.core.application;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Words;

/** Which fields of a table tell what its records are called, by their names in any language. */
public final class Called {
  private static final int MOST = 2;

  private Called() {}

  /**
   * The fields of first and last name of a table that has just one of each; empty otherwise. Beside
   * one of the two a field that only says that it is a name holds the other: {@code nom} beside
   * {@code prenom}, {@code name} beside {@code surname}.
   */
  public static List<FieldInfo> people(TableInfo table) {
    List<FieldInfo> texts = texts(table);
    List<FieldInfo> first = saying(texts, "forename");
    List<FieldInfo> last = saying(texts, "surname");
    if (first.isEmpty() != last.isEmpty()) {
      List<FieldInfo> names = texts.stream().filter(Called::isName).toList();
      first = first.isEmpty() ? names : first;
      last = last.isEmpty() ? names : last;
    }
    boolean isOneOfEach = first.size() == 1 && last.size() == 1 && !first.equals(last);
    return isOneOfEach ? List.of(first.get(0), last.get(0)) : List.of();
  }

  /** The only field of a person's name beside these two, such as that of the father. */
  public static @Nullable FieldInfo middle(TableInfo table) {
    List<FieldInfo> names = saying(texts(table), "patronymic");
    return names.size() == 1 && !people(table).contains(names.get(0)) ? names.get(0) : null;
  }

  private static List<FieldInfo> texts(TableInfo table) {
    return table.fillable().stream().filter(f -> f.type() == FieldType.TEXT).toList();
  }

  private static List<FieldInfo> saying(List<FieldInfo> texts, String part) {
    return texts.stream().filter(f -> Words.says(f.name(), part)).toList();
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
