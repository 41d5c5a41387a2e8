package org.zestyporter.core.source.reading;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * What a workbook shows of a sheet beside its cells and that tells where its table is. Lines are
 * the sheet's own, from 1; columns count from 0.
 *
 * @param heads lines that the workbook itself takes for titles
 * @param merged cells of one line that are merged
 * @param bold lines near the top whose every filled cell is bold
 */
public record SheetMarks(List<Head> heads, List<Merged> merged, List<Long> bold) {
  public static final SheetMarks NONE = new SheetMarks(List.of(), List.of(), List.of());

  /** Bold lines are told of the first lines only. */
  public static final int SEARCHED_LINES = 200;

  private static final int MOST_MERGED = 20_000;

  /** Why a line is taken for titles, the plainest first. */
  public enum Why {
    TABLE("a table of the workbook has them there"),
    FILTER("the workbook's filter stands on it"),
    PRINTED("the workbook prints it on every page"),
    FROZEN("the workbook keeps it in view"),
    NAMED("a named range of the workbook begins there");

    private final String words;

    Why(String words) {
      this.words = words;
    }

    public String words() {
      return words;
    }

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** A line of titles. */
  public record Head(long line, Why why) {}

  /** Cells of a line that are shown as one. */
  public record Merged(long line, int from, int to) {}

  /** True if some cells of a line are merged. */
  public boolean isMerged(long line) {
    return merged.stream().anyMatch(m -> m.line() == line);
  }

  /** The last column that a cell is merged with; the cell's own if it is not. */
  public int end(long line, int column) {
    return merged.stream()
        .filter(m -> m.line() == line && m.from() == column)
        .mapToInt(Merged::to)
        .findFirst()
        .orElse(column);
  }

  /** Collects the marks of a sheet. */
  public static final class Builder {
    private final List<Head> heads = new ArrayList<>();
    private final List<Merged> merged = new ArrayList<>();
    private final List<Long> bold = new ArrayList<>();
    private int plain;

    public void head(long line, Why why) {
      if (line > 0) {
        heads.add(new Head(line, why));
      }
    }

    /** The first line of a named range, if that is large enough to be a table. */
    public void named(long first, long last, int from, int to) {
      if (last > first && to > from) {
        head(first, Why.NAMED);
      }
    }

    /** Cells that are shown as one; of several lines, it is those of the first. */
    public void merged(long line, int from, int to) {
      if (to > from && merged.size() < MOST_MERGED) {
        merged.add(new Merged(line, from, to));
      }
    }

    /** A line that holds cells, and whether all of them are bold. */
    public void line(long line, boolean isBold) {
      if (line > SEARCHED_LINES) {
        return;
      }
      if (isBold) {
        bold.add(line);
      } else {
        plain++;
      }
    }

    /** The marks; where bold lines are no exception they tell nothing. */
    public SheetMarks build() {
      heads.sort((a, b) -> a.why().compareTo(b.why()));
      return new SheetMarks(
          List.copyOf(heads),
          List.copyOf(merged),
          bold.size() <= plain ? List.copyOf(bold) : List.of());
    }
  }
}
