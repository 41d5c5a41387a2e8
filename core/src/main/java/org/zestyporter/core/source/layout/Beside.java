package org.zestyporter.core.source.layout;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Letters;

/**
 * Tables of a sheet that lie beside each other: parted by a column without a title or a cell. What
 * has cells in half of the records of the fullest at most, such as a list of what words mean, is
 * left out by itself.
 */
public final class Beside {
  private static final int SHOWN_WORDS = 4;

  private final Titles titles;
  private final UsedColumns used;
  private final List<int[]> blocks;
  private final long[] filled;
  private int main;

  /**
   * @param rows the records of all of them
   */
  public Beside(SourceCache cache, Titles titles, RowSelector rows) {
    this.titles = titles;
    this.used = new UsedColumns(cache, titles, rows);
    this.blocks = blocks();
    this.filled = new long[blocks.size()];
    for (int b = 0; blocks.size() > 1 && b < filled.length; b++) {
      int[] block = blocks.get(b);
      filled[b] = IntStream.range(block[0], block[1]).mapToLong(used::filled).max().orElse(0);
      main = filled[b] > filled[main] ? b : main;
    }
  }

  /** The columns to leave out, and in the evidence why they are none of the table's. */
  public List<String> omitted(List<Evidence> evidence) {
    List<String> omitted = new ArrayList<>();
    for (int b = 0; b < filled.length; b++) {
      if (b != main && filled[b] * 2 <= filled[main]) {
        int[] block = blocks.get(b);
        omitted.addAll(names(b));
        evidence.add(
            new Evidence(
                "omit",
                titles.name(block[0]),
                String.format(
                    Locale.ROOT,
                    "columns %s to %s lie beside the table, behind a column without cells, and have"
                        + " some in %,d rows where the table has %,d",
                    Letters.of(block[0]),
                    Letters.of(block[1] - 1),
                    filled[b],
                    filled[main])));
      }
    }
    return omitted;
  }

  /**
   * Those that are left out and could be read instead: two columns and two records at least.
   *
   * @param line of the titles
   * @param omit columns that are left out
   */
  public List<Layout.OtherTable> others(long line, List<String> omit) {
    List<Layout.OtherTable> others = new ArrayList<>();
    for (int b = 0; b < filled.length; b++) {
      List<String> names = names(b);
      if (names.size() > 1 && filled[b] > 1 && omit.containsAll(names)) {
        List<String> rest = new ArrayList<>();
        for (int other = 0; other < filled.length; other++) {
          rest.addAll(other == b ? List.of() : names(other));
        }
        List<String> words = names.subList(0, Math.min(SHOWN_WORDS, names.size()));
        others.add(new Layout.OtherTable(line, List.copyOf(words), filled[b], rest));
      }
    }
    return others;
  }

  private List<String> names(int block) {
    int[] columns = blocks.get(block);
    return IntStream.range(columns[0], columns[1]).mapToObj(titles::name).toList();
  }

  /** Neighbouring columns, from the first to the one behind the last. */
  private List<int[]> blocks() {
    List<int[]> blocks = new ArrayList<>();
    int from = 0;
    for (int c = 0; c <= titles.width(); c++) {
      boolean ends = c == titles.width() || used.isUnused(c);
      if (ends) {
        if (c > from) {
          blocks.add(new int[] {from, c});
        }
        from = c + 1;
      }
    }
    return blocks;
  }
}
