package org.zestyporter.core.source.layout;

import com.google.re2j.Pattern;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.source.cache.RawRow;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.Fold;
import org.zestyporter.core.source.reading.Letters;
import org.zestyporter.core.source.reading.Pick;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetPart;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Patterns;

/**
 * The columns that a source has for a plan: those of the sheet, less what is left out and folded,
 * then what a fold makes of titles and values, picked cells, the lines that head sections, and the
 * name of the sheet.
 */
public final class OutColumns {
  /** Where the cells of a column come from. */
  private enum From {
    SHEET,
    FOLD_TITLE,
    FOLD_VALUE,
    PICK,
    SECTION,
    SHEET_NAME
  }

  private record Out(From from, int index, Cell constant) {}

  private final SourceCache cache;
  private final RowSelector rows;
  private final List<SheetPart> parts;
  private final Sections sections;
  private final List<Out> outs = new ArrayList<>();
  private final List<String> names = new ArrayList<>();
  private final List<String> letters = new ArrayList<>();
  private final Map<String, Integer> places = new HashMap<>();
  private final int[] groups;
  private final int groupSize;
  private final boolean keepBlank;
  private final Cell[][] foldTitles;
  private final Map<Out, Set<String>> blankWords = new HashMap<>();

  public OutColumns(
      SourceCache cache,
      Titles titles,
      RowSelector rows,
      Layout.Found layout,
      Reading reading,
      List<SheetPart> parts,
      Sections sections) {
    this.cache = cache;
    this.sections = sections;
    this.rows = rows;
    this.parts = parts;
    Fold fold = reading.fold();
    int[] folded = fold == null ? new int[0] : columns(fold, titles);
    this.groupSize = fold == null ? 1 : fold.values().size();
    this.keepBlank = fold != null && Boolean.TRUE.equals(fold.keepBlank());
    this.groups =
        IntStream.range(0, folded.length / groupSize).map(g -> folded[g * groupSize]).toArray();
    this.foldTitles = new Cell[fold == null ? 0 : fold.names().size()][];
    Set<Integer> gone = new HashSet<>();
    Arrays.stream(folded).forEach(gone::add);
    Arrays.stream(titles.present(reading.omit())).forEach(gone::add);
    UsedColumns used = new UsedColumns(cache, titles, rows);
    for (int c = 0; c < titles.width(); c++) {
      boolean unused = !layout.titleRows().isEmpty() && used.isUnused(c);
      if (!gone.contains(c) && !unused) {
        add(new Out(From.SHEET, c, null), titles.name(c), Letters.of(c));
      }
    }
    if (fold != null) {
      addFold(fold, titles, layout, folded);
    }
    for (Pick pick : reading.picks() == null ? List.<Pick>of() : reading.picks()) {
      Cell cell = picked(pick, layout);
      add(new Out(From.PICK, 0, cell), pick.name(), pick.column() + pick.line());
    }
    if (!sections.name().isEmpty()) {
      add(new Out(From.SECTION, 0, null), sections.name(), "");
    }
    if (parts.size() > 1) {
      add(new Out(From.SHEET_NAME, 0, null), "Sheet", "");
    }
  }

  private void add(Out out, String name, String letter) {
    String unique = name;
    for (int n = 2; places.containsKey(unique.toLowerCase(Locale.ROOT)); n++) {
      unique = name + " (" + n + ")";
    }
    places.put(unique.toLowerCase(Locale.ROOT), outs.size());
    outs.add(out);
    names.add(unique);
    letters.add(letter);
  }

  /** Index of a column by name, ignoring capitals; -1 if there is none. */
  public int find(String name) {
    return places.getOrDefault(name.toLowerCase(Locale.ROOT), -1);
  }

  /** Index of the column of the sheet that a column is; under 0 if it is made of others. */
  public int inSheet(int column) {
    Out of = outs.get(column);
    return of.from() == From.SHEET ? of.index() : -1;
  }

  /** The folded columns, in their order. */
  static int[] columns(Fold fold, Titles titles) {
    int[] columns;
    if (fold.pattern() != null) {
      columns = matching(fold.pattern(), titles);
    } else {
      int from = titles.require(fold.from(), "the fold");
      int to = titles.require(fold.to(), "the fold");
      columns = IntStream.rangeClosed(Math.min(from, to), Math.max(from, to)).toArray();
    }
    if (columns.length == 0 || columns.length % fold.values().size() != 0) {
      throw ErrorCode.FOLD.error(
          "The fold takes "
              + columns.length
              + " columns, which do not part into groups of "
              + fold.values().size()
              + ".");
    }
    return columns;
  }

