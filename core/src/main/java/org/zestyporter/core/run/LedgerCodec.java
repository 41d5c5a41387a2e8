package org.zestyporter.core.run;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ColumnCodec;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/**
 * Writes chunks of a ledger as bytes and reads them back: a version, the length of what follows,
 * then columns of lines, outcomes, keys, values and records before (only where they differ from the
 * values), packed. What is not there takes no room.
 */
public final class LedgerCodec {
  private static final byte VERSION = 3;

  /** The version that was always packed by the DEFLATE format. */
  private static final byte DEFLATED = 2;

  /** The version before, that did not hold the records as they were left. */
  private static final byte WITHOUT_LEFT = 1;

  /** The version and the length of what is packed. */
  private static final int HEAD = 5;

  private static final int SOFTENED = 1;
  private static final int QUESTION = 2;

  private LedgerCodec() {}

  /** True if these bytes were written here. */
  public static boolean isOurs(byte[] packed) {
    return packed.length > 0 && packed[0] >= WITHOUT_LEFT && packed[0] <= VERSION;
  }

  /** True if they hold the records as the run left them, by which it can be undone. */
  public static boolean holdsLeft(byte[] packed) {
    return isOurs(packed) && packed[0] >= DEFLATED;
  }

  public static byte[] encode(LedgerChunk chunk) {
    Utf8 out = new Utf8(1 << 16);
    int size = chunk.size();
    out.putVarint(size).putVarint(chunk.firstRow());
    long line = 0;
    for (long next : chunk.lines()) {
      out.putVarint(next - line);
      line = next;
    }
    int row = -1;
    for (int next : chunk.rows()) {
      out.putVarint(next - row - 1);
      row = next;
    }
    out.put(chunk.parts() == null ? 0 : 1);
    for (int i = 0; chunk.parts() != null && i < size; i++) {
      out.putVarint(chunk.parts()[i]);
    }
    out.put(chunk.outcomes(), 0, size).put(chunk.matchedBy(), 0, size);
    ValueColumn[] keys = keys(chunk);
    out.putVarint(keys.length);
    for (ValueColumn column : keys) {
      ColumnCodec.write(column, out);
    }
    for (ValueColumn column : chunk.after()) {
      ColumnCodec.write(column, out);
    }
    LedgerRecords.writeBefore(chunk, out);
    changed(chunk, out);
    LedgerRecords.writeLeft(chunk, keys, out);
    notes(chunk, out);
    return pack(out);
  }

  private static ValueColumn[] keys(LedgerChunk chunk) {
    int width = 0;
    for (List<Object> key : chunk.keys()) {
      width = Math.max(width, key == null ? 0 : key.size());
    }
    ValueColumn[] columns = new ValueColumn[width];
    for (int part = 0; part < width; part++) {
      Object[] parts = new Object[chunk.size()];
      for (int i = 0; i < parts.length; i++) {
        parts[i] = chunk.keys()[i] == null ? null : chunk.keys()[i].get(part);
      }
      columns[part] = ValueColumn.of(parts, null);
    }
    return columns;
  }

  private static void changed(LedgerChunk chunk, Utf8 out) {
    BitSet there = new BitSet();
    for (int i = 0; i < chunk.size(); i++) {
      there.set(i, chunk.changed()[i] != null);
    }
    LedgerRecords.writeBits(there, out);
    for (int i = there.nextSetBit(0); i >= 0; i = there.nextSetBit(i + 1)) {
      out.putVarint(chunk.changed()[i].length);
      for (int field : chunk.changed()[i]) {
        out.putVarint(field);
      }
    }
  }

  private static void notes(LedgerChunk chunk, Utf8 out) {
    BitSet there = new BitSet();
    for (int i = 0; i < chunk.size(); i++) {
      there.set(i, chunk.notes()[i] != null && !chunk.notes()[i].isEmpty());
    }
    LedgerRecords.writeBits(there, out);
    for (int i = there.nextSetBit(0); i >= 0; i = there.nextSetBit(i + 1)) {
      out.putVarint(chunk.notes()[i].size());
      for (LedgerEntry.Note note : chunk.notes()[i]) {
        out.put((note.softened() ? SOFTENED : 0) | (note.question() ? QUESTION : 0));
        ColumnCodec.putText(note.code().name(), out);
        ColumnCodec.putText(note.field(), out);
        ColumnCodec.putText(note.value(), out);
        ColumnCodec.putText(note.reason(), out);
      }
    }
  }

  private static byte[] pack(Utf8 out) {
    byte[] packed = Packing.pack(out.array(), out.size());
    return ByteBuffer.allocate(HEAD + packed.length)
        .put(VERSION)
        .putInt(out.size())
        .put(packed)
        .array();
  }

