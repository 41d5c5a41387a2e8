package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DistinctValues;

/**
 * A column whose cells hold several values each, {@code red; blue; green}.
 *
 * @param at what stands between them
 * @param parts the values and how many rows hold each
 * @param sure true if these are lists whatever the records say: hardly anything else is written
 *     with these signs, or what they part stands alone in other cells
 */
record CellList(List<String> at, DistinctValues parts, boolean sure) {
  private static final int VALUES_TRIED = 2_000;

  /** Signs that stand between values and in hardly any text else. */
  private static final List<String> PLAIN = List.of(";", "|", "；", "\n");

  /** Signs that stand in names, addresses and sentences too. */
  private static final List<String> OTHERS = List.of(",", "/", "、", "，", "،", "·", "+", "&");

  /** Of a hundred cells so many have the sign. */
  private static final int SOME = 5;

  /** Fewer cells with a sign tell nothing. */
  private static final int FEWEST = 2;

  /** So often a value stands again, where the signs are no plain ones. */
  private static final double REPEATED = 1.5;

  private static final int LONGEST = 60;

  /** The lists that a column's cells are; null if they are none. */
  static @Nullable CellList of(DistinctValues cells) {
    List<String> texts =
        cells.tallies().keySet().stream()
            .filter(c -> c.kind() == Cell.Kind.TEXT)
            .limit(VALUES_TRIED)
            .map(Cell::text)
            .toList();
    List<String> plain = used(PLAIN, texts);
    List<String> others = used(OTHERS, texts);
    if (plain.isEmpty() && others.isEmpty()) {
      return null;
    }
    List<String> at = new ArrayList<>(plain);
    at.addAll(others);
    boolean alone = !others.isEmpty() && standAlone(texts, pattern(at));
    CellList both = parted(cells, at, !plain.isEmpty() || alone);
    // a comma beside semicolons parts as they do only if what stands between them stands again
    boolean all = others.isEmpty() || alone || both.repeats();
    CellList list = all ? both : plain.isEmpty() ? null : parted(cells, plain, true);
    return list == null || list.isLong() ? null : list;
  }

  /** Cells that somebody has said to be lists, parted at certain signs. */
  static CellList at(List<String> signs, DistinctValues cells) {
    return parted(cells, signs, true);
  }

  /**
   * The same without the signs that may belong to the values, as the comma in {@code Choir, adults;
   * Dance}; null if there are none beside others.
   */
  @Nullable CellList withoutDoubtful(DistinctValues cells) {
    List<String> plain = at.stream().filter(PLAIN::contains).toList();
    return plain.isEmpty() || plain.size() == at.size() ? null : parted(cells, plain, true);
  }

  private static List<String> used(List<String> signs, List<String> texts) {
    return signs.stream()
        .filter(
            sign -> {
              long with = texts.stream().filter(t -> t.strip().indexOf(sign) > 0).count();
              return with >= FEWEST && with * 100 >= texts.size() * (long) SOME;
            })
        .toList();
  }

  private static Pattern pattern(List<String> at) {
    return new Destination.Split("", at).pattern();
  }

  /**
   * True if most cells with several values hold only such as other cells hold alone, or codes that
   * are written as those: {@code B-0001, B-0002} beside {@code B-0003}.
   */
  private static boolean standAlone(List<String> texts, Pattern pattern) {
    Set<String> single = new HashSet<>();
    List<String[]> several = new ArrayList<>();
    for (String text : texts) {
      String[] parts = pattern.split(text.strip());
      if (parts.length > 1) {
        several.add(parts);
      } else {
        single.add(text.strip());
        single.add(shape(text.strip()));
      }
    }
    long alone =
        several.stream()
            .filter(
                parts ->
                    Arrays.stream(parts)
                        .map(String::strip)
                        .allMatch(
                            p -> single.contains(p) || isCode(p) && single.contains(shape(p))))
            .count();
    return alone >= FEWEST && alone * 2 >= several.size();
  }

  /** Letters and digits, and no space. */
  private static boolean isCode(String text) {
    return text.chars().anyMatch(Character::isDigit)
        && text.chars().anyMatch(Character::isLetter)
        && text.indexOf(' ') < 0;
  }

  /** A text with all letters and all digits alike; no text is written so. */
  private static String shape(String text) {
    StringBuilder shape = new StringBuilder("\0");
    text.chars().forEach(c -> shape.append(Character.isDigit(c) ? '9' : sign(c)));
    return shape.toString();
  }

  private static char sign(int c) {
    return Character.isLetter(c) ? 'a' : (char) c;
  }

  private static CellList parted(DistinctValues cells, List<String> at, boolean sure) {
    Pattern pattern = pattern(at);
    DistinctValues parts = new DistinctValues();
    for (Map.Entry<Cell, DistinctValues.Tally> e : cells.tallies().entrySet()) {
      for (String part : pattern.split(e.getKey().text())) {
        parts.add(Cell.text(part.strip()), e.getValue().rows(), e.getValue().line());
      }
    }
    return new CellList(at, parts, sure);
  }

  private boolean repeats() {
    long rows = parts.tallies().values().stream().mapToLong(DistinctValues.Tally::rows).sum();
    return rows >= parts.tallies().size() * REPEATED;
  }

  private boolean isLong() {
    return parts.tallies().keySet().stream().anyMatch(c -> c.text().length() > LONGEST);
  }

  /** The signs as they are told: {@code “;” and “,”}. */
  String signs() {
    return String.join(
        " and ", at.stream().map(a -> a.equals("\n") ? "line ends" : "“" + a + "”").toList());
  }
}