  private static int[] matching(String pattern, Titles titles) {
    Pattern compiled = Patterns.compile(pattern, Pattern.CASE_INSENSITIVE);
    return IntStream.range(0, titles.width())
        .filter(c -> compiled.matcher(titles.title(c)).find())
        .toArray();
  }

  private void addFold(Fold fold, Titles titles, Layout.Found layout, int[] folded) {
    String range = Letters.of(folded[0]) + "–" + Letters.of(folded[folded.length - 1]);
    for (int n = 0; n < fold.names().size(); n++) {
      Fold.FoldName name = fold.names().get(n);
      foldTitles[n] = new Cell[groups.length];
      for (int g = 0; g < groups.length; g++) {
        foldTitles[n][g] = title(name, groups[g], titles, layout);
      }
      add(new Out(From.FOLD_TITLE, n, null), name.name(), range);
    }
    for (int v = 0; v < groupSize; v++) {
      add(new Out(From.FOLD_VALUE, v, null), fold.values().get(v), range);
    }
  }

  private Cell title(Fold.FoldName name, int column, Titles titles, Layout.Found layout) {
    if (name.line() == null) {
      Cell cell = titles.levels() == 1 ? titles.level(0, column) : Cell.BLANK;
      return cell.isBlank() ? Cell.text(titles.title(column)) : cell;
    }
    int level = layout.titleRows().indexOf(name.line());
    return level >= 0 ? titles.level(level, column) : cache.cellAt(name.line(), column);
  }

  /** The picked cell, where its label stands in this file. */
  private Cell picked(Pick pick, Layout.Found layout) {
    int column = Letters.index(pick.column());
    if (column < 0) {
      throw ErrorCode.PICK.error("“" + pick.column() + "” is no column's letter.");
    }
    if (pick.label() == null || isLabel(cache.cellAt(pick.line(), column - 1), pick)) {
      return cache.cellAt(pick.line(), column);
    }
    for (RawRow row : RawRow.of(cache, 0, Layout.SEARCHED_ROWS, false)) {
      if (row.line() >= layout.firstRow()) {
        break;
      }
      for (int c = 0; c + 1 < row.cells().size(); c++) {
        if (isLabel(row.cell(c), pick)) {
          return row.cell(c + 1);
        }
      }
    }
    return Cell.BLANK;
  }

  private static boolean isLabel(Cell cell, Pick pick) {
    return cell.text().strip().equalsIgnoreCase(pick.label().strip());
  }

  /** Words that mean blank from now on, in all columns. */
  public void blankWords(Collection<String> words) {
    blankWords(java.util.Collections.nCopies(outs.size(), words));
  }

  /** Words that mean blank from now on, for each column its own. */
  public void blankWords(List<? extends Collection<String>> byColumn) {
    blankWords.clear();
    for (int i = 0; i < outs.size(); i++) {
      Set<String> lower = new HashSet<>();
      byColumn.get(i).forEach(w -> lower.add(w.strip().toLowerCase(Locale.ROOT)));
      blankWords.put(outs.get(i), lower);
    }
  }

  /** The words that mean blank in a column of the sheet, or in all that is folded. */
  private Set<String> blankWords(From from, int index) {
    return blankWords.getOrDefault(new Out(from, index, null), Set.of());
  }

  public List<String> names() {
    return names;
  }

  public String letter(int column) {
    return letters.get(column);
  }

  public boolean isFolded() {
    return groups.length > 0;
  }

  /** The records of a chunk: the row of each in the chunk, and its group of folded columns. */
  public record Records(int[] rows, int[] groups, boolean whole) {
    public int count() {
      return rows.length;
    }
  }

