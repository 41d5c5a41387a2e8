package org.zestyporter.core.source.parse;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.zestyporter.core.source.reading.Escape;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * Delimited text after RFC 4180, with any delimiter and quote; quotes doubled or behind a
 * backslash; lines ended by CR, LF or both, mixed; ragged rows, comments and a {@code sep=} line
 * allowed.
 *
 * <p>A quote is only one at the very beginning of a cell. What stands between a closing quote and
 * the next delimiter belongs to the cell.
 */
public final class DelimitedParser implements RowParser {
  /** Characters of the longest cell; a longer one is a broken file. */
  static final int LONGEST_CELL = 10_000_000;

  private static final int BUFFER = 1 << 16;

  /** Bytes that there is room for, at least, when the file is read on. */
  private static final int ROOM = 1 << 10;

  private static final int SHOWN_LINES = 50;

  @Override
  public Told parse(Path file, Reading reading, RowSink sink, ReadProgress progress)
      throws IOException {
    Charset charset = TextFiles.charset(reading.encoding());
    try (Utf8Input in = new Utf8Input(file, charset, progress)) {
      Scan scan = new Scan(in, reading, sink);
      scan.all();
      return new Told(List.of(), List.of(), List.of(), scan.widths());
    }
  }

  /** A quote was opened and never closed. */
  public static final class UnclosedQuoteException extends PorterException {
    private static final long serialVersionUID = 1L;
    private final long line;

    UnclosedQuoteException(String quote, long line, boolean tooLong) {
      super(
          ErrorCode.UNCLOSED_QUOTE,
          String.format(
              Locale.ROOT,
              "The quote (%s) opened on line %,d is %s.",
              quote,
              line,
              tooLong ? "not closed within 10 million characters" : "never closed"),
          ErrorCode.UNCLOSED_QUOTE.remedy(),
          null);
      this.line = line;
    }

    public long line() {
      return line;
    }
  }

  /**
   * Works on bytes of UTF-8, in which no byte of one character can be taken for another character.
   */
  private static final class Scan {
    private static final byte[] UNDECODABLE = utf8(String.valueOf(Cell.UNDECODABLE));

    private final Utf8Input in;
    private final RowSink sink;
    private final byte[] delimiter;
    private final byte first;
    private final boolean single;
    private final byte[] quote;
    private final boolean quoted;
    private final boolean backslash;
    private final byte[] comment;

    private byte[] buffer = new byte[BUFFER];
    private int end;
    private int at;

    /** Where the cell at hand begins in the buffer; all before it may be dropped. */
    private int start;

    private long line = 1;

    /** False if the cell at hand holds bytes that could not be decoded. */
    private boolean whole;

    /** Bytes at which a cell may end, or that need a closer look. */
    private final ByteStops special;

    /** The same of a cell in quotes. */
    private final ByteStops quotes;

    /** Bytes at which a quoted cell may begin. */
    private final boolean[] opening = new boolean[256];

    private byte[] unescaped = new byte[64];
    private final Map<Integer, Width> widths = new HashMap<>();
    private Width lastWidth = new Width(-1);

    /** Rows of one number of cells, and the lines of the first of them. */
    private static final class Width {
      private final int cells;
      private final List<Long> lines = new ArrayList<>();
      private long rows;

      Width(int cells) {
        this.cells = cells;
      }
    }

    private void endRow(long rowLine, int cells) throws IOException {
      if (lastWidth.cells != cells) {
        lastWidth = widths.computeIfAbsent(cells, Width::new);
      }
      if (lastWidth.rows++ < SHOWN_LINES) {
        lastWidth.lines.add(rowLine);
      }
      sink.endRow(rowLine);
    }

    List<RowWidth> widths() {
      return widths.values().stream().map(w -> new RowWidth(w.cells, w.rows, w.lines)).toList();
    }

    Scan(Utf8Input in, Reading reading, RowSink sink) {
      this.in = in;
      this.sink = sink;
      this.delimiter = utf8(reading.delimiter());
      this.first = delimiter[0];
      this.single = delimiter.length == 1;
      this.quoted = !reading.quote().isEmpty();
      this.quote = utf8(reading.quote());
      this.backslash = reading.escape() == Escape.BACKSLASH;
      this.comment = utf8(reading.comment() == null ? "" : reading.comment());
      this.special = new ByteStops(first, UNDECODABLE[0], backslash ? (byte) '\\' : first);
      byte closing = quoted ? quote[0] : first;
      this.quotes = new ByteStops(closing, UNDECODABLE[0], backslash ? (byte) '\\' : closing);
      if (quoted) {
        opening[quote[0] & 0xFF] = true;
        opening[' '] = true;
      }
    }

