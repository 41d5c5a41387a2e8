package org.zestyporter.core.preview;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.KeyText;
import org.zestyporter.core.match.MatchClass;
import org.zestyporter.core.run.Classing;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.RecordKeys;
import org.zestyporter.core.value.ProblemCode;

/** Tells how rows match, and by which key, with rows of one of the classes. */
public final class MatchSurvey {
  private static final Set<ProblemCode> SPEAKS_OF =
      EnumSet.of(ProblemCode.SEVERAL_MATCHES, ProblemCode.SIMILAR);

  /** Rows that are shown beside each other. */
  private static final int TOGETHER = 5;

  private final Classing.Counted counted;
  private final List<String> fields;
  private final MatchClass wanted;
  private final int most;
  private final long looked;

  /** The rows that change most, the one that changes least first; of equals the last. */
  private final PriorityQueue<LedgerEntry> shown =
      new PriorityQueue<>(
          Comparator.comparingInt((LedgerEntry e) -> e.changed().size())
              .thenComparing(Comparator.comparingLong(LedgerEntry::row).reversed()));

  /** Rows that others are near to, by their lines. */
  private final Map<Long, LedgerEntry> near = new HashMap<>();

  /** Rows that wait because they contradict each other, by the line of their first. */
  private final Map<String, List<LedgerEntry>> contradicting = new LinkedHashMap<>();

  /**
   * @param wanted the class of which rows are shown
   * @param most rows that are shown
   */
  public MatchSurvey(Classing classing, MatchClass wanted, int most) {
    this.counted = classing.counted();
    this.fields = classing.layout().fields();
    this.wanted = wanted;
    this.most = most;
    this.looked = most == 0 ? 0 : classing.show(wanted, new Taker());
  }

  /**
   * How the rows of a file match.
   *
   * @param keys what each match key finds
   * @param fields names of the fields whose values the pairs hold
   * @param of the class whose rows are shown
   * @param looked rows of the class, and those with the same keys, that were looked at to find the
   *     most changed
   * @param pairs rows of the class beside the record that they match, the most changed first
   * @param candidates by pair, the keys of the records that it may speak of, each a {@link
   *     KeyText}; empty unless they are several, or only near
   * @param others by pair, rows that have the same key, say something else, and wait with it; or
   *     the earlier row that it is much like
   * @param further fields that would tell apart records that a key can't, the best first
   */
  public record MatchClasses(
      long one,
      long none,
      long several,
      long similar,
      long repeats,
      long decided,
      long troubled,
      List<KeyFinds> keys,
      List<String> fields,
      MatchClass of,
      long looked,
      List<LedgerEntry> pairs,
      List<List<String>> candidates,
      List<List<LedgerEntry>> others,
      List<KeyAdvice> further) {}

  /**
   * How many rows a match key finds one record for, several, and what is only near.
   *
   * @param comparesRows false if it finds what is near, and the file has too many rows for these to
   *     be compared with each other
   */
  public record KeyFinds(long one, long several, long similar, boolean comparesRows) {}

  private final class Taker implements Classing.Taker {
    @Override
    public void take(LedgerChunk chunk, int entry) {
      MatchSurvey.this.take(chunk, entry);
    }

    @Override
    public void takeBeside(LedgerChunk chunk, int entry) {
      LedgerEntry one = chunk.entries().get(entry);
      near.put(one.line(), one);
    }
  }

  private void take(LedgerChunk chunk, int entry) {
    if (has(chunk.notes()[entry], ProblemCode.CONTRADICTED)) {
      gather(chunk.entries().get(entry));
    } else if (mayShow(changes(chunk, entry))) {
      shown.add(chunk.entries().get(entry));
      if (shown.size() > most) {
        shown.poll();
      }
    }
  }

