package org.zestyporter.core.source;

import java.io.BufferedOutputStream;
import java.io.ByteArrayOutputStream;
import java.io.Closeable;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import org.zestyporter.core.value.Cell;

/**
 * Writes the rows of a file into a {@link SourceCache}.
 *
 * <p>Layout: blocks of {@link SourceCache#CHUNK_ROWS} rows, each a deflated block of line numbers
 * and one deflated block a column (its distinct cells, then one code a row); at the end an index of
 * where each block stands, and 8 bytes that say where the index begins.
 */
final class CacheWriter implements RowSink, Closeable {
  private final Path target;
  private final Path partial;
  private final DataOutputStream out;
  private final List<long[]> index = new ArrayList<>();
  private final List<ColumnBuilder> columns = new ArrayList<>();
  private final long[] lines = new long[SourceCache.CHUNK_ROWS];
  private final Deflater deflater = new Deflater(Deflater.BEST_SPEED, true);
  private int rows;
  private long position;

  CacheWriter(Path target) throws IOException {
    this.target = target;
    this.partial = target.resolveSibling(target.getFileName() + ".partial");
    this.out =
        new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(partial), 1 << 16));
  }

  @Override
  public void row(long line, List<Cell> cells) throws IOException {
    while (columns.size() < cells.size()) {
      columns.add(new ColumnBuilder());
    }
    for (int i = 0; i < cells.size(); i++) {
      columns.get(i).set(rows, cells.get(i));
    }
    lines[rows++] = line;
    if (rows == SourceCache.CHUNK_ROWS) {
      flush();
    }
  }

  /** Writes what is left and puts the finished cache in its place. */
  void finish() throws IOException {
    if (rows > 0) {
      flush();
    }
    out.writeInt(index.size());
    for (long[] chunk : index) {
      out.writeInt(chunk.length);
      for (long value : chunk) {
        out.writeLong(value);
      }
    }
    out.writeLong(position);
    out.close();
    Files.move(
        partial, target, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
  }

  private void flush() throws IOException {
    // rows, first line, last line, then the start of each block and the end of the last
    long[] entry = new long[3 + 2 + columns.size()];
    entry[0] = rows;
    entry[1] = lines[0];
    entry[2] = lines[rows - 1];
    entry[3] = position;
    ByteArrayOutputStream block = new ByteArrayOutputStream();
    for (int i = 0; i < rows; i++) {
      varint(block, i == 0 ? 0 : lines[i] - lines[i - 1]);
    }
    deflate(block);
    for (int c = 0; c < columns.size(); c++) {
      entry[4 + c] = position;
      block.reset();
      columns.get(c).write(block, rows);
      deflate(block);
    }
    entry[4 + columns.size()] = position;
    index.add(entry);
    columns.clear();
    rows = 0;
  }

  private void deflate(ByteArrayOutputStream block) throws IOException {
    ByteArrayOutputStream packed = new ByteArrayOutputStream(block.size() / 2 + 16);
    deflater.reset();
    try (DeflaterOutputStream deflated = new DeflaterOutputStream(packed, deflater)) {
      block.writeTo(deflated);
    }
    packed.writeTo(out);
    position += packed.size();
  }

  /** Drops what was written if {@link #finish} was not reached. */
  @Override
  public void close() throws IOException {
    out.close();
    deflater.end();
    Files.deleteIfExists(partial);
  }

  static void varint(ByteArrayOutputStream out, long value) {
    long rest = value;
    while ((rest & ~0x7FL) != 0) {
      out.write((int) (rest & 0x7F | 0x80));
      rest >>>= 7;
    }
    out.write((int) rest);
  }

  private static final class ColumnBuilder {
    private final Map<Cell, Integer> dictionary = new HashMap<>();
    private final List<Cell> distinct = new ArrayList<>();
    private final int[] codes = new int[SourceCache.CHUNK_ROWS];

    ColumnBuilder() {
      dictionary.put(Cell.BLANK, 0);
      distinct.add(Cell.BLANK);
    }

    void set(int row, Cell cell) {
      if (cell == Cell.BLANK) {
        return;
      }
      Integer code = dictionary.get(cell);
      if (code == null) {
        code = distinct.size();
        dictionary.put(cell, code);
        distinct.add(cell);
      }
      codes[row] = code;
    }

    void write(ByteArrayOutputStream out, int rows) {
      varint(out, distinct.size());
      for (Cell cell : distinct) {
        byte[] text = cell.text().getBytes(StandardCharsets.UTF_8);
        out.write(cell.kind().ordinal());
        varint(out, text.length);
        out.writeBytes(text);
      }
      boolean narrow = distinct.size() <= 256;
      for (int i = 0; i < rows; i++) {
        if (!narrow) {
          out.write(codes[i] >>> 8);
        }
        out.write(codes[i]);
      }
    }
  }
}