    private static byte[] utf8(String text) {
      return text.getBytes(StandardCharsets.UTF_8);
    }

    void all() throws IOException {
      skipSeparatorLine();
      while (more()) {
        start = at;
        if (comment.length > 0 && follows(comment)) {
          skipLine();
        } else {
          row();
        }
      }
    }

    private void row() throws IOException {
      long rowLine = line;
      int column = 0;
      while (true) {
        column = plainCells(column);
        start = at;
        if (quoted && more() && opensQuote()) {
          quotedCell(column);
        } else {
          plainCell(column);
        }
        refuseLongCell();
        if (!more()) {
          endRow(rowLine, column + 1);
          return;
        }
        byte c = buffer[at];
        if (c == '\n' || c == '\r') {
          lineEnd();
          endRow(rowLine, column + 1);
          return;
        }
        at += delimiter.length;
        column++;
      }
    }

    /**
     * Passes on the cells that lie in the buffer with their delimiter, and need no closer look.
     *
     * @return the column of the next cell, at whose beginning {@code at} is left
     */
    private int plainCells(int column) {
      byte[] bytes = buffer;
      ByteStops stops = special;
      boolean[] opens = opening;
      byte delimiting = first;
      int to = single ? end : at;
      int from = at;
      int next = column;
      while (from < to) {
        int start = from;
        int stop;
        int close;
        if (opens[bytes[from] & 0xFF]) {
          start++;
          stop = closingQuote(from, to);
          close = stop + 1;
        } else {
          stop = stops.next(bytes, from, to);
          close = stop;
        }
        if (close >= to || bytes[close] != delimiting || stop - start > LONGEST_CELL) {
          break;
        }
        if (stop > start) {
          sink.text(next, bytes, start, stop, true);
        }
        next++;
        from = close + 1;
      }
      at = from;
      return next;
    }

    /**
     * Where the quote stands that ends a cell which begins with one; {@code to} if it is not plain
     * to see.
     */
    private int closingQuote(int from, int to) {
      if (buffer[from] != quote[0] || quote.length > 1) {
        return to;
      }
      int stop = quotes.next(buffer, from + 1, to);
      return stop < to && buffer[stop] == quote[0] ? stop : to;
    }

    /** True if a quote is next; spaces before it, which RFC 4180 does not know, are dropped. */
    private boolean opensQuote() throws IOException {
      int spaces = 0;
      while (buffer[at + spaces] == ' ' && first != ' ') {
        spaces++;
        if (at + spaces == end && !fill()) {
          return false;
        }
      }
      if (!follows(spaces, quote)) {
        return false;
      }
      at += spaces;
      start = at;
      return true;
    }

    /** Leaves {@code at} on the delimiter, the line end or the end of the file. */
    private void plainCell(int column) throws IOException {
      int escapes = 0;
      whole = true;
      while (true) {
        byte[] bytes = buffer;
        int to = end;
        int i = special.next(bytes, at, to);
        at = i;
        if (i == to) {
          if (!more()) {
            break;
          }
          continue;
        }
        byte c = bytes[i];
        if (c == '\n' || c == '\r' || c == first && (single || follows(delimiter))) {
          break;
        }
        whole &= !isUndecodable(c);
        at++;
        if (c == '\\' && backslash) {
          escapes++;
          if (more()) {
            at++;
          }
        }
      }
      if (escapes > 0) {
        emitUnescaped(column, start, at, false);
      } else if (at > start) {
        sink.text(column, buffer, start, at, whole);
      }
    }

    private void quotedCell(int column) throws IOException {
      long openLine = line;
      at += quote.length;
      boolean plain = true;
      whole = true;
      while (true) {
        if (!more()) {
          throw new UnclosedQuoteException(text(quote), openLine, false);
        }
        byte c = buffer[at];
        if (c == quote[0] && follows(quote)) {
          at += quote.length;
          if (!backslash && more() && follows(quote)) {
            plain = false;
            at += quote.length;
            continue;
          }
          break;
        }
        if (c == '\\' && backslash) {
          plain = false;
          at++;
          if (more()) {
            at++;
          }
          continue;
        }
        if (c == '\n' || c == '\r') {
          lineEnd();
          continue;
        }
        whole &= !isUndecodable(c);
        at++;
      }
      int closeOffset = at - quote.length - start;
      boolean stray = false;
      while (more()) {
        byte c = buffer[at];
        if (c == '\n' || c == '\r' || c == first && (single || follows(delimiter))) {
          break;
        }
        stray |= c != ' ';
        at++;
      }
      if (stray) {
        sink.note(NoteCode.STRAY_QUOTE, column, text(Arrays.copyOfRange(buffer, start, at)));
        strayCell(column, closeOffset);
      } else if (plain) {
        sink.text(column, buffer, start + quote.length, start + closeOffset, whole);
      } else {
        emitUnescaped(column, start + quote.length, start + closeOffset, true);
      }
    }

