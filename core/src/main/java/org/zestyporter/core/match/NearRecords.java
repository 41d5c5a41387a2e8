package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.match.NearParts.Held;
import org.zestyporter.core.match.NearParts.Ready;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Spelling;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/** The records of a table by what is near to them in the fields of a match key. */
final class NearRecords {
  /** Records that are told for a row, those that are most alike. */
  private static final int TOLD = 8;

  /** Records among which can be looked; each takes about 250 bytes. */
  private static final int MOST = 500_000;

  /** Letters in which texts that are spelt alike may differ: two for each slip. */
  private static final int MOST_LETTERS = 2 * Spelling.MOST_SLIPS;

  private final NearParts parts;
  private final List<FieldInfo> keyFields;
  private final int most;
  private final List<Held> held = new ArrayList<>();
  private final List<List<Object>> keys = new ArrayList<>();

  /**
   * Signs with the letters that belong to them, and the records that have them: as they come, then
   * by the beginnings of the signs.
   */
  private long[] signs = new long[64];

  private long[] letters = new long[64];

  private int[] owners = new int[64];
  private int count;
  private int[] ends = {};
  private int shift;

  NearRecords(NearParts parts, List<FieldInfo> keyFields) {
    this(parts, keyFields, MOST);
  }

  /**
   * @param most records that are taken
   */
  NearRecords(NearParts parts, List<FieldInfo> keyFields, int most) {
    this.parts = parts;
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
    Held one = parts.ofParts(columns, at, scratch);
    Ready ready = one == null ? null : parts.ready(one);
    if (ready == null) {
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
    int number = keys.size();
    held.add(one);
    keys.add(List.copyOf(key));
    parts.signs(ready, (sign, has) -> put(sign, has, number));
  }

  private void put(long sign, long has, int owner) {
    if (count == signs.length) {
      letters = Arrays.copyOf(letters, count * 2);
      signs = Arrays.copyOf(signs, count * 2);
      owners = Arrays.copyOf(owners, count * 2);
    }
    signs[count] = sign;
    letters[count] = has;
    owners[count++] = owner;
  }

  /** Makes the records ready to be found; nothing is noted after this. */
  void settle() {
    int bits = Math.max(1, Integer.SIZE - Integer.numberOfLeadingZeros(count));
    shift = Long.SIZE - bits;
    ends = new int[1 << bits];
    for (int i = 0; i < count; i++) {
      ends[(int) (signs[i] >>> shift)]++;
    }
    int before = 0;
    for (int b = 0; b < ends.length; b++) {
      int own = ends[b];
      ends[b] = before;
      before += own;
    }
    long[] sorted = new long[count];
    long[] sortedLetters = new long[count];
    int[] sortedOwners = new int[count];
    for (int i = 0; i < count; i++) {
      int place = ends[(int) (signs[i] >>> shift)]++;
      sorted[place] = signs[i];
      sortedLetters[place] = letters[i];
      sortedOwners[place] = owners[i];
    }
    signs = sorted;
    letters = sortedLetters;
    owners = sortedOwners;
  }

  boolean isEmpty() {
    return keys.isEmpty();
  }

  /** The records that are near to a row; none if a part of its key is blank. */
  Near of(ValueColumn[] byField, int row, Utf8 scratch) {
    Held given = parts.ofRow(byField, row, scratch);
    Ready wanted = given == null ? null : parts.ready(given);
    if (wanted == null) {
      return new Near(List.of(), "");
    }
    Set<Integer> seen = new HashSet<>();
    List<Found> found = new ArrayList<>();
    long has = parts.letters(wanted);
    parts.wanted(wanted, sign -> look(wanted, sign, has, seen, found));
    if (found.isEmpty()) {
      return new Near(List.of(), "");
    }
    found.sort(Comparator.comparingDouble(Found::distance).thenComparing(Found::key));
    Found first = found.get(0);
    String like = first.key() + ": " + parts.told(held.get(first.record()));
    return new Near(
        found.stream().limit(TOLD).map(f -> keys.get(f.record())).toList(),
        found.size() == 1
            ? "much like record " + like
            : "much like " + found.size() + " records, most like " + like);
  }

  private void look(Ready wanted, long sign, long has, Set<Integer> seen, List<Found> found) {
    int b = (int) (sign >>> shift);
    for (int i = b == 0 ? 0 : ends[b - 1]; i < ends[b]; i++) {
      boolean may = signs[i] == sign && Long.bitCount(has ^ letters[i]) <= MOST_LETTERS;
      if (may && seen.add(owners[i])) {
        double distance = parts.distance(wanted, held.get(owners[i]));
        if (distance >= 0) {
          String key = String.join(", ", keys.get(owners[i]).stream().map(Values::text).toList());
          found.add(new Found(owners[i], distance, key));
        }
      }
    }
  }
}
