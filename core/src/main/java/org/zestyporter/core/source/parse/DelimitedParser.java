package org.zestyporter.core.source.parse;

import java.io.IOException;
import java.io.Reader;
import java.nio.charset.Charset;
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
  private static final int SHOWN_LINES = 50;

  @Override
  public Told parse(Path file, Reading reading, RowSink sink, ReadProgress progress)
      throws IOException {
    Charset charset = TextFiles.charset(reading.encoding());
    try (Reader in = TextFiles.reader(file, charset, progress)) {
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

  private static final class Scan {
    private final Reader in;
    private final RowSink sink;
    private final String delimiter;
    private final char first;
    private final boolean single;
    private final String quoteText;
    private final char quote;
    private final boolean quoted;
    private final boolean backslash;
    private final String comment;

    private char[] buffer = new char[BUFFER];
    private int end;
    private int at;

    /** Where the cell at hand begins in the buffer; all before it may be dropped. */
    private int start;

    private long line = 1;

    /** False if the cell at hand holds bytes that could not be decoded. */
    private boolean whole;

    /** Characters at which a cell may end, or that need a closer look. */
    private final boolean[] special = new boolean[Character.MAX_VALUE + 1];

    private char[] unescaped = new char[64];
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

    Scan(Reader in, Reading reading, RowSink sink) {
      this.in = in;
      this.sink = sink;
      this.delimiter = reading.delimiter();
      this.first = delimiter.charAt(0);
      this.single = delimiter.length() == 1;
      this.quoteText = reading.quote();
      this.quoted = !reading.quote().isEmpty();
      this.quote = quoted ? reading.quote().charAt(0) : 0;
      this.backslash = reading.escape() == Escape.BACKSLASH;
      this.comment = reading.comment() == null ? "" : reading.comment();
      special['\n'] = true;
      special['\r'] = true;
      special[first] = true;
      special['\\'] = backslash || first == '\\';
      special[Cell.UNDECODABLE] = true;
    }

    void all() throws IOException {
      skipSeparatorLine();
      while (more()) {
        start = at;
        if (!comment.isEmpty() && follows(comment)) {
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
        start = at;
        if (quoted && more() && opensQuote()) {
          quotedCell(column);
        } else {
          plainCell(column);
        }
        if (at - start > LONGEST_CELL) {
          refuseLongCell();
        }
        if (!more()) {
          endRow(rowLine, column + 1);
          return;
        }
        char c = buffer[at];
        if (c == '\n' || c == '\r') {
          lineEnd();
          endRow(rowLine, column + 1);
          return;
        }
        at += delimiter.length();
        column++;
      }
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
      if (buffer[at + spaces] != quote) {
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
        char[] chars = buffer;
        boolean[] stops = special;
        int to = end;
        int i = at;
        while (i < to && !stops[chars[i]]) {
          i++;
        }
        at = i;
        if (i == to) {
          if (!more()) {
            break;
          }
          continue;
        }
        char c = chars[i];
        if (c == '\n' || c == '\r' || c == first && (single || follows(delimiter))) {
          break;
        }
        whole &= c != Cell.UNDECODABLE;
        at++;
        if (c == '\\' && backslash) {
          escapes++;
          at += more() ? 1 : 0;
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
      at++;
      boolean plain = true;
      whole = true;
      while (true) {
        if (!more()) {
          throw new UnclosedQuoteException(quoteText, openLine, false);
        }
        char c = buffer[at];
        if (c == quote) {
          at++;
          if (!backslash && more() && buffer[at] == quote) {
            plain = false;
            at++;
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
        whole &= c != Cell.UNDECODABLE;
        at++;
      }
      int closeOffset = at - 1 - start;
      boolean stray = false;
      while (more()) {
        char c = buffer[at];
        if (c == '\n' || c == '\r' || c == first && (single || follows(delimiter))) {
          break;
        }
        stray |= c != ' ';
        at++;
      }
      if (stray) {
        String text = new String(buffer, start, at - start);
        sink.note(NoteCode.STRAY_QUOTE, column, text);
        strayCell(column, closeOffset);
      } else if (plain) {
        sink.text(column, buffer, start + 1, start + closeOffset, whole);
      } else {
        emitUnescaped(column, start + 1, start + closeOffset, true);
      }
    }

    /** The cell and what stands behind its closing quote, without the two quotes. */
    private void strayCell(int column, int close) {
      int n = unescape(start + 1, start + close, true, at - start - close - 1);
      int tail = at - start - close - 1;
      System.arraycopy(buffer, start + close + 1, unescaped, n, tail);
      sink.text(column, unescaped, 0, n + tail, whole);
    }

    private void emitUnescaped(int column, int from, int to, boolean inQuotes) {
      // first, since it may need a larger array
      int length = unescape(from, to, inQuotes, 0);
      sink.text(column, unescaped, 0, length, whole);
    }

    /** Puts the characters that are meant into {@code unescaped}, with room for more; how many. */
    private int unescape(int from, int to, boolean inQuotes, int room) {
      if (unescaped.length < to - from + room) {
        unescaped = new char[(to - from + room) * 2];
      }
      int n = 0;
      for (int i = from; i < to; i++) {
        char c = buffer[i];
        if (backslash && c == '\\' && i + 1 < to) {
          char next = buffer[++i];
          c = next == 'n' ? '\n' : next == 't' ? '\t' : next == 'r' ? '\r' : next;
        } else if (inQuotes && !backslash && c == quote) {
          i++;
        }
        unescaped[n++] = c;
      }
      return n;
    }

    private void lineEnd() throws IOException {
      char c = buffer[at++];
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
      int length = DelimitedSniffer.separatorLine(new String(buffer, 0, Math.min(end, 16)));
      if (length > 0) {
        at = length;
        line = 2;
      }
    }

    private boolean follows(String text) throws IOException {
      while (at + text.length() > end) {
        if (!fill()) {
          return false;
        }
      }
      for (int i = 0; i < text.length(); i++) {
        if (buffer[at + i] != text.charAt(i)) {
          return false;
        }
      }
      return true;
    }

    private boolean more() throws IOException {
      return at < end || fill();
    }

    private void refuseLongCell() {
      boolean open = quoted && buffer[start] == quote;
      throw open
          ? new UnclosedQuoteException(quoteText, line, true)
          : ErrorCode.TOO_LONG_CELL.error(
              String.format(
                  Locale.ROOT,
                  "Line %,d holds a cell of more than 10 million characters. No application"
                      + " takes such a value.",
                  line));
    }

    /** Reads on, keeping all from the start of the cell. */
    private boolean fill() throws IOException {
      if (end - start > LONGEST_CELL) {
        refuseLongCell();
      }
      if (start > 0 && end == buffer.length) {
        System.arraycopy(buffer, start, buffer, 0, end - start);
        at -= start;
        end -= start;
        start = 0;
      }
      if (end == buffer.length) {
        buffer = Arrays.copyOf(buffer, buffer.length * 2);
      }
      int n = in.read(buffer, end, buffer.length - end);
      end += Math.max(0, n);
      return n > 0;
    }
  }
}