    /** True if a byte that is at hand begins what could not be decoded. */
    private boolean isUndecodable(byte b) throws IOException {
      return b == UNDECODABLE[0] && follows(UNDECODABLE);
    }

    /** The cell and what stands behind its closing quote, without the two quotes. */
    private void strayCell(int column, int close) {
      int behind = start + close + quote.length;
      int tail = at - behind;
      int n = unescape(start + quote.length, start + close, true, tail);
      System.arraycopy(buffer, behind, unescaped, n, tail);
      sink.text(column, unescaped, 0, n + tail, whole);
    }

    private void emitUnescaped(int column, int from, int to, boolean inQuotes) {
      // first, since it may need a larger array
      int length = unescape(from, to, inQuotes, 0);
      sink.text(column, unescaped, 0, length, whole);
    }

    /** Puts the bytes that are meant into {@code unescaped}, with room for more; how many. */
    private int unescape(int from, int to, boolean inQuotes, int room) {
      if (unescaped.length < to - from + room) {
        unescaped = new byte[(to - from + room) * 2];
      }
      int n = 0;
      for (int i = from; i < to; i++) {
        byte c = buffer[i];
        if (backslash && c == '\\' && i + 1 < to) {
          byte next = buffer[++i];
          c = (byte) (next == 'n' ? '\n' : next == 't' ? '\t' : next == 'r' ? '\r' : next);
        } else if (inQuotes && !backslash && is(buffer, i, quote)) {
          i += quote.length;
        }
        unescaped[n++] = c;
      }
      return n;
    }

    private void lineEnd() throws IOException {
      byte c = buffer[at++];
      if (c == '\r' && more() && buffer[at] == '\n') {
        at++;
      }
      line++;
    }

    private void skipLine() throws IOException {
      while (more() && buffer[at] != '\n' && buffer[at] != '\r') {
        at++;
        start = at;
      }
      if (more()) {
        lineEnd();
      }
    }

    /** Some programs write {@code sep=;} on the first line; it is no row. */
    private void skipSeparatorLine() throws IOException {
      while (end < 16 && fill()) {
        // until the line is whole
      }
      String head = text(Arrays.copyOf(buffer, Math.min(end, 16)));
      int length = DelimitedSniffer.separatorLine(head);
      if (length > 0) {
        at = utf8(head.substring(0, length)).length;
        line = 2;
      }
    }

    private boolean follows(byte[] text) throws IOException {
      return follows(0, text);
    }

    /** True if a text stands so many bytes behind the place at hand. */
    private boolean follows(int behind, byte[] text) throws IOException {
      while (at + behind + text.length > end) {
        if (!fill()) {
          return false;
        }
      }
      return is(buffer, at + behind, text);
    }

    /** True if a text stands at a place; what is behind the array is none. */
    private static boolean is(byte[] bytes, int at, byte[] text) {
      for (int i = 0; i < text.length; i++) {
        if (at + i >= bytes.length || bytes[at + i] != text[i]) {
          return false;
        }
      }
      return true;
    }

    private static String text(byte[] bytes) {
      return new String(bytes, StandardCharsets.UTF_8);
    }

    private boolean more() throws IOException {
      return at < end || fill();
    }

    private void refuseLongCell() throws IOException {
      if (end - start <= LONGEST_CELL || characters() <= LONGEST_CELL) {
        return;
      }
      boolean open = quoted && is(buffer, start, quote);
      throw open
          ? new UnclosedQuoteException(text(quote), line, true)
          : ErrorCode.TOO_LONG_CELL.error(
              String.format(
                  Locale.ROOT,
                  "Line %,d holds a cell of more than 10 million characters. No application"
                      + " takes such a value.",
                  line));
    }

    /** Characters of the cell so far. */
    private int characters() {
      int characters = 0;
      for (int i = start; i < at; i++) {
        characters += (buffer[i] & 0xC0) == 0x80 ? 0 : 1;
      }
      return characters;
    }

    /** Reads on, keeping all from the start of the cell. */
    private boolean fill() throws IOException {
      if (end + ROOM > buffer.length) {
        if (start > buffer.length / 2) {
          System.arraycopy(buffer, start, buffer, 0, end - start);
          at -= start;
          end -= start;
          start = 0;
        } else {
          refuseLongCell();
          buffer = Arrays.copyOf(buffer, buffer.length * 2);
        }
      }
      int n = in.read(buffer, end, buffer.length - end - ByteStops.ROOM);
      end += Math.max(0, n);
      return n > 0;
    }
  }
}
