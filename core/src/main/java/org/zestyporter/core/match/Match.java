package org.zestyporter.core.match;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.Policies;

/**
 * What a row was found to speak of.
 *
 * @param key number of the match key that found it, from 1; 0 if none of them has a value
 * @param records primary keys of the records found
 * @param repeats the rows with the same key
 * @param rows indexes of earlier rows that are near to it, that of the one most alike first; only
 *     where no record was found
 * @param act what somebody has decided about it; null if nobody has
 * @param nearness how near the records are, or what the row that is most alike says; null if the
 *     key's values agree
 */
public record Match(
    int key,
    List<List<Object>> records,
    List<Integer> rows,
    Repeats repeats,
    Decision.@Nullable Act act,
    @Nullable String nearness) {

  /** Of nothing that is only near, and nobody has decided about. */
  Match(int key, List<List<Object>> records, Repeats repeats) {
    this(key, records, List.of(), repeats, null, null);
  }

  /**
   * The rows that have the same key.
   *
   * @param first index of the first
   * @param last index of the last; the same if there is but one
   * @param differ true if they say different things; known only where that is asked
   * @param keep what somebody has decided about them; null if nobody has
   */
  public record Repeats(int first, int last, boolean differ, Decision.@Nullable Act keep) {
    static Repeats none(int index) {
      return new Repeats(index, index, false, null);
    }

    Repeats keeping(Decision.Act kept) {
      return new Repeats(first, last, differ, kept);
    }
  }

  public boolean repeated() {
    return repeats.first != repeats.last;
  }

  /** Index of the first row with the same key. */
  public int first() {
    return repeats.first;
  }

  /** Index of the last row with the same key. */
  public int last() {
    return repeats.last;
  }

  /** True if anything was found, be it only near. */
  public boolean isFound() {
    return !records.isEmpty() || !rows.isEmpty();
  }

  /** True if something was found that is only near. */
  public boolean isNear() {
    return nearness != null && isFound();
  }

  /** The same, with what is known of the rows that have the same key. */
  Match repeating(Repeats others) {
    return new Match(key, records, rows, others, act, nearness);
  }

  /**
   * Of a row for which no key found a record.
   *
   * @param first what the first of the keys found whose values have to agree: the rows that have it
   *     too
   * @param like what a key found that looks for what is near, be it rows or nothing
   * @param act what somebody has decided
   */
  static Match ofNone(
      int index, @Nullable Match first, @Nullable Match like, Decision.@Nullable Act act) {
    Repeats repeats = first == null ? Repeats.none(index) : first.repeats;
    if (like != null && (first == null || like.isNear())) {
      return new Match(like.key, List.of(), like.rows, repeats, act, like.nearness);
    }
    return new Match(first == null ? 0 : first.key, List.of(), List.of(), repeats, act, null);
  }

  /** True if it is certain which record is meant. */
  public boolean isOne() {
    return records.size() == 1 && (!isNear() || act == Decision.Act.TAKE);
  }

  /** True if somebody has decided that the row is left out. */
  public boolean isLeftOut() {
    return act == Decision.Act.SKIP || act == Decision.Act.REJECT;
  }

  /** What becomes of the rows that hold the same key, seeing what was decided about them. */
  public Policies.OnRepeat onRepeat(Policies policies) {
    if (repeats.keep != null) {
      return switch (repeats.keep) {
        case FIRST -> Policies.OnRepeat.KEEP_FIRST;
        case MERGE -> Policies.OnRepeat.MERGE;
        default -> Policies.OnRepeat.KEEP_LAST;
      };
    }
    boolean asksForNothing = policies.onRepeat() == Policies.OnRepeat.ASK && !repeats.differ;
    return asksForNothing ? Policies.OnRepeat.KEEP_LAST : policies.onRepeat();
  }

  /** Index of the row that is kept of all that hold the same key; under 0 if none is. */
  public int kept(Policies policies) {
    return switch (onRepeat(policies)) {
      case KEEP_LAST, MERGE -> last();
      case KEEP_FIRST -> first();
      case REJECT, ASK -> -1;
    };
  }
}
