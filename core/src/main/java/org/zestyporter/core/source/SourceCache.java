package org.zestyporter.core.source;

import java.io.ByteArrayInputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.Inflater;
import java.util.zip.InflaterInputStream;
import org.zestyporter.core.value.Cell;

/**
 * The cells of a file, parsed once and kept by column, so that nothing is parsed again.
 *
 * <p>Reading a chunk of a column touches only its own block, wherever it stands in the file. Safe
 * for use by several threads; memory holds the index and a few recently used blocks.
 */
public final class SourceCache implements Closeable {
  /** Rows in a full chunk. */
  public static final int CHUNK_ROWS = 4096;

  private static final int KEPT_BLOCKS = 128;

  private final FileChannel channel;
  private final long[][] index;
  private final long[] firstRow;
  private final Map<Long, ColumnChunk> recent =
      new LinkedHashMap<>(KEPT_BLOCKS * 2, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, ColumnChunk> eldest) {
          return size() > KEPT_BLOCKS;
        }
      };

  private SourceCache(FileChannel channel, long[][] index) {
    this.channel = channel;
    this.index = index;
    this.firstRow = new long[index.length + 1];
    for (int i = 0; i < index.length; i++) {
      firstRow[i + 1] = firstRow[i] + index[i][0];
    }
  }

  /** Opens a cache that was written to the end. */
  public static SourceCache open(Path file) throws IOException {
    FileChannel channel = FileChannel.open(file);
    try {
      long size = channel.size();
      long start = read(channel, size - 8, 8).getLong();
      ByteBuffer in = read(channel, start, (int) (size - 8 - start));
      long[][] index = new long[in.getInt()][];
      for (int i = 0; i < index.length; i++) {
        index[i] = new long[in.getInt()];
        for (int j = 0; j < index[i].length; j++) {
          index[i][j] = in.getLong();
        }
      }
      return new SourceCache(channel, index);
    } catch (IOException | RuntimeException e) {
      channel.close();
      throw e;
    }
  }

  public int chunks() {
    return index.length;
  }

  /** Rows of the whole file, titles, blank rows and all. */
  public long rows() {
    return firstRow[index.length];
  }

  public int rows(int chunk) {
    return (int) index[chunk][0];
  }

  /** Index of a chunk's first row in the file, from 0. */
  public long firstRow(int chunk) {
    return firstRow[chunk];
  }

  /** Line number of the last row; 0 for a file without rows. */
  public long lastLine() {
    return index.length == 0 ? 0 : index[index.length - 1][2];
  }

  /** Columns of a chunk: as many as its widest row has cells. */
  public int width(int chunk) {
    return index[chunk].length - 5;
  }

  /** Columns of the widest row of the file. */
  public int width() {
    int width = 0;
    for (int i = 0; i < index.length; i++) {
      width = Math.max(width, width(i));
    }
    return width;
  }

  /** The chunk that holds the first row at or after a line; {@link #chunks()} if there is none. */
  public int chunkOfLine(long line) {
    int low = 0;
    int high = index.length;
    while (low < high) {
      int middle = (low + high) >>> 1;
      if (index[middle][2] < line) {
        low = middle + 1;
      } else {
        high = middle;
      }
    }
    return low;
  }

  /** Line numbers of a chunk's rows. */
  public long[] lines(int chunk) {
    long[] lines = new long[rows(chunk)];
    try (Block block = new Block(index[chunk][3], index[chunk][4])) {
      long line = index[chunk][1];
      for (int i = 0; i < lines.length; i++) {
        line += block.varint();
        lines[i] = line;
      }
      return lines;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** A column of a chunk; blank cells where the chunk's rows are narrower. */
  public ColumnChunk column(int chunk, int column) {
    if (column >= width(chunk)) {
      return ColumnChunk.blank(rows(chunk));
    }
    long key = ((long) chunk << 20) | column;
    synchronized (recent) {
      ColumnChunk kept = recent.get(key);
      if (kept != null) {
        return kept;
      }
    }
    ColumnChunk read = readColumn(chunk, column);
    synchronized (recent) {
      recent.put(key, read);
    }
    return read;
  }

  private ColumnChunk readColumn(int chunk, int column) {
    try (Block block = new Block(index[chunk][4 + column], index[chunk][5 + column])) {
      Cell[] distinct = new Cell[(int) block.varint()];
      Cell.Kind[] kinds = Cell.Kind.values();
      for (int i = 0; i < distinct.length; i++) {
        Cell.Kind kind = kinds[block.next()];
        String text = block.text((int) block.varint());
        distinct[i] = kind == Cell.Kind.TEXT ? Cell.text(text) : new Cell(kind, text);
      }
      int[] codes = new int[rows(chunk)];
      boolean narrow = distinct.length <= 256;
      for (int i = 0; i < codes.length; i++) {
        codes[i] = narrow ? block.next() : block.next() << 8 | block.next();
      }
      return new ColumnChunk(distinct, codes);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Override
  public void close() throws IOException {
    channel.close();
  }

  private static ByteBuffer read(FileChannel channel, long from, int length) throws IOException {
    ByteBuffer buffer = ByteBuffer.allocate(length);
    while (buffer.hasRemaining()) {
      if (channel.read(buffer, from + buffer.position()) < 0) {
        throw new IOException("the cache is cut short");
      }
    }
    return buffer.flip();
  }

  private final class Block implements Closeable {
    private final Inflater inflater = new Inflater(true);
    private final byte[] bytes;
    private int at;

    Block(long from, long to) throws IOException {
      byte[] packed = read(channel, from, (int) (to - from)).array();
      try (InflaterInputStream in =
          new InflaterInputStream(new ByteArrayInputStream(packed), inflater)) {
        bytes = in.readAllBytes();
      }
    }

    int next() {
      return bytes[at++] & 0xFF;
    }

    long varint() {
      long value = 0;
      for (int shift = 0; ; shift += 7) {
        int b = next();
        value |= (long) (b & 0x7F) << shift;
        if (b < 0x80) {
          return value;
        }
      }
    }

    String text(int length) {
      String text = new String(bytes, at, length, StandardCharsets.UTF_8);
      at += length;
      return text;
    }

    @Override
    public void close() {
      inflater.end();
    }
  }
}
