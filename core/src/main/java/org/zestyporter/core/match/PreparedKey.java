package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.database.FieldInfo;
import org.zestyporter.core.database.TableInfo;
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

  String of(List<Object> parts) {
    if (parts.size() == 1) {
      return comparison.prepare(parts.get(0));
    }
    StringBuilder joined = new StringBuilder();
    for (Object part : parts) {
      String prepared = comparison.prepare(part);
      if (prepared == null) {
        return null;
      }
      joined.append(prepared.length()).append(':').append(prepared);
    }
    return joined.toString();
  }
}
