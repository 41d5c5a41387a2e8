package org.zestyporter.core.match;

import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.LinkKey;
import org.zestyporter.core.fill.LinkParts;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.Hash;
import org.zestyporter.core.value.LongMap;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/**
 * Finds the rows of a source that will make a record, by what links look such records up by.
 *
 * <p>First every row is noted and every value {@link #want wanted}; then it is settled, and asked.
 */
public final class RowIndex {
  /** One for all, so that the hashes are the same for whoever looks records up so. */
  private static final Hash HASH = new Hash(new SecureRandom().nextLong());

  private final PreparedKey key;
  private final LinkParts parts;
  private final int[] places;

  /** True if what links look up stands together in one value. */
  private final boolean together;

  private final KeyNotes notes = new KeyNotes();
  private final LongMap<int[]> wanted = new LongMap<>();

  /** Rows that make their records only once somebody answers: index, then hash, of each. */
  private long[] waiting = {};

  private int waitingCount;

  /** Rows may be hashed by several threads. */
  private final ThreadLocal<Utf8> scratches = ThreadLocal.withInitial(() -> new Utf8(256));

  /**
   * @param by how links look the records up
   */
  public RowIndex(LinkKey by, TableInfo table) {
    this.parts = new LinkParts(by, table);
    List<String> ofParts = parts.ofParts().stream().map(FieldInfo::name).toList();
    this.key = new PreparedKey(new MatchKey(ofParts, by.ignoring()), table);
    this.together = by.together() > 1;
    this.places = table.fields(by.fields()).stream().mapToInt(table.fields()::indexOf).toArray();
  }

  /**
   * Notes the next row.
   *
   * @param byField the columns of the table's fields; null for a row that can't be written
   */
  public void note(ValueColumn @Nullable [] byField, int row) {
    notes.note(byField == null ? 0 : hash(byField, row));
  }

  /** Notes the next row, which makes its record only once somebody answers. */
  public void noteWaiting(ValueColumn[] byField, int row) {
    long hashed = hash(byField, row);
    if (hashed != 0) {
      if (waitingCount == waiting.length) {
        waiting = Arrays.copyOf(waiting, Math.max(2, waiting.length * 2));
      }
      waiting[waitingCount++] = notes.size();
      waiting[waitingCount++] = hashed;
    }
    notes.note(0);
  }

  /** The hash of a row; 0 if a part is blank. */
  public long hash(ValueColumn[] byField, int row) {
    if (together) {
      List<Object> values = new ArrayList<>(places.length);
      for (int place : places) {
        values.add(byField[place] == null ? null : byField[place].value(row));
      }
      List<Object> own = parts.of(values);
      return own == null ? 0 : hash(own);
    }
    Utf8 scratch = scratches.get();
    return key.ofRow(byField, row, scratch) ? HASH.of(scratch.array(), scratch.size()) : 0;
  }

  /**
   * Asks for the rows that hold these values.
   *
   * @param parts as their fields compare them
   */
  public void want(List<Object> parts) {
    long hashed = hash(parts);
    if (hashed != 0 && wanted.get(hashed) == null) {
      wanted.put(hashed, new int[] {-1, -1});
    }
  }

  /** The hash of values as their fields compare them; 0 if no row can hold them. */
  public long hash(List<Object> parts) {
    Utf8 scratch = scratches.get();
    return key.of(parts.toArray(), scratch) ? HASH.of(scratch.array(), scratch.size()) : 0;
  }

  /** True if a value of this hash was asked for. */
  public boolean isWanted(long hashed) {
    return wanted.get(hashed) != null;
  }

  /**
   * Finds the rows that were asked for: those that wait for an answer only where no other row makes
   * the record. Nothing is noted or asked for after this.
   */
  public void settle() {
    notes.locate(wanted);
    LongMap<int[]> unmade = new LongMap<>();
    for (int i = 0; i < waitingCount; i += 2) {
      int row = (int) waiting[i];
      int[] found = wanted.get(waiting[i + 1]);
      if (found != null && (found[0] < 0 || unmade.get(waiting[i + 1]) != null)) {
        found[0] = found[0] < 0 ? row : found[0];
        found[1] = row;
        unmade.put(waiting[i + 1], found);
      }
    }
    waiting = new long[0];
    waitingCount = 0;
  }

  /** Indexes of the first and the last row that hold what was asked for; null if none does. */
  public int @Nullable [] rows(long hashed) {
    int[] found = wanted.get(hashed);
    return found == null || found[0] < 0 ? null : found;
  }
}
