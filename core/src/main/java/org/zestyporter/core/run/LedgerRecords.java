package org.zestyporter.core.run;

import java.util.BitSet;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ColumnCodec;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/**
 * The part of a ledger's bytes that holds whole records, as they stood before and as they were
 * left: only values that do not follow from the others.
 */
final class LedgerRecords {
  private static final int[] NONE = {};

  private LedgerRecords() {}

  static void writeBefore(LedgerChunk chunk, Utf8 out) {
    writeBits(chunk.stood(), out);
    for (int field = 0; !chunk.stood().isEmpty() && field < chunk.before().length; field++) {
      ValueColumn before = chunk.before()[field];
      ValueColumn after = after(chunk.layout(), chunk.after(), field);
      BitSet told = chunk.stood();
      if (after != null) {
        told = new BitSet(chunk.size());
        for (int i = chunk.stood().nextSetBit(0); i >= 0; i = chunk.stood().nextSetBit(i + 1)) {
          told.set(i, !before.isEqual(i, after, i));
        }
        writeBits(told, out);
      }
      ColumnCodec.write(before.pick(told.stream().toArray()), out);
    }
  }

  /**
   * @param records false to pass them over
   */
  static ValueColumn[] readBefore(
      ColumnCodec.Input in,
      int size,
      LedgerLayout layout,
      ValueColumn[] after,
      BitSet stood,
      boolean records) {
    int fields = stood.isEmpty() ? 0 : layout.record().size();
    ValueColumn[] before = new ValueColumn[records ? fields : 0];
    for (int field = 0; field < fields; field++) {
      ValueColumn given = after(layout, after, field);
      BitSet told = given == null ? stood : readBits(in);
      ValueColumn column = ColumnCodec.read(in, told.cardinality());
      if (records) {
        before[field] = whole(size, told, column, i -> stood.get(i) ? given : null);
      }
    }
    return before;
  }

  static void writeLeft(LedgerChunk chunk, ValueColumn[] keys, Utf8 out) {
    writeBits(chunk.written(), out);
    for (int field = 0; !chunk.written().isEmpty() && field < chunk.left().length; field++) {
      Expected expected =
          Expected.of(
              chunk.layout(),
              field,
              chunk.after(),
              keys,
              chunk.stood(),
              chunk.before(),
              chunk.changed());
      left(chunk.left()[field], chunk.written(), expected, out);
    }
  }

  /**
   * @param written the entries whose records were read back
   */
  static ValueColumn[] readLeft(
      ColumnCodec.Input in,
      int size,
      LedgerLayout layout,
      ValueColumn[] after,
      ValueColumn[] keys,
      BitSet stood,
      ValueColumn[] before,
      int[][] changed,
      BitSet written) {
    ValueColumn[] left = new ValueColumn[written.isEmpty() ? 0 : layout.record().size()];
    for (int field = 0; field < left.length; field++) {
      Expected expected = Expected.of(layout, field, after, keys, stood, before, changed);
      left[field] = left(in, size, written, expected);
    }
    return left;
  }

  /** Passes over what {@link #readLeft} reads. */
  static ValueColumn[] passLeft(ColumnCodec.Input in, LedgerLayout layout, BitSet written) {
    for (int field = 0; !written.isEmpty() && field < layout.record().size(); field++) {
      ColumnCodec.read(in, readBits(in).cardinality());
    }
    return new ValueColumn[0];
  }

  /**
   * What a field of a record holds after it was written, if nobody but the run has a say in it.
   *
   * @param fill number of the fill that gives it; under 0 if none does
   * @param given what a new record is given; null if nothing
   */
  private record Expected(
      int fill,
      @Nullable ValueColumn given,
      BitSet stood,
      @Nullable ValueColumn before,
      int[][] changed) {

    static Expected of(
        LedgerLayout layout,
        int field,
        ValueColumn[] after,
        ValueColumn[] keys,
        BitSet stood,
        ValueColumn[] before,
        int[][] changed) {
      int fill = layout.positions().indexOf(field);
      int part = layout.key().indexOf(field);
      ValueColumn key = part >= 0 && part < keys.length ? keys[part] : null;
      return new Expected(
          fill,
          fill >= 0 ? after[fill] : key,
          stood,
          before.length == 0 ? null : before[field],
          changed);
    }

    /** The column that says it for an entry; null if it is blank. */
    @Nullable ValueColumn column(int entry) {
      return stood.get(entry) && !isChanged(entry) ? before : given;
    }

    private boolean isChanged(int entry) {
      for (int one : changed[entry] == null ? NONE : changed[entry]) {
        if (one == fill) {
          return true;
        }
      }
      return false;
    }
  }

  private static void left(ValueColumn left, BitSet written, Expected expected, Utf8 out) {
    BitSet told = new BitSet();
    // all are new, and stand as they were given
    boolean isKnown = left == expected.given && expected.stood.isEmpty();
    for (int i = isKnown ? -1 : written.nextSetBit(0); i >= 0; i = written.nextSetBit(i + 1)) {
      ValueColumn column = expected.column(i);
      told.set(i, column == null ? !left.isBlank(i) : !left.isEqual(i, column, i));
    }
    writeBits(told, out);
    ColumnCodec.write(left.pick(told.stream().toArray()), out);
  }

  private static ValueColumn left(
      ColumnCodec.Input in, int size, BitSet written, Expected expected) {
    BitSet told = readBits(in);
    ValueColumn column = ColumnCodec.read(in, told.cardinality());
    return whole(size, told, column, i -> written.get(i) ? expected.column(i) : null);
  }

  /** The column that says what a field of the record was given; null if nothing fills it. */
  private static @Nullable ValueColumn after(LedgerLayout layout, ValueColumn[] after, int field) {
    int fill = layout.positions().indexOf(field);
    return fill < 0 ? null : after[fill];
  }

  /**
   * A column of which only some values were written.
   *
   * @param told the entries whose values were
   * @param other the column that has the value of another entry; null if it is blank
   */
  private static ValueColumn whole(
      int size, BitSet told, ValueColumn column, IntFunction<@Nullable ValueColumn> other) {
    ColumnMaker all = new ColumnMaker();
    int at = 0;
    for (int i = 0; i < size; i++) {
      ValueColumn from = told.get(i) ? column : other.apply(i);
      if (from == null) {
        all.blank();
      } else {
        all.put(from, told.get(i) ? at++ : i);
      }
    }
    return all.column();
  }

  static void writeBits(BitSet set, Utf8 out) {
    byte[] bytes = set.toByteArray();
    out.putVarint(bytes.length).put(bytes, 0, bytes.length);
  }

  static BitSet readBits(ColumnCodec.Input in) {
    return BitSet.valueOf(LedgerCodec.bytes(in, in.whole()));
  }
}
