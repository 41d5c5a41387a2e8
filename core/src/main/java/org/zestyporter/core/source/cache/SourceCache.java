package org.zestyporter.core.source.cache;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.concurrent.atomic.AtomicReferenceArray;
import net.jpountz.lz4.LZ4Factory;
import net.jpountz.lz4.LZ4SafeDecompressor;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.parse.SheetErrors;
import org.zestyporter.core.value.Cell;

/**
 * The cells of a file, parsed once and kept by column, so that nothing is parsed again.
 *
 * <p>Reading a chunk of a column touches only its own block, wherever it stands in the file. Safe
 * for use by several threads; memory holds the index, and what was used last of all open caches (an
 * eighth of it at most), or of each column.
 */
public final class SourceCache implements Closeable {
  /** Columns that a file may have at most, whatever its format. */
  static final int MOST_COLUMNS = SheetErrors.MAX_COLUMNS;

  /** Rows in a full chunk. */
  public static final int CHUNK_ROWS = 4096;

  /** Changes whenever the file format does, so that an older cache is not opened. */
  public static final int VERSION = 5;

  private static final long LEAST_KEPT = 16L << 20;

  private static final long MOST_KEPT = 384L << 20;

  /** What any work needs. */
  private static final long AT_WORK = 256L << 20;

  /** The part of the memory beside that. */
  private static final int SHARE = 8;

  private static final LZ4SafeDecompressor UNPACK =
      LZ4Factory.fastestJavaInstance().safeDecompressor();

  private final SteadyFile file;
  private final long[][] index;
  private final long[] firstRow;

  /**
   * A column of a chunk.
   *
   * @param at {@code chunk << 20 | column}
   */
  private record Key(SourceCache of, long at) {}

  /** Columns of chunks, as many as there is room for; made ready once somebody asks for one. */
  private static final class Recent {
    static final Cache<Key, ColumnChunk> COLUMNS =
        Caffeine.newBuilder()
            .maximumWeight(room(Runtime.getRuntime().maxMemory()))
            .weigher((Key key, ColumnChunk column) -> Math.toIntExact(column.weight()))
            .executor(Runnable::run)
            .build();

    private static long room(long memory) {
      return Math.max(LEAST_KEPT, Math.min(MOST_KEPT, (memory - AT_WORK) / SHARE));
    }
  }

  /** Of one that is gone through once or twice, from beginning to end, what was read last. */
  private final @Nullable AtomicReferenceArray<Last> last;

  /** What was read last of a column. */
  private record Last(int chunk, ColumnChunk read) {}

  private SourceCache(SteadyFile file, long[][] index, boolean once) {
    this.file = file;
    this.index = index;
    this.last = once ? new AtomicReferenceArray<>(MOST_COLUMNS) : null;
    this.firstRow = new long[index.length + 1];
    for (int i = 0; i < index.length; i++) {
      firstRow[i + 1] = firstRow[i] + index[i][0];
    }
  }

  /** Opens a cache that was written to the end, to be asked for this and that. */
  public static SourceCache open(Path file) throws IOException {
    return open(file, false);
  }

  /** Opens one that is gone through once or twice, so that hardly anything is kept of it. */
  public static SourceCache openOnce(Path file) throws IOException {
    return open(file, true);
  }

  private static SourceCache open(Path path, boolean once) throws IOException {
    SteadyFile file = new SteadyFile(path);
    try {
      long size = file.size();
      long start = file.read(size - 8, 8).getLong();
      ByteBuffer in = file.read(start, (int) (size - 8 - start));
      long[][] index = new long[in.getInt()][];
      for (int i = 0; i < index.length; i++) {
        index[i] = new long[in.getInt()];
        for (int j = 0; j < index[i].length; j++) {
          index[i][j] = in.getLong();
        }
      }
      return new SourceCache(file, index, once);
    } catch (IOException | RuntimeException e) {
      file.close();
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
    return (index[chunk].length - 5) / 2;
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

  /** True if a column holds nothing in a chunk; nothing is read to tell so. */
  public boolean isBlank(int chunk, int column) {
    return column >= width(chunk) || index[chunk][4 + column] == index[chunk][5 + column];
  }

  /** True if no row of a chunk can be blank in a column; nothing is read to tell so. */
  public boolean isFull(int chunk, int column) {
    return !isBlank(chunk, column) && (signs(chunk, column) & ColumnSigns.BLANK) == 0;
  }

  /**
   * False if no cell of a column has a sign in a chunk; nothing is read to tell so.
   *
   * @param sign one of {@link CellSigns}
   */
  public boolean mayHold(int chunk, int column, int sign) {
    return !isBlank(chunk, column) && (signs(chunk, column) & sign) != 0;
  }

  /**
   * False if no cell of a column begins with a letter in a chunk, be it a capital or not; nothing
   * is read to tell so.
   *
   * @param letter of ASCII, or the first byte of it in UTF-8
   */
  public boolean mayBegin(int chunk, int column, int letter) {
    return !isBlank(chunk, column) && (signs(chunk, column) & ColumnSigns.beginning(letter)) != 0;
  }

  private long signs(int chunk, int column) {
    return index[chunk][5 + width(chunk) + column];
  }

  /** A cell by its line; blank where there is none. */
  public Cell cellAt(long line, int column) {
    int chunk = chunkOfLine(line);
    if (chunk == chunks()) {
      return Cell.BLANK;
    }
    int row = Arrays.binarySearch(lines(chunk), line);
    return row < 0 ? Cell.BLANK : column(chunk, column).cell(row);
  }

  /** Line numbers of a chunk's rows. */
  public long[] lines(int chunk) {
    long[] lines = new long[rows(chunk)];
    long first = index[chunk][1];
    if (index[chunk][2] - first == lines.length - 1) {
      Arrays.setAll(lines, row -> first + row);
      return lines;
    }
    try {
      byte[] steps = block(index[chunk][3], index[chunk][4]);
      int at = 0;
      for (int i = 0; i < lines.length; i++) {
        long step = 0;
        for (int shift = 0, b = -1; b < 0; shift += 7) {
          b = steps[at++];
          step |= (long) (b & 0x7F) << shift;
        }
        lines[i] = (i == 0 ? first : lines[i - 1]) + step;
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
    if (last != null) {
      return lately(chunk, column);
    }
    Key key = new Key(this, ((long) chunk << 20) | column);
    return Recent.COLUMNS.get(key, k -> readColumn(chunk, column)).own();
  }

  private ColumnChunk lately(int chunk, int column) {
    Last known = last.get(column);
    if (known == null || known.chunk != chunk) {
      known = new Last(chunk, readColumn(chunk, column));
      last.set(column, known);
    }
    return known.read;
  }

  private ColumnChunk readColumn(int chunk, int column) {
    long from = index[chunk][4 + column];
    long to = index[chunk][5 + column];
    if (from == to) {
      return ColumnChunk.blank(rows(chunk));
    }
    try {
      return ColumnBlock.read(block(from, to), rows(chunk));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @Override
  public void close() throws IOException {
    if (last == null) {
      Recent.COLUMNS.asMap().keySet().removeIf(key -> key.of == this);
    }
    file.close();
  }

  private byte[] block(long from, long to) throws IOException {
    ByteBuffer packed = file.read(from, (int) (to - from));
    int size = packed.getInt();
    int held = packed.capacity() - 4;
    byte[] bytes = new byte[size];
    if (held == size) {
      packed.get(bytes);
    } else {
      UNPACK.decompress(packed.array(), 4, held, bytes, 0);
    }
    return bytes;
  }
}
