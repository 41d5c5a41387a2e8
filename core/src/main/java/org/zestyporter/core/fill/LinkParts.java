package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.Values;

/**
 * What records are looked up by, in parts: one a field, but for fields whose values stand together
 * in one cell. These make one part, of all their words in the order of the alphabet, so that {@code
 * Doe, Jane} is {@code Jane Doe}.
 */
public final class LinkParts {
  private final List<FieldInfo> fields;
  private final int together;
  private final Comparison comparison;

  public LinkParts(LinkKey key, TableInfo table) {
    this.fields = table.fields(key.fields());
    this.together = key.together();
    this.comparison = Comparison.ignoring(key.ignoring());
  }

  /** The fields that are looked in, those that stand together first. */
  List<FieldInfo> fields() {
    return fields;
  }

  /** The field of each part; the first of those that stand together stands for all of them. */
  public List<FieldInfo> ofParts() {
    List<FieldInfo> of = new ArrayList<>(fields);
    of.subList(1, together).clear();
    return of;
  }

  /** True if records can't be asked for by the values of their fields. */
  boolean isLoose() {
    return together > 1 || comparison.isLoose();
  }

  /** The first part, as its cell says it. */
  Object first(Object value) {
    return together > 1
        ? comparison.words(Values.text(value))
        : fields.get(0).storage().canonical(value);
  }

  /**
   * The parts of a record.
   *
   * @param values of all fields; null for blank
   * @return null if a part is blank
   */
  public @Nullable List<Object> of(List<@Nullable Object> values) {
    List<Object> parts = new ArrayList<>(fields.size());
    if (together > 1) {
      String all = Values.together(values.subList(0, together).stream());
      parts.add(all.isBlank() ? null : comparison.words(all));
    }
    for (int i = together > 1 ? together : 0; i < fields.size(); i++) {
      Object value = values.get(i);
      parts.add(value == null ? null : fields.get(i).storage().canonical(value));
    }
    return parts.contains(null) ? null : parts;
  }

  /** A part as it is compared. */
  String prepared(Object part) {
    return comparison.prepare(part);
  }
}
