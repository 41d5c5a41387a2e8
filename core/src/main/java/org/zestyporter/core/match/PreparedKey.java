package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.Comparison;

/** A match key made ready to compare rows with records. */
final class PreparedKey {
  private final List<FieldInfo> fields;
  private final int[] indexes;
  private final Comparison comparison;

  PreparedKey(MatchKey key, TableInfo table) {
    this.fields = table.fields(key.fields());
    this.indexes = fields.stream().mapToInt(table.fields()::indexOf).toArray();
    this.comparison = Comparison.ignoring(key.ignoring());
  }

  List<FieldInfo> fields() {
    return fields;
  }

  /**
   * The form in which a row is compared.
   *
   * @param byField the row's values by the table's fields
   * @return null if a part of the key is blank
   */
  String ofRow(Object[] byField) {
    List<Object> parts = new ArrayList<>(indexes.length);
    for (int index : indexes) {
      parts.add(byField[index]);
    }
    return of(parts);
  }

  boolean isLoose() {
    return comparison.isLoose();
  }

  /** The values of a row's key, each as its field compares it. */
  List<Object> values(Object[] byField) {
    List<Object> values = new ArrayList<>(indexes.length);
    for (int i = 0; i < indexes.length; i++) {
      values.add(fields.get(i).storage().canonical(byField[indexes[i]]));
    }
    return values;
  }

  /** True if a field is compared by this key more loosely than by its type. */
  boolean loosens(FieldInfo field) {
    return comparison.isLoose() && fields.contains(field);
  }

  /** True if two values of one of its fields are the same for this key. */
  boolean same(FieldInfo field, Object a, Object b) {
    String left = prepare(field, a);
    return left != null && left.equals(prepare(field, b));
  }

  private String prepare(FieldInfo field, Object value) {
    return comparison.prepare(field.storage().canonical(value));
  }

  String of(List<Object> parts) {
    if (parts.size() == 1) {
      return prepare(fields.get(0), parts.get(0));
    }
    StringBuilder joined = new StringBuilder();
    for (int i = 0; i < parts.size(); i++) {
      String prepared = prepare(fields.get(i), parts.get(i));
      if (prepared == null) {
        return null;
      }
      joined.append(prepared.length()).append(':').append(prepared);
    }
    return joined.toString();
  }
}
