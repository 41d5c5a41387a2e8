package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/** The records of a table by what is near to them in the fields of a match key. */
final class NearRecords {
  /** Records that are told for a row, those that are most alike. */
  private static final int TOLD = 8;

  /** Records among which can be looked. */
  private static final int MOST = 500_000;

  private final NearIndex index;
  private final List<FieldInfo> keyFields;
  private final int most;
  private final List<List<Object>> keys = new ArrayList<>();

  NearRecords(NearParts parts, List<FieldInfo> keyFields) {
    this(parts, keyFields, MOST);
  }

  /**
   * @param most records that are taken
   */
  NearRecords(NearParts parts, List<FieldInfo> keyFields, int most) {
    this.index = new NearIndex(parts);
    this.keyFields = keyFields;
    this.most = most;
  }

  /**
   * What is near to a row.
   *
   * @param records primary keys, that of the record most alike first
   * @param told how near
   */
  record Near(List<List<Object>> records, String told) {}

  private record Found(int record, double distance, String key) {}

  /**
   * Notes a record.
   *
   * @param columns hold the key's fields, then the primary key
   * @param from where the primary key begins
   * @throws PorterException with code {@code too-many-records} if they are too many
   */
  void add(ValueColumn[] columns, int from, int at, Utf8 scratch) {
    NearIndex.Given one = index.ofParts(columns, at, scratch);
    if (one == null) {
      return;
    }
    if (keys.size() == most) {
      throw ErrorCode.TOO_MANY_RECORDS.error(
          "Records that are near to a row can be looked for among "
              + String.format(java.util.Locale.ROOT, "%,d", most)
              + " at most, and there are more. Look only among some of them, or let each field of"
              + " the match key agree.");
    }
    List<Object> key = new ArrayList<>(keyFields.size());
    for (int i = 0; i < keyFields.size(); i++) {
      key.add(keyFields.get(i).storage().canonical(columns[from + i].value(at)));
    }
    index.add(one);
    keys.add(List.copyOf(key));
  }

  /** Makes the records ready to be found; nothing is noted after this. */
  void settle() {
    index.settle();
  }

  boolean isEmpty() {
    return keys.isEmpty();
  }

  /** The records that are near to a row; none if a part of its key is blank. */
  Near of(ValueColumn[] byField, int row, Utf8 scratch) {
    NearIndex.Given given = index.ofRow(byField, row, scratch);
    List<Found> found = new ArrayList<>();
    if (given != null) {
      index.near(given, keys.size(), (record, distance) -> found.add(found(record, distance)));
    }
    if (found.isEmpty()) {
      return new Near(List.of(), "");
    }
    found.sort(Comparator.comparingDouble(Found::distance).thenComparing(Found::key));
    Found first = found.get(0);
    String like = first.key() + ": " + index.told(first.record());
    return new Near(
        found.stream().limit(TOLD).map(f -> keys.get(f.record())).toList(),
        found.size() == 1
            ? "much like record " + like
            : "much like " + found.size() + " records, most like " + like);
  }

  private Found found(int record, double distance) {
    String key = String.join(", ", keys.get(record).stream().map(Values::text).toList());
    return new Found(record, distance, key);
  }
}
