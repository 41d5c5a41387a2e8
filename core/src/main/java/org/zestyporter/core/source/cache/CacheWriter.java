package org.zestyporter.core.source.cache;

import java.io.BufferedOutputStream;
import java.io.Closeable;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import net.jpountz.lz4.LZ4Compressor;
import net.jpountz.lz4.LZ4Factory;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.parse.CellNote;
import org.zestyporter.core.source.parse.NoteCode;
import org.zestyporter.core.source.parse.RowSink;
import org.zestyporter.core.source.reading.CellFormat;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.source.reading.SheetMarks;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Utf8;

/**
 * Writes the rows of a file into a {@link SourceCache}.
 *
 * <p>Layout: chunks of at most {@link SourceCache#CHUNK_ROWS} rows, each a block of line numbers
 * and one block a column ({@link ColumnBlock}); at the end an index of where each block stands and
 * what is told of each column, and 8 bytes that say where it begins. A block is its length, then
 * its bytes, in the LZ4 block format if that is shorter; a blank column has an empty block.
 *
 * <p>The parser's thread collects a chunk while another one packs and writes the chunk before it.
 */
public final class CacheWriter implements RowSink, Closeable {
  /** A chunk of long texts, or of very many columns, ends early, so that memory stays bounded. */
  private static final int CHUNK_BYTES = 4_000_000;

  private static final int CHUNK_CELLS = 1_000_000;

  private final Path target;
  private final Path partial;
  private final ReadProgress progress;
  private final DataOutputStream out;
  private final List<long[]> index = new ArrayList<>();

  /** The columns of the chunk at hand, and how many it has. */
  private ColumnBuilder[] columns = {};

  private int width;

  /** The columns of the chunk that is packed. */
  private ColumnBuilder[] packed = {};

  /** Columns that may be used again. */
  private ColumnBuilder[] spare = {};

  private final long[] lines = new long[SourceCache.CHUNK_ROWS];
  private final Map<NoteCode, Map<Integer, CellNote>> notes = new EnumMap<>(NoteCode.class);
  private final FormatCounts formats = new FormatCounts();
  private @Nullable SheetMarks marks;
  private final List<CellNote> rowNotes = new ArrayList<>();
  private final boolean packs;
  private final CellSigns signs;
  private final Utf8 block = new Utf8(1 << 16);
  private byte[] pack = new byte[0];
  private final LZ4Compressor compressor = LZ4Factory.fastestJavaInstance().fastCompressor();
  private final ExecutorService packer =
      Executors.newSingleThreadExecutor(
          work -> {
            Thread thread = new Thread(work, "porter-cache");
            thread.setDaemon(true);
            return thread;
          });
  private Future<?> packing;
  private int rows;
  private long allRows;
  private int bytes;
  private long position;

