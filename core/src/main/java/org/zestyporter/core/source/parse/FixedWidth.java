package org.zestyporter.core.source.parse;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.Cell;

/** Text whose cells have a fixed number of characters, filled up with spaces. */
public final class FixedWidth implements RowParser {
  private static final int LINES = 1000;
  private static final int FEWEST_LINES = 3;

  /**
   * Where the cells begin.
   *
   * @param borders characters before each cell after the first
   * @param agreement share of the lines that have a space before every border
   */
  public record Found(List<Integer> borders, double agreement, Evidence evidence) {}

  /** The borders at which nearly every line has a space before and some line has text behind. */
  public static Found find(String head, boolean cutShort) {
    List<String> lines =
        TextFiles.lines(head, cutShort, LINES).stream().filter(l -> !l.isBlank()).toList();
    int width = lines.stream().mapToInt(String::length).max().orElse(0);
    if (lines.size() < FEWEST_LINES || width > 20_000) {
      return new Found(List.of(), 0, null);
    }
    int[] text = new int[width + 1];
    int[] reaching = new int[width + 1];
    for (String line : lines) {
      for (int i = 0; i < line.length(); i++) {
        text[i] += line.charAt(i) == ' ' ? 0 : 1;
        reaching[i]++;
      }
    }
    int tolerated = lines.size() / 50;
    List<Integer> borders = new ArrayList<>();
    boolean gap = false;
    boolean seen = false;
    for (int i = 0; i < width; i++) {
      boolean free = text[i] <= tolerated && reaching[i] * 2 > lines.size();
      if (!free && gap && seen) {
        borders.add(i);
      }
      seen |= !free;
      gap = free;
    }
    if (!borders.isEmpty() && text[borders.get(0) - 1] > tolerated) {
      borders.remove(0);
    }
    List<Integer> all = List.copyOf(borders);
    borders.removeIf(b -> filled(lines, b, next(all, b)) * 10 < lines.size());
    // words that stand below each other by chance have no title of their own
    String first = lines.get(0);
    List<Integer> left = List.copyOf(borders);
    borders.removeIf(b -> filled(List.of(first), b, next(left, b)) == 0);
    long agree = lines.stream().filter(l -> keeps(l, borders)).count();
    return new Found(
        borders,
        (double) agree / lines.size(),
        new Evidence(
            "borders",
            borders.stream()
                .map(b -> String.valueOf(b + 1))
                .toList()
                .toString()
                .replaceAll("[\\[\\]]", ""),
            String.format(
                Locale.ROOT,
                "%,d of the first %,d lines have only spaces before these places",
                agree,
                lines.size())));
  }

  private static int next(List<Integer> borders, int border) {
    int at = borders.indexOf(border) + 1;
    return at < borders.size() ? borders.get(at) : Integer.MAX_VALUE;
  }

  /** Lines with text in a cell. */
  private static long filled(List<String> lines, int from, int to) {
    return lines.stream()
        .filter(l -> l.length() > from && !l.substring(from, Math.min(l.length(), to)).isBlank())
        .count();
  }

  private static boolean keeps(String line, List<Integer> borders) {
    for (int border : borders) {
      if (line.length() >= border && line.charAt(border - 1) != ' ') {
        return false;
      }
    }
    return true;
  }

  @Override
  public Told parse(Path file, Reading reading, RowSink sink, ReadProgress progress)
      throws IOException {
    Charset charset = TextFiles.charset(reading.encoding());
    int[] borders = reading.borders().stream().mapToInt(Integer::intValue).toArray();
    try (BufferedReader in =
        new BufferedReader(TextFiles.reader(file, charset, progress), 1 << 16)) {
      long number = 0;
      for (String line = line(in); line != null; line = line(in)) {
        number++;
        for (int c = 0; c <= borders.length; c++) {
          int from = c == 0 ? 0 : borders[c - 1];
          int to = c == borders.length ? line.length() : Math.min(borders[c], line.length());
          while (from < to && line.charAt(from) == ' ') {
            from++;
          }
          while (to > from && line.charAt(to - 1) == ' ') {
            to--;
          }
          if (from < to) {
            String text = line.substring(from, to);
            boolean whole = text.indexOf(Cell.UNDECODABLE) < 0;
            sink.cell(c, whole ? Cell.text(text) : new Cell(Cell.Kind.ERROR, text));
          }
        }
        sink.endRow(number);
      }
    }
    return Told.NOTHING;
  }

  /** The next line; one without end is no table. */
  private static String line(BufferedReader in) throws IOException {
    StringBuilder line = new StringBuilder();
    int c;
    while ((c = in.read()) >= 0) {
      if (c == '\n') {
        return line.toString();
      }
      if (c == '\r') {
        in.mark(1);
        if (in.read() != '\n') {
          in.reset();
        }
        return line.toString();
      }
      if (line.length() > DelimitedParser.LONGEST_CELL) {
        throw org.zestyporter.core.value.ErrorCode.TOO_LONG_CELL.error(
            "A line has more than 10 million characters; this is no table.");
      }
      line.append((char) c);
    }
    return line.length() == 0 ? null : line.toString();
  }
}