  public Records records(int chunk) {
    int[] kept = rows.rows(chunk);
    if (!isFolded()) {
      return new Records(kept, null, rows.isWhole(chunk));
    }
    ColumnChunk[] values = new ColumnChunk[groups.length * groupSize];
    boolean[][] blanks = new boolean[values.length][];
    for (int i = 0; i < values.length; i++) {
      values[i] =
          worded(
              rows.column(chunk, groups[i / groupSize] + i % groupSize),
              blankWords(From.FOLD_VALUE, i % groupSize));
      blanks[i] = values[i].blanks();
    }
    int[] out = new int[kept.length * groups.length];
    int[] outGroups = new int[out.length];
    int n = 0;
    for (int row : kept) {
      for (int g = 0; g < groups.length; g++) {
        boolean filled = keepBlank;
        for (int v = 0; !filled && v < groupSize; v++) {
          int i = g * groupSize + v;
          filled = !blanks[i][values[i].codes()[row]];
        }
        if (filled) {
          out[n] = row;
          outGroups[n++] = g;
        }
      }
    }
    return new Records(Arrays.copyOf(out, n), Arrays.copyOf(outGroups, n), false);
  }

  /**
   * False if no cell of a column has a sign in a chunk; nothing is read to tell so.
   *
   * @param sign one of {@link org.zestyporter.core.source.cache.CellSigns}
   */
  public boolean mayHold(int chunk, int column, int sign) {
    Out out = outs.get(column);
    return out.from() != From.SHEET || cache.mayHold(chunk, out.index(), sign);
  }

  /** A column's cells of the records of a chunk. */
  public ColumnChunk column(int chunk, int column, Records records) {
    Out out = outs.get(column);
    return switch (out.from()) {
      case SHEET -> {
        ColumnChunk cells =
            worded(rows.column(chunk, out.index()), blankWords(From.SHEET, out.index()));
        yield records.whole() ? cells : cells.select(records.rows());
      }
      case FOLD_TITLE -> new ColumnChunk(foldTitles[out.index()], records.groups());
      case FOLD_VALUE -> value(chunk, out.index(), records);
      case PICK -> new ColumnChunk(new Cell[] {out.constant()}, new int[records.count()]);
      case SECTION -> {
        ColumnChunk heads = sections.column(chunk);
        yield records.whole() ? heads : heads.select(records.rows());
      }
      case SHEET_NAME -> sheetNames(chunk, records);
    };
  }

  private ColumnChunk value(int chunk, int index, Records records) {
    List<Cell> distinct = new ArrayList<>();
    int[] offset = new int[groups.length];
    ColumnChunk[] columns = new ColumnChunk[groups.length];
    for (int g = 0; g < groups.length; g++) {
      columns[g] =
          worded(rows.column(chunk, groups[g] + index), blankWords(From.FOLD_VALUE, index));
      offset[g] = distinct.size();
      distinct.addAll(List.of(columns[g].distinct()));
    }
    int[] codes = new int[records.count()];
    for (int i = 0; i < codes.length; i++) {
      int g = records.groups()[i];
      codes[i] = offset[g] + columns[g].codes()[records.rows()[i]];
    }
    return new ColumnChunk(distinct.toArray(Cell[]::new), codes);
  }

  private ColumnChunk sheetNames(int chunk, Records records) {
    Cell[] distinct = parts.stream().map(p -> Cell.text(p.sheet())).toArray(Cell[]::new);
    long[] lines = cache.lines(chunk);
    int[] codes = new int[records.count()];
    int part = 0;
    for (int i = 0; i < codes.length; i++) {
      while (part + 1 < parts.size()
          && lines[records.rows()[i]] > parts.get(part + 1).linesBefore()) {
        part++;
      }
      codes[i] = part;
    }
    return new ColumnChunk(distinct, codes);
  }

  /** The cells with those blank that hold a word for blank. */
  private static ColumnChunk worded(ColumnChunk cells, Set<String> words) {
    if (words.isEmpty()) {
      return cells;
    }
    boolean[] changed = null;
    boolean[] begins = new boolean[256];
    for (String word : words) {
      char first = word.charAt(0);
      begins[first < 0x80 ? first : 0xFF] = true;
    }
    for (int d = 0; d < cells.entries(); d++) {
      int first = cells.first(d);
      boolean may =
          first >= 0x80
              || first >= 0 && first < 'A' && begins[first]
              || begins[first & 0x7F | 0x20];
      // a character takes up to four bytes
      if (first >= 0 && may && cells.length(d) < 80) {
        String text = cells.entry(d).text();
        if (text.length() < 20 && words.contains(text.strip().toLowerCase(Locale.ROOT))) {
          changed = changed == null ? new boolean[cells.entries()] : changed;
          changed[d] = true;
        }
      }
    }
    return changed == null ? cells : cells.withBlank(changed);
  }
}