  /**
   * @param packs true if blocks are packed: smaller, and slower to write and read
   */
  public CacheWriter(Path target, ReadProgress progress, boolean packs, CellSigns signs)
      throws IOException {
    this.packs = packs;
    this.signs = signs;
    this.target = target;
    this.progress = progress;
    this.partial = target.resolveSibling(target.getFileName() + ".partial");
    this.out =
        new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(partial), 1 << 16));
  }

  @Override
  public void cell(int column, Cell cell) {
    bytes += builder(column).cell(rows, cell);
  }

  @Override
  public void text(int column, byte[] text, int from, int to, boolean whole) {
    bytes += builder(column).text(rows, text, from, to, whole);
  }

  private ColumnBuilder builder(int column) {
    return column < width ? columns[column] : widened(column);
  }

  private ColumnBuilder widened(int column) {
    if (column >= SourceCache.MOST_COLUMNS) {
      throw ErrorCode.TOO_WIDE.error(
          String.format(
              Locale.ROOT,
              "Record %,d has more than %,d columns, which is more than any table has.",
              allRows + 1,
              SourceCache.MOST_COLUMNS));
    }
    if (column >= columns.length) {
      columns = Arrays.copyOf(columns, column + column / 2 + 1);
    }
    for (; width <= column; width++) {
      if (width < spare.length) {
        columns[width] = spare[width];
        columns[width].clear();
      } else {
        columns[width] = new ColumnBuilder();
      }
    }
    return columns[column];
  }

  @Override
  public void note(NoteCode code, int column, String sample) {
    rowNotes.add(new CellNote(code, column, 1, 0, sample));
  }

  @Override
  public void endRow(long line) throws IOException {
    for (CellNote note : rowNotes) {
      notes
          .computeIfAbsent(note.code(), c -> new HashMap<>())
          .merge(
              note.column(),
              new CellNote(note.code(), note.column(), 1, line, note.sample()),
              (a, b) -> new CellNote(a.code(), a.column(), a.cells() + 1, a.line(), a.sample()));
    }
    rowNotes.clear();
    lines[rows++] = line;
    allRows++;
    if (rows == SourceCache.CHUNK_ROWS
        || bytes > CHUNK_BYTES
        || (long) rows * width > CHUNK_CELLS) {
      flush();
    }
  }

  @Override
  public void format(int column, boolean moment, String code) {
    formats.count(column, moment, code);
  }

  /** How most numbers and most moments of the columns are shown. */
  public List<CellFormat> formats() {
    return formats.commonest();
  }

  @Override
  public void marks(SheetMarks found) {
    // of several sheets the first shows where the titles are
    marks = marks == null ? found : marks;
  }

  /** What the first sheet shows beside its cells. */
  public SheetMarks marks() {
    return marks == null ? SheetMarks.NONE : marks;
  }

  /** What the parser noted, by code and column. */
  public List<CellNote> notes() {
    return notes.values().stream().flatMap(n -> n.values().stream()).toList();
  }

  /** Rows so far. */
  public long rows() {
    return allRows;
  }

  /** Writes what is left and puts the finished cache in its place. */
  public void finish() throws IOException {
    if (rows > 0) {
      flush();
    }
    await();
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
    progress.check();
    progress.rows(allRows);
    ColumnBuilder[] chunk = Arrays.copyOf(columns, width);
    long[] chunkLines = Arrays.copyOf(lines, rows);
    await();
    spare = packed;
    packed = chunk;
    packing =
        packer.submit(
            () -> {
              pack(chunkLines, chunk);
              return null;
            });
    width = 0;
    rows = 0;
    bytes = 0;
  }

  private void await() throws IOException {
    if (packing == null) {
      return;
    }
    try {
      packing.get();
    } catch (ExecutionException e) {
      throw new CacheException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
  }

  private void pack(long[] chunkLines, ColumnBuilder[] chunk) throws IOException {
    // rows, first line, last line, then the start of each block and the end of the last, then the
    // signs of each column
    long[] entry = new long[3 + 2 + 2 * chunk.length];
    entry[0] = chunkLines.length;
    entry[1] = chunkLines[0];
    entry[2] = chunkLines[chunkLines.length - 1];
    entry[3] = position;
    block.clear();
    for (int i = 0; i < chunkLines.length; i++) {
      block.putUnsigned(i == 0 ? 0 : chunkLines[i] - chunkLines[i - 1]);
    }
    write();
    for (int c = 0; c < chunk.length; c++) {
      entry[4 + c] = position;
      if (!chunk[c].isBlank()) {
        block.clear();
        chunk[c].encode(chunkLines.length, block);
        write();
        entry[5 + chunk.length + c] = chunk[c].signs(chunkLines.length, signs);
      }
    }
    entry[4 + chunk.length] = position;
    index.add(entry);
  }

  /** Writes the block, packed if that is wanted and halves it: else unpacking costs more. */
  private void write() throws IOException {
    int size = block.size();
    out.writeInt(size);
    boolean isPacked = false;
    int length = size;
    if (packs) {
      int most = compressor.maxCompressedLength(size);
      if (pack.length < most) {
        pack = new byte[most];
      }
      int packed = compressor.compress(block.array(), 0, size, pack, 0, most);
      isPacked = packed <= size / 2;
      length = isPacked ? packed : size;
    }
    out.write(isPacked ? pack : block.array(), 0, length);
    position += 4 + length;
  }

  /** Drops what was written if {@link #finish} was not reached. */
  @Override
  public void close() throws IOException {
    packer.shutdown();
    try {
      await();
    } finally {
      out.close();
      Files.deleteIfExists(partial);
    }
  }
}