  private static byte[] unpack(byte[] packed) {
    int size = ByteBuffer.wrap(packed).getInt(1);
    return packed[0] == VERSION
        ? Packing.unpack(packed, HEAD, size)
        : Packing.inflate(packed, HEAD, size);
  }

  /** Reads a chunk back, of the destination that it was written for. */
  public static LedgerChunk decode(byte[] packed, LedgerLayout layout) {
    return decode(packed, layout, true);
  }

  /** Reads what a chunk says of its rows, but no keys and no whole records, which takes longer. */
  public static LedgerChunk decodeRows(byte[] packed, LedgerLayout layout) {
    return decode(packed, layout, false);
  }

  @SuppressWarnings("unchecked")
  private static LedgerChunk decode(byte[] packed, LedgerLayout layout, boolean records) {
    ColumnCodec.Input in = new ColumnCodec.Input(unpack(packed));
    int size = in.whole();
    long firstRow = in.varint();
    long[] lines = new long[size];
    for (int i = 0; i < size; i++) {
      lines[i] = in.varint() + (i == 0 ? 0 : lines[i - 1]);
    }
    int[] rows = new int[size];
    for (int i = 0; i < size; i++) {
      rows[i] = in.whole() + 1 + (i == 0 ? -1 : rows[i - 1]);
    }
    int[] parts = in.next() == 0 ? null : new int[size];
    for (int i = 0; parts != null && i < size; i++) {
      parts[i] = in.whole();
    }
    byte[] outcomes = bytes(in, size);
    byte[] matchedBy = bytes(in, size);
    ValueColumn[] keyColumns = new ValueColumn[in.whole()];
    for (int part = 0; part < keyColumns.length; part++) {
      keyColumns[part] = ColumnCodec.read(in, size);
    }
    List<Object>[] keys = records ? keys(keyColumns, size) : new List[size];
    ValueColumn[] after = new ValueColumn[layout.fields().size()];
    for (int f = 0; f < after.length; f++) {
      after[f] = ColumnCodec.read(in, size);
    }
    BitSet stood = LedgerRecords.readBits(in);
    ValueColumn[] before = LedgerRecords.readBefore(in, size, layout, after, stood, records);
    int[][] changed = new int[size][];
    BitSet there = LedgerRecords.readBits(in);
    for (int i = there.nextSetBit(0); i >= 0; i = there.nextSetBit(i + 1)) {
      changed[i] = new int[in.whole()];
      for (int c = 0; c < changed[i].length; c++) {
        changed[i][c] = in.whole();
      }
    }
    BitSet written = packed[0] == WITHOUT_LEFT ? new BitSet() : LedgerRecords.readBits(in);
    ValueColumn[] left =
        records
            ? LedgerRecords.readLeft(
                in, size, layout, after, keyColumns, stood, before, changed, written)
            : LedgerRecords.passLeft(in, layout, written);
    return new LedgerChunk(
        layout,
        firstRow,
        lines,
        rows,
        parts,
        outcomes,
        matchedBy,
        keys,
        after,
        records ? stood : new BitSet(),
        before,
        records ? written : new BitSet(),
        left,
        changed,
        notes(in, size));
  }

  static byte[] bytes(ColumnCodec.Input in, int size) {
    byte[] bytes = new byte[size];
    for (int i = 0; i < size; i++) {
      bytes[i] = (byte) in.next();
    }
    return bytes;
  }

  @SuppressWarnings("unchecked")
  private static List<Object>[] keys(ValueColumn[] columns, int size) {
    List<Object>[] keys = new List[size];
    for (ValueColumn column : columns) {
      for (int i = 0; i < size; i++) {
        Object value = column.value(i);
        if (value != null) {
          keys[i] = keys[i] == null ? new ArrayList<>(columns.length) : keys[i];
          keys[i].add(value);
        }
      }
    }
    return keys;
  }

  @SuppressWarnings("unchecked")
  private static List<LedgerEntry.Note>[] notes(ColumnCodec.Input in, int size) {
    List<LedgerEntry.Note>[] notes = new List[size];
    BitSet there = LedgerRecords.readBits(in);
    for (int i = there.nextSetBit(0); i >= 0; i = there.nextSetBit(i + 1)) {
      int count = in.whole();
      notes[i] = new ArrayList<>(count);
      for (int n = 0; n < count; n++) {
        int flags = in.next();
        ProblemCode code = ProblemCode.valueOf(in.text());
        @Nullable String field = in.text();
        @Nullable String value = in.text();
        notes[i].add(
            new LedgerEntry.Note(
                code, field, value, in.text(), (flags & SOFTENED) != 0, (flags & QUESTION) != 0));
      }
    }
    return notes;
  }
}