  /** Puts a row to those that it contradicts. */
  private void gather(LedgerEntry entry) {
    String first =
        entry.notes().stream()
            .filter(n -> n.code() == ProblemCode.CONTRADICTED)
            .map(n -> String.valueOf(n.value()))
            .findFirst()
            .orElse("");
    List<LedgerEntry> known = contradicting.get(first);
    if (known != null && known.size() < TOGETHER) {
      known.add(entry);
    } else if (known == null && contradicting.size() < most) {
      contradicting.put(first, new ArrayList<>(List.of(entry)));
    }
  }

  private boolean mayShow(int changes) {
    LedgerEntry least = shown.peek();
    return shown.size() < most || least != null && changes > least.changed().size();
  }

  private static int changes(LedgerChunk chunk, int entry) {
    int[] changed = chunk.changed()[entry];
    return changed == null ? 0 : changed.length;
  }

  private static boolean has(@Nullable List<LedgerEntry.Note> notes, ProblemCode code) {
    return notes != null && notes.stream().anyMatch(n -> n.code() == code && !n.softened());
  }

  /** The rows that are shown: those that contradict others, then the most changed first. */
  public List<LedgerEntry> shown() {
    return Stream.concat(
            contradicting.values().stream().map(rows -> rows.get(0)),
            shown.stream().sorted(shown.comparator().reversed()))
        .limit(most)
        .toList();
  }

  private List<List<LedgerEntry>> others(List<LedgerEntry> pairs) {
    List<List<LedgerEntry>> others = new ArrayList<>();
    contradicting.values().forEach(rows -> others.add(rows.subList(1, rows.size())));
    for (int pair = others.size(); pair < pairs.size(); pair++) {
      LedgerEntry other = near.get(likeLine(pairs.get(pair)));
      others.add(other == null ? List.of() : List.of(other));
    }
    return others;
  }

  /** The line that a row is most like; 0 if there is none. */
  private static long likeLine(LedgerEntry entry) {
    return entry.notes().stream()
        .filter(n -> n.code() == ProblemCode.SIMILAR_ROW)
        .map(n -> RecordKeys.of(n.value()).get(0).get(0))
        .mapToLong(Long::parseLong)
        .findFirst()
        .orElse(0);
  }

  /** Names of the fields that these hold values of. */
  public List<String> fields() {
    return fields;
  }

  /** The keys of the records that a row may speak of, each a {@link KeyText}. */
  public static List<String> candidates(LedgerEntry entry) {
    return entry.notes().stream()
        .filter(n -> SPEAKS_OF.contains(n.code()) && n.value() != null)
        .flatMap(n -> RecordKeys.of(n.value()).stream())
        .map(KeyText::of)
        .toList();
  }

  /**
   * @param further what would tell apart records that a key can't
   */
  public MatchClasses result(List<KeyAdvice> further) {
    List<KeyFinds> keys = new ArrayList<>();
    for (int k = 0; k < counted.byKey().size(); k++) {
      keys.add(finds(counted, k));
    }
    List<LedgerEntry> pairs = shown();
    return new MatchClasses(
        rows(MatchClass.ONE),
        rows(MatchClass.NONE),
        rows(MatchClass.SEVERAL),
        rows(MatchClass.SIMILAR),
        rows(MatchClass.REPEATS),
        rows(MatchClass.DECIDED),
        rows(MatchClass.TROUBLED),
        keys,
        fields,
        wanted,
        looked,
        pairs,
        pairs.stream().map(MatchSurvey::candidates).toList(),
        others(pairs),
        further);
  }

  /**
   * What a match key finds.
   *
   * @param key number of the key, from 0
   */
  public static KeyFinds finds(Classing.Counted counted, int key) {
    Map<MatchClass, Long> rows = counted.byKey().get(key);
    return new KeyFinds(
        rows.get(MatchClass.ONE),
        rows.get(MatchClass.SEVERAL),
        rows.get(MatchClass.SIMILAR),
        counted.compared().get(key));
  }

  private long rows(MatchClass is) {
    return counted.rows().get(is);
  }
}
