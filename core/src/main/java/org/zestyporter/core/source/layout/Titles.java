package org.zestyporter.core.source.layout;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.Letters;
import org.zestyporter.core.source.reading.SheetMarks;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** The columns of a sheet with their titles and the names by which a plan knows them. */
public final class Titles {
  private final int width;
  private final List<String> titles = new ArrayList<>();
  private final List<String> names = new ArrayList<>();
  private final List<List<Cell>> levels = new ArrayList<>();

  /**
   * @param given names that the format itself has; empty if lines hold the titles
   * @param renamed names that the plan has for titles
   */
  public Titles(
      SourceCache cache,
      List<Long> titleRows,
      List<String> given,
      Map<String, String> renamed,
      SheetMarks marks) {
    this.width = given.isEmpty() ? usedWidth(cache, titleRows) : given.size();
    for (long line : titleRows) {
      List<Cell> level = new ArrayList<>();
      for (int c = 0; c < width; c++) {
        level.add(cache.cellAt(line, c));
      }
      levels.add(level);
    }
    spread(titleRows, marks);
    Set<String> taken = new HashSet<>();
    for (int c = 0; c < width; c++) {
      String title = given.isEmpty() ? joined(c) : given.get(c);
      titles.add(title);
      String wanted = renamed.getOrDefault(title, title);
      String name = wanted.isEmpty() ? "Column " + Letters.of(c) : wanted;
      if (!taken.add(name.toLowerCase(Locale.ROOT))) {
        name = name + " (" + Letters.of(c) + ")";
        taken.add(name.toLowerCase(Locale.ROOT));
      }
      names.add(name);
    }
  }

  /** Columns up to the last one that has a title or any cell. */
  private static int usedWidth(SourceCache cache, List<Long> titleRows) {
    int width = cache.width();
    while (width > 1 && !titleRows.isEmpty() && isUnused(cache, titleRows, width - 1)) {
      width--;
    }
    return width;
  }

  private static boolean isUnused(SourceCache cache, List<Long> titleRows, int column) {
    for (int chunk = 0; chunk < cache.chunks(); chunk++) {
      if (!cache.isBlank(chunk, column)) {
        return false;
      }
    }
    return titleRows.stream().allMatch(line -> cache.cellAt(line, column).isBlank());
  }

  /**
   * A word above a group of columns stands for all of them: for those that its cell is merged with,
   * or, where none is merged, for those up to the next word.
   */
  private void spread(List<Long> lines, SheetMarks marks) {
    for (int l = 0; l + 1 < levels.size(); l++) {
      List<Cell> upper = levels.get(l);
      List<Cell> lower = levels.get(levels.size() - 1);
      boolean merged = marks.isMerged(lines.get(l));
      Cell group = Cell.BLANK;
      int end = width;
      for (int c = 0; c < width; c++) {
        if (!upper.get(c).isBlank()) {
          group = upper.get(c);
          end = merged ? marks.end(lines.get(l), c) : width;
        } else if (!lower.get(c).isBlank() && c <= end) {
          upper.set(c, group);
        }
      }
    }
  }

  private String joined(int column) {
    String title = "";
    for (List<Cell> level : levels) {
      String word = level.get(column).text().strip();
      // “Owner” above “Owner's mail” is said once
      boolean again = word.toLowerCase(Locale.ROOT).startsWith(title.toLowerCase(Locale.ROOT));
      title = again ? word : title + " " + word;
    }
    return title.strip().replaceAll("\\s+", " ");
  }

  public int width() {
    return width;
  }

  public String name(int column) {
    return names.get(column);
  }

  /** The names by which the plan knows the columns. */
  List<String> names() {
    return List.copyOf(names);
  }

  /** The column's title in the file, empty if it has none. */
  public String title(int column) {
    return titles.get(column);
  }

  /** A column's title without the words above it that stand for several columns. */
  public String lowest(int column) {
    for (int l = levels.size() - 1; l >= 0; l--) {
      String word = levels.get(l).get(column).text().strip();
      if (!word.isEmpty()) {
        return word.replaceAll("\\s+", " ");
      }
    }
    return title(column);
  }

  public int levels() {
    return levels.size();
  }

  /** The title of a column on one of several title lines, the uppermost being 0. */
  public Cell level(int level, int column) {
    return levels.get(level).get(column);
  }

  /** Index of a column by name, title or letter, ignoring capitals; -1 if there is none. */
  int find(String nameOrLetter) {
    for (List<String> all : List.of(names, titles)) {
      for (int c = 0; c < width; c++) {
        if (all.get(c).equalsIgnoreCase(nameOrLetter)) {
          return c;
        }
      }
    }
    int index = Letters.index(nameOrLetter);
    return index < width ? index : -1;
  }

  /**
   * Index of a column that a setting needs.
   *
   * @throws PorterException if the file has no such column
   */
  int require(String nameOrLetter, String setting) {
    int column = find(nameOrLetter);
    if (column < 0) {
      throw ErrorCode.NO_SUCH_COLUMN.error(
          "The file has no column “" + nameOrLetter + "”, which " + setting + " needs.");
    }
    return column;
  }

  /** Indexes of the columns of that name which the file has. */
  int[] present(List<String> wanted) {
    return wanted == null
        ? new int[0]
        : wanted.stream().mapToInt(this::find).filter(c -> c >= 0).distinct().toArray();
  }
}
