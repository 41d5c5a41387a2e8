package org.zestyporter.core.source.layout;

import com.google.re2j.Pattern;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.source.cache.RawRow;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetMarks;
import org.zestyporter.core.value.Cell;

/**
 * Lines with a single cell, such as “Pier A”, that head the lines below them: they are no records
 * but a column of those. Numbers of pages, which printing leaves behind, are told from them.
 */
public final class Sections {
  private static final String USUAL_NAME = "Section";

  /** Records with fewer cells may well have but one filled. */
  private static final int LEAST_CELLS = 3;

  private static final int FEW_CELLS = 5;
  private static final int MOST = 20_000;
  private static final int COMPARED_ROWS = 500;
  private static final Pattern PAGE =
      Pattern.compile(
          "(?i)[-– ]*(page|seite|pagina|página|sida|side|strona|sivu|blad|oldal)[ .:]*\\d{1,5}"
              + "( ?(/|of|von|de|van|di|sur|z|av|af) ?\\d{1,5})?[-– ]*");

  /** A line with one cell. */
  private record Single(int chunk, int row, long line, Cell cell, int column) {}

  private final SourceCache cache;
  private final List<Single> heads = new ArrayList<>();
  private final List<Long> pages = new ArrayList<>();
  private final String name;

  /**
   * @param layout where the records are looked for
   * @param several true if several sheets are read as one, whose headings are no sections
   */
  public Sections(
      SourceCache cache, Layout.Found layout, Reading reading, SheetMarks marks, boolean several) {
    this.cache = cache;
    String wanted = reading.section();
    boolean may = layout.usual() >= LEAST_CELLS && !layout.titleRows().isEmpty();
    if (may && !"".equals(wanted) && (wanted != null || !several)) {
      heads.addAll(find(layout, marks, wanted != null));
    }
    this.name = heads.isEmpty() ? "" : wanted == null ? usualName() : wanted;
  }

  private List<Single> find(Layout.Found layout, SheetMarks marks, boolean said) {
    List<Single> found = new ArrayList<>();
    long records = 0;
    boolean first = false;
    Single open = null;
    for (int chunk = 0; chunk < cache.chunks(); chunk++) {
      long[] lines = cache.lines(chunk);
      BitSet rows = new BitSet();
      for (int r = 0; r < lines.length; r++) {
        rows.set(r, layout.isInside(lines[r]));
      }
      BitSet one = singles(cache, chunk, rows);
      for (int r = rows.nextSetBit(0); r >= 0; r = rows.nextSetBit(r + 1)) {
        if (!one.get(r)) {
          if (open != null) {
            found.add(open);
            first |= records == 0;
          }
          open = null;
          records++;
          continue;
        }
        Single single = single(chunk, r, lines[r]);
        String text = single.cell().text().strip();
        if (PAGE.matches(text)) {
          pages.add(lines[r]);
        } else if (!isHead(single.cell(), text)) {
          open = null;
        } else {
          open = single;
        }
      }
      if (found.size() > MOST || !said && records > 1_000 && found.isEmpty() && chunk > 4) {
        return List.of();
      }
    }
    return said || isPlain(found, records, first, marks, layout) ? found : List.of();
  }

  /** The rows that have exactly one filled cell; those without any are taken out of the rows. */
  private static BitSet singles(SourceCache cache, int chunk, BitSet rows) {
    BitSet none = (BitSet) rows.clone();
    BitSet one = new BitSet();
    for (int c = 0; c < cache.width(chunk) && !(none.isEmpty() && one.isEmpty()); c++) {
      if (cache.isBlank(chunk, c)) {
        continue;
      }
      ColumnChunk column = cache.column(chunk, c);
      boolean[] blanks = column.blanks();
      BitSet filled = new BitSet();
      for (int r = none.nextSetBit(0); r >= 0; r = none.nextSetBit(r + 1)) {
        filled.set(r, !blanks[column.codes()[r]]);
      }
      for (int r = one.nextSetBit(0); r >= 0; r = one.nextSetBit(r + 1)) {
        one.set(r, blanks[column.codes()[r]]);
      }
      none.andNot(filled);
      one.or(filled);
    }
    rows.andNot(none);
    return one;
  }

  private Single single(int chunk, int row, long line) {
    for (int c = 0; c < cache.width(chunk); c++) {
      if (!cache.isBlank(chunk, c)) {
        Cell cell = cache.column(chunk, c).cell(row);
        if (!cell.isBlank()) {
          return new Single(chunk, row, line, cell, c);
        }
      }
    }
    return new Single(chunk, row, line, Cell.BLANK, 0);
  }

