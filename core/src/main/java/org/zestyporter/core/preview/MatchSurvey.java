package org.zestyporter.core.preview;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.run.RecordKeys;
import org.zestyporter.core.value.ProblemCode;

/** A ledger that only tells how rows match, and by which key, with rows of one of the classes. */
public final class MatchSurvey implements Ledger {

  /** How a row matches. */
  public enum Class {
    ONE,
    NONE,
    SEVERAL,
    /** Records are only near to what it says. */
    SIMILAR,
    /** Another row of the file holds the same key. */
    REPEATS,
    /** Somebody has decided that it is left out. */
    DECIDED,
    /** It can't be matched, because a value is in trouble. */
    TROUBLED;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  private static final Set<ProblemCode> SPEAKS_OF =
      EnumSet.of(ProblemCode.SEVERAL_MATCHES, ProblemCode.SIMILAR);

  /** Rows that are shown beside each other. */
  private static final int TOGETHER = 5;

  private final int destination;
  private final Class wanted;
  private final int most;
  private final List<String> fields = new ArrayList<>();
  private final long[] rows = new long[Class.values().length];
  private final long[] one;
  private final long[] several;
  private final long[] similar;

  /** The rows that change most, the one that changes least first; of equals the last. */
  private final PriorityQueue<LedgerEntry> shown =
      new PriorityQueue<>(
          Comparator.comparingInt((LedgerEntry e) -> e.changed().size())
              .thenComparing(Comparator.comparingLong(LedgerEntry::row).reversed()));

  /** Rows that wait because they contradict each other, by the line of their first. */
  private final Map<String, List<LedgerEntry>> contradicting = new LinkedHashMap<>();

  /**
   * @param destination index of the destination that is looked at
   * @param keys number of its match keys
   * @param wanted the class of which rows are shown
   * @param most rows that are shown
   */
  public MatchSurvey(int destination, int keys, Class wanted, int most) {
    this.destination = destination;
    this.wanted = wanted;
    this.most = most;
    this.one = new long[keys];
    this.several = new long[keys];
    this.similar = new long[keys];
  }

  /**
   * How the rows of a file match.
   *
   * @param keys what each match key finds
   * @param fields names of the fields whose values the pairs hold
   * @param of the class whose rows are shown
   * @param pairs rows of the class beside the record that they match, the most changed first
   * @param candidates by pair, the keys of the records that it may speak of, their parts joined by
   *     a comma; empty unless they are several, or only near
   * @param others by pair, rows that have the same key, say something else, and wait with it
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
      Class of,
      List<LedgerEntry> pairs,
      List<List<String>> candidates,
      List<List<LedgerEntry>> others,
      List<KeyAdvice> further) {}

  /** How many rows a match key finds one record for, several, and such as are only near. */
  public record KeyFinds(long one, long several, long similar) {}

  @Override
  public void begin(LedgerLayout layout) {
    if (layout.destination() == destination) {
      fields.addAll(layout.fields());
    }
  }

  @Override
  public void append(LedgerChunk chunk) {
    if (chunk.destination() != destination) {
      return;
    }
    List<LedgerEntry> entries = null;
    for (int entry = 0; entry < chunk.size(); entry++) {
      Class is = classOf(chunk, entry);
      rows[is.ordinal()]++;
      int key = chunk.matchedBy()[entry] - 1;
      if (key >= 0 && key < one.length) {
        one[key] += is == Class.ONE ? 1 : 0;
        several[key] += is == Class.SEVERAL ? 1 : 0;
        similar[key] += is == Class.SIMILAR ? 1 : 0;
      }
      boolean contradicts = is == wanted && has(chunk.notes()[entry], ProblemCode.CONTRADICTED);
      if (contradicts) {
        entries = entries == null ? chunk.entries() : entries;
        gather(entries.get(entry));
      } else if (is == wanted && mayShow(changes(chunk, entry))) {
        entries = entries == null ? chunk.entries() : entries;
        shown.add(entries.get(entry));
        if (shown.size() > most) {
          shown.poll();
        }
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

  private static Class classOf(LedgerChunk chunk, int entry) {
    List<LedgerEntry.Note> notes = chunk.notes()[entry];
    if (has(notes, ProblemCode.DECIDED)) {
      return Class.DECIDED;
    }
    if (chunk.stood().get(entry)) {
      return Class.ONE;
    }
    if (chunk.outcome(entry) == Outcome.NEW || has(notes, ProblemCode.NO_MATCH)) {
      return Class.NONE;
    }
    if (has(notes, ProblemCode.SEVERAL_MATCHES)) {
      return Class.SEVERAL;
    }
    if (has(notes, ProblemCode.SIMILAR)) {
      return Class.SIMILAR;
    }
    boolean repeats = has(notes, ProblemCode.REPEATED) || has(notes, ProblemCode.CONTRADICTED);
    return repeats ? Class.REPEATS : Class.TROUBLED;
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

  private List<List<LedgerEntry>> others(int pairs) {
    List<List<LedgerEntry>> others = new ArrayList<>();
    contradicting.values().forEach(rows -> others.add(rows.subList(1, rows.size())));
    while (others.size() < pairs) {
      others.add(List.of());
    }
    return others;
  }

  /** Names of the fields that these hold values of. */
  public List<String> fields() {
    return fields;
  }

  /** The keys of the records that a row may speak of, their parts joined by a comma. */
  public static List<String> candidates(LedgerEntry entry) {
    return entry.notes().stream()
        .filter(n -> SPEAKS_OF.contains(n.code()) && n.value() != null)
        .flatMap(n -> RecordKeys.of(n.value()).stream())
        .map(parts -> String.join(",", parts))
        .toList();
  }

  /**
   * @param further what would tell apart records that a key can't
   */
  public MatchClasses result(List<KeyAdvice> further) {
    List<KeyFinds> keys = new ArrayList<>();
    for (int k = 0; k < one.length; k++) {
      keys.add(new KeyFinds(one[k], several[k], similar[k]));
    }
    List<LedgerEntry> pairs = shown();
    return new MatchClasses(
        rows[Class.ONE.ordinal()],
        rows[Class.NONE.ordinal()],
        rows[Class.SEVERAL.ordinal()],
        rows[Class.SIMILAR.ordinal()],
        rows[Class.REPEATS.ordinal()],
        rows[Class.DECIDED.ordinal()],
        rows[Class.TROUBLED.ordinal()],
        keys,
        fields,
        wanted,
        pairs,
        pairs.stream().map(MatchSurvey::candidates).toList(),
        others(pairs.size()),
        further);
  }
}
