package org.zestyporter.core.source;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.apache.commons.text.similarity.JaroWinklerSimilarity;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.reading.ColumnShape;
import org.zestyporter.core.source.reading.Letters;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.ValueType;

/**
 * How a column of a file differs from the file that a plan was made with.
 *
 * @param before the column as it was; null if it is new
 * @param now the column as it is; null if it is gone
 * @param because why so, in words
 */
public record FileChange(
    Kind kind, @Nullable ColumnShape before, @Nullable ColumnShape now, String because) {
  private static final double ALIKE = 0.82;
  private static final int ENOUGH = 3;

  /** What became of a column. */
  public enum Kind {
    /** Gone under its name, and a new one stands for it. */
    RENAMED,
    MOVED,
    ADDED,
    GONE,
    TYPE;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** The columns of a table as they are to be remembered. */
  public static List<ColumnShape> shape(SourceTable table) {
    // what is said of rejected rows is none of the file's own
    return table.profiles().stream()
        .filter(p -> !ReturnTitles.isOurs(p.name()))
        .map(FileChange::shape)
        .toList();
  }

  private static ColumnShape shape(ColumnProfile p) {
    return new ColumnShape(p.name(), p.letter(), p.type());
  }

  /** What has changed, renamed columns first; empty if nothing has. */
  public static List<FileChange> compare(List<ColumnShape> before, SourceTable table) {
    List<ColumnShape> now = shape(table);
    boolean isReturned = ReturnTitles.runOf(table.columns()) != null;
    List<FileChange> changes = new ArrayList<>();
    List<ColumnShape> gone = new ArrayList<>();
    List<ColumnShape> added = new ArrayList<>(now);
    List<ColumnShape[]> same = new ArrayList<>();
    for (ColumnShape old : before) {
      ColumnShape found =
          now.stream().filter(c -> c.name().equalsIgnoreCase(old.name())).findFirst().orElse(null);
      if (found == null) {
        gone.add(old);
      } else {
        added.remove(found);
        same.add(new ColumnShape[] {old, found});
      }
    }
    renamed(gone, added, changes);
    moved(same, changes);
    for (ColumnShape[] pair : same) {
      // rejected rows hold what is wrong with them
      if (!isReturned && isOtherType(pair[0].type(), pair[1].type())) {
        changes.add(
            new FileChange(
                Kind.TYPE,
                pair[0],
                pair[1],
                "it held " + words(pair[0].type()) + " and now holds " + words(pair[1].type())));
      }
    }
    gone.forEach(c -> changes.add(new FileChange(Kind.GONE, c, null, "no column is like it")));
    added.forEach(c -> changes.add(new FileChange(Kind.ADDED, null, c, "it was not there before")));
    return changes;
  }

  private record Pair(ColumnShape old, ColumnShape now, double score, String because) {}

  /** Pairs what is gone with what is new, the likeliest first. */
  private static void renamed(
      List<ColumnShape> gone, List<ColumnShape> added, List<FileChange> changes) {
    List<Pair> pairs = new ArrayList<>();
    for (ColumnShape old : gone.subList(0, Math.min(500, gone.size()))) {
      for (ColumnShape now : added.subList(0, Math.min(500, added.size()))) {
        Pair pair = pair(old, now);
        if (pair.score() >= ENOUGH) {
          pairs.add(pair);
        }
      }
    }
    pairs.sort(Comparator.comparingDouble(p -> -p.score()));
    for (Pair pair : pairs) {
      if (gone.contains(pair.old()) && added.contains(pair.now())) {
        gone.remove(pair.old());
        added.remove(pair.now());
        changes.add(new FileChange(Kind.RENAMED, pair.old(), pair.now(), pair.because()));
      }
    }
  }

  private static Pair pair(ColumnShape old, ColumnShape now) {
    String a = bare(old.name());
    String b = bare(now.name());
    double alike = new JaroWinklerSimilarity().apply(a, b);
    boolean words = alike >= ALIKE || shareWord(old.name(), now.name());
    boolean place = old.letter().equals(now.letter());
    boolean type = old.type() == now.type();
    double score =
        (a.equals(b) ? 4 : words ? 1.5 + alike : 0)
            + (place ? 2 : 0)
            + (!type ? -1.5 : now.type() == ValueType.TEXT ? 0.7 : 1);
    List<String> why = new ArrayList<>();
    if (words) {
      why.add("the titles are alike");
    }
    if (place) {
      why.add("it stands in the same place");
    }
    if (type) {
      why.add("both hold " + words(now.type()));
    }
    return new Pair(old, now, score, String.join(", ", why));
  }

  private static String bare(String name) {
    return name.toLowerCase(Locale.ROOT).replaceAll(Texts.BETWEEN_WORDS, "");
  }

  private static boolean shareWord(String a, String b) {
    Set<String> words = words(a);
    words.retainAll(words(b));
    return words.stream().anyMatch(w -> w.length() > 2);
  }

  private static Set<String> words(String name) {
    return new HashSet<>(Arrays.asList(name.toLowerCase(Locale.ROOT).split(Texts.BETWEEN_WORDS)));
  }

  /** Columns outside of the longest run that keeps its order have moved. */
  private static void moved(List<ColumnShape[]> same, List<FileChange> changes) {
    int n = same.size();
    int[] length = new int[n];
    int[] previous = new int[n];
    int best = -1;
    for (int i = 0; i < n; i++) {
      length[i] = 1;
      previous[i] = -1;
      for (int j = 0; j < i; j++) {
        if (place(same.get(j)[1]) < place(same.get(i)[1]) && length[j] + 1 > length[i]) {
          length[i] = length[j] + 1;
          previous[i] = j;
        }
      }
      best = best < 0 || length[i] > length[best] ? i : best;
    }
    Set<Integer> inOrder = new HashSet<>();
    for (int i = best; i >= 0; i = previous[i]) {
      inOrder.add(i);
    }
    for (int i = 0; i < n; i++) {
      ColumnShape old = same.get(i)[0];
      ColumnShape now = same.get(i)[1];
      if (!inOrder.contains(i) && Letters.index(now.letter()) >= 0) {
        changes.add(
            new FileChange(
                Kind.MOVED,
                old,
                now,
                "it was column " + old.letter() + " and is column " + now.letter()));
      }
    }
  }

  private static int place(ColumnShape column) {
    return Letters.index(column.letter());
  }

  private static boolean isOtherType(ValueType old, ValueType now) {
    boolean empty = old == ValueType.EMPTY || now == ValueType.EMPTY;
    return old != now && !empty && !(old.isNumber() && now.isNumber());
  }

  private static String words(ValueType type) {
    return switch (type) {
      case TEXT -> "text";
      case WHOLE, DECIMAL -> "numbers";
      case DATE -> "dates";
      case DATETIME -> "dates with times";
      case TIME -> "times";
      case BOOLEAN -> "yes and no";
      case EMPTY -> "nothing";
    };
  }
}