  private static boolean isHead(Cell cell, String text) {
    return TitleFinder.isWord(cell)
        && text.codePoints().anyMatch(Character::isLetter)
        && !TotalWords.begins(text);
  }

  /**
   * True if lines can only be heads: all records stand below one, or they look like nothing else in
   * their column, or the workbook sets them off.
   */
  private boolean isPlain(
      List<Single> found, long records, boolean first, SheetMarks marks, Layout.Found layout) {
    if (found.isEmpty() || found.size() * 5L > records * 2) {
      return false;
    }
    int column = found.get(0).column();
    if (found.stream().anyMatch(s -> s.column() != column)) {
      return false;
    }
    boolean setOff =
        found.stream().anyMatch(s -> marks.isMerged(s.line()) || marks.bold().contains(s.line()));
    if (setOff) {
      return true;
    }
    boolean several = found.size() > 1;
    boolean plain =
        layout.usual() < FEW_CELLS
            ? first && several && isUnlikeRecords(found, layout)
            : first && several || (first || several) && isUnlikeRecords(found, layout);
    return plain && !hasThinRecords(layout);
  }

  /** Where records have few of their cells filled, those with one may be records too. */
  private boolean hasThinRecords(Layout.Found layout) {
    return RawRow.of(cache, 0, Layout.SEARCHED_ROWS, false).stream()
        .anyMatch(
            row ->
                layout.isInside(row.line())
                    && row.filled() > 1
                    && !TotalWords.begins(row, layout.usual())
                    && row.filled() * 2 <= layout.usual());
  }

  /** True if hardly a record has a cell of that shape in the column of the heads. */
  private boolean isUnlikeRecords(List<Single> found, Layout.Found layout) {
    Set<String> shapes = new HashSet<>();
    Set<Long> lines = new HashSet<>();
    for (Single s : found) {
      shapes.add(TitleFinder.shape(s.cell().text()));
      lines.add(s.line());
    }
    int column = found.get(0).column();
    int like = 0;
    int seen = 0;
    for (int chunk = 0; chunk < cache.chunks() && seen < COMPARED_ROWS; chunk++) {
      long[] all = cache.lines(chunk);
      ColumnChunk cells = cache.isBlank(chunk, column) ? null : cache.column(chunk, column);
      for (int r = 0; r < all.length && seen < COMPARED_ROWS; r++) {
        if (layout.isInside(all[r]) && !lines.contains(all[r])) {
          seen++;
          like += cells != null && shapes.contains(TitleFinder.shape(cells.cell(r).text())) ? 1 : 0;
        }
      }
    }
    return like * 20 <= seen;
  }

  /** The word that all heads begin with. */
  private String usualName() {
    String[] first = heads.get(0).cell().text().strip().split("[\\s:]+", 2);
    boolean same =
        first.length == 2
            && heads.size() > 1
            && heads.stream()
                .allMatch(s -> s.cell().text().strip().matches("\\Q" + first[0] + "\\E[\\s:].*"));
    return same && first[0].codePoints().anyMatch(Character::isLetter) ? first[0] : USUAL_NAME;
  }

  /** Name of the column that the heads make; empty if there are none. */
  public String name() {
    return name;
  }

  /** True if a line heads those below it. */
  public boolean isHead(long line) {
    return Arrays.binarySearch(lines(), line) >= 0;
  }

  /** Lines of the heads, ascending. */
  long[] lines() {
    return heads.stream().mapToLong(Single::line).toArray();
  }

  /** Lines that only number a page, ascending. */
  long[] pages() {
    return pages.stream().mapToLong(Long::longValue).toArray();
  }

  /** The first few heads' words. */
  public List<String> samples() {
    return heads.stream().map(s -> s.cell().text().strip()).distinct().limit(3).toList();
  }

  /** What heads each of a chunk's rows. */
  ColumnChunk column(int chunk) {
    int at = 0;
    while (at < heads.size() && heads.get(at).chunk() < chunk) {
      at++;
    }
    List<Cell> cells = new ArrayList<>(List.of(at == 0 ? Cell.BLANK : heads.get(at - 1).cell()));
    int[] codes = new int[cache.rows(chunk)];
    for (; at < heads.size() && heads.get(at).chunk() == chunk; at++) {
      Arrays.fill(codes, heads.get(at).row(), codes.length, cells.size());
      cells.add(heads.get(at).cell());
    }
    return new ColumnChunk(cells.toArray(Cell[]::new), codes);
  }
}
