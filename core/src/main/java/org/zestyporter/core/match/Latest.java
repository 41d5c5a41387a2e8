package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.Inquiry;
import org.zestyporter.core.value.Values;

/** Tells which of several records with the same key has the highest value in a field. */
final class Latest {
  private final TableInfo table;
  private final FieldInfo by;
  private final List<FieldInfo> keyFields;

  /** The several records, by the place of their key. */
  private final Map<Integer, List<List<Object>>> several = new HashMap<>();

  /** Their values, by the texts of their own keys. */
  private final Map<List<String>, Object> values = new HashMap<>();

  Latest(TableInfo table, FieldInfo by, FoundRecords found) {
    this.table = table;
    this.by = by;
    this.keyFields = table.fields(table.primaryKey());
    found.several(place -> several.put(place, found.of(place)));
    // an answer may hold one record twice
    several.values().removeIf(records -> records.size() < 2);
  }

  boolean isEmpty() {
    return several.isEmpty();
  }

  /**
   * @param result takes the latest record by the place of the key; none where several are
   */
  Inquiry inquiry(Consumer<Map<Integer, List<Object>>> result) {
    List<FieldInfo> fields = new ArrayList<>(keyFields);
    fields.add(by);
    List<List<Object>> wanted = several.values().stream().flatMap(List::stream).distinct().toList();
    return new Inquiry(
        Ask.keyed(table, fields, keyFields, wanted),
        found -> {
          for (int at = 0; at < found[0].rows(); at++) {
            List<String> key = new ArrayList<>();
            for (int i = 0; i < keyFields.size(); i++) {
              key.add(Values.text(found[i].value(at)));
            }
            Object value = found[keyFields.size()].value(at);
            if (value != null) {
              values.put(key, value);
            }
          }
        },
        () -> {
          Map<Integer, List<Object>> latest = new HashMap<>();
          several.forEach(
              (place, records) -> {
                List<Object> one = latest(records);
                if (one != null) {
                  latest.put(place, one);
                }
              });
          result.accept(latest);
        });
  }

  private @Nullable List<Object> latest(List<List<Object>> records) {
    List<Object> best = null;
    Object highest = null;
    boolean alone = false;
    for (List<Object> record : records) {
      Object value = values.get(record.stream().map(Values::text).toList());
      int order = value == null ? -1 : highest == null ? 1 : by.storage().compare(value, highest);
      if (order > 0) {
        best = record;
        highest = value;
        alone = true;
      } else if (order == 0) {
        alone = false;
      }
    }
    return alone ? best : null;
  }
}
