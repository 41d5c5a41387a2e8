package org.zestyporter.core.run;

import java.util.AbstractList;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.KeyText;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/**
 * What happened to the rows of a chunk in one destination, typed and by column, in the order of the
 * file. Entries are made of it for who asks.
 *
 * @param layout what the values are of
 * @param firstRow index of the chunk's first row among the source's rows, from 0
 * @param lines line number of each entry's row
 * @param rows index of each entry's row, counted from {@code firstRow}
 * @param parts number of each entry among those of its row, from 0; null if each row has one
 * @param outcomes by their order
 * @param matchedBy number of the match key that found the record, from 1; 0 if none did
 * @param keys primary key of the record, typed; null where there is none
 * @param after what each fill gave, or the application made of it, one column a field
 * @param stood entries whose record was there before
 * @param before these records, one column a field of the table; without meaning for other entries,
 *     and none if no entry has one
 * @param written entries whose record was read back after it was written
 * @param left these records, as {@code before}
 * @param changed positions of the fields that are written differently; null for none
 * @param notes what there is to say; null for nothing
 */
public record LedgerChunk(
    LedgerLayout layout,
    long firstRow,
    long[] lines,
    int[] rows,
    int @Nullable [] parts,
    byte[] outcomes,
    byte[] matchedBy,
    List<Object>[] keys,
    ValueColumn[] after,
    BitSet stood,
    ValueColumn[] before,
    BitSet written,
    ValueColumn[] left,
    int[][] changed,
    List<LedgerEntry.Note>[] notes) {

  /** Index of the destination in the plan. */
  public int destination() {
    return layout.destination();
  }

  public int size() {
    return lines.length;
  }

  public long firstLine() {
    return lines[0];
  }

  public long lastLine() {
    return lines[lines.length - 1];
  }

  public Outcome outcome(int entry) {
    return Outcome.of(outcomes[entry]);
  }

  /** True if an entry's row was not decided yet when the run was cut off. */
  public boolean isWaiting(int entry) {
    return notes[entry] != null && notes[entry].get(0).code() == ProblemCode.WAITING;
  }

  /** Number of entries by the order of {@link Outcome}. */
  public List<Integer> counts() {
    Integer[] counts = new Integer[Outcome.values().length];
    Arrays.fill(counts, 0);
    for (byte outcome : outcomes) {
      counts[outcome]++;
    }
    return List.of(counts);
  }

  /** The entries, made as they are asked for. */
  public List<LedgerEntry> entries() {
    return new AbstractList<>() {
      @Override
      public LedgerEntry get(int index) {
        return entry(index);
      }

      @Override
      public int size() {
        return LedgerChunk.this.size();
      }
    };
  }

  private LedgerEntry entry(int at) {
    List<String> values = new ArrayList<>(after.length);
    for (ValueColumn column : after) {
      values.add(Values.text(column.value(at)));
    }
    List<String> held = null;
    if (stood.get(at)) {
      held = new ArrayList<>(after.length);
      for (int position : layout.positions()) {
        held.add(Values.text(before[position].value(at)));
      }
    }
    String key = keys[at] == null ? null : KeyText.of(keys[at]);
    return new LedgerEntry(
        lines[at],
        firstRow + rows[at],
        parts == null ? 0 : parts[at],
        outcome(at),
        matchedBy[at],
        key,
        values,
        held,
        changed[at] == null ? List.of() : Arrays.stream(changed[at]).boxed().toList(),
        notes[at] == null ? List.of() : notes[at]);
  }
}
