package org.zestyporter.core.run;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/** Tells in which fields a row changes the record that it found. */
final class Differences {
  private final Target target;
  private final boolean onlyBlanks;

  /** Fills whose values are the same only if they are equal in one form. */
  private final boolean[] isPlain;

  Differences(Target target) {
    this.target = target;
    this.onlyBlanks = target.destination.policies().onMatch() == Policies.OnMatch.FILL_BLANKS;
    this.isPlain = new boolean[target.fills.size()];
    for (int f = 0; f < isPlain.length; f++) {
      isPlain[f] =
          switch (target.fills.get(f).field().storage().kind()) {
            case TEXT, NUMBER, DATE -> !target.matcher.loosens(target.fills.get(f).field());
            default -> false;
          };
    }
  }

  /**
   * The fills that give the record another value, up to the first that can't be cleared. Notes what
   * the record keeps against the row.
   *
   * @param key number of the match key that found the record
   */
  List<Integer> of(TargetRows rows, int r, int key) {
    List<Integer> changed = List.of();
    for (int f = 0; f < isPlain.length; f++) {
      if (changes(rows, r, f, key)) {
        changed = changed.isEmpty() ? new ArrayList<>() : changed;
        changed.add(f);
        if (isUnclearable(rows, r, f)) {
          break;
        }
      }
    }
    return changed;
  }

  /**
   * True if nothing but stamps would change, such as the time of the run: who wrote a record and
   * when is only said of one that is written.
   */
  boolean areStamps(List<Integer> changed) {
    return changed.stream().allMatch(f -> target.fills.get(f).fill().origin().isStamp());
  }

  /** True if a fill gives a blank to a field that has to hold something. */
  boolean isUnclearable(TargetRows rows, int r, int f) {
    return rows.isBlank(f, r) && !target.fills.get(f).field().nullable();
  }

  /** True if the record belongs to another parent than the row's. */
  boolean movesToOtherParent(TargetRows rows, int r) {
    Target.Parent parent = target.parent;
    if (parent == null) {
      return false;
    }
    Object held = held(rows, r, parent.fieldIndex());
    boolean stays = onlyBlanks && held != null;
    return !stays && !parent.field().storage().same(rows.parent(r), held);
  }

  /**
   * True if a row may change the record that it found; told before the row is decided, on any
   * thread.
   *
   * @param at the record's place among those that were found
   * @param key number of the match key that found it
   */
  boolean mayChange(TargetRows rows, int r, int at, int key) {
    for (int f = 0; f < isPlain.length; f++) {
      if (!target.fills.get(f).fill().origin().isStamp() && differs(rows, r, f, key, at)) {
        return true;
      }
    }
    return false;
  }

  private boolean changes(TargetRows rows, int r, int f, int key) {
    if (!differs(rows, r, f, key, rows.before[r])) {
      return false;
    }
    CompiledFill fill = target.fills.get(f);
    if (onlyBlanks && held(rows, r, fill.fieldIndex()) != null) {
      return false;
    }
    return rows.isBlank(f, r) || !isKept(rows, r, fill, rows.value(f, r));
  }

  /** True if a fill gives what counts, and what a record has not. */
  private boolean differs(TargetRows rows, int r, int f, int key, int at) {
    Fill fill = target.fills.get(f).fill();
    if (fill.onlyNew()) {
      return false;
    }
    boolean counts = !rows.isBlank(f, r) || fill.blankOnMatch() == Fill.BlankOnMatch.CLEAR;
    return counts && !isSame(rows, r, f, key, at);
  }

  /** True if the record keeps its number or day, since the new one is lower, or higher. */
  private boolean isKept(TargetRows rows, int r, CompiledFill fill, Object value) {
    Fill.Never never = fill.fill().never();
    Object held = never == null ? null : held(rows, r, fill.fieldIndex());
    if (held == null) {
      return false;
    }
    int order = fill.field().storage().compare(value, held);
    boolean keeps = never == Fill.Never.LOWER ? order < 0 : order > 0;
    if (keeps) {
      boolean isDay = !(value instanceof BigDecimal);
      String reason =
          (order < 0 ? (isDay ? "earlier" : "lower") : isDay ? "later" : "higher")
              + " than “"
              + Values.text(held)
              + "”, which the record keeps";
      rows.note(
          r,
          new LedgerEntry.Note(
              ProblemCode.KEPT, fill.field().name(), Values.text(value), reason, true));
    }
    return keeps;
  }

  /** What the record that was found has in a field; null if blank. */
  private static @Nullable Object held(TargetRows rows, int r, int field) {
    return rows.found.columns()[field].value(rows.before[r]);
  }

  /** True if a fill gives what a record has. */
  private boolean isSame(TargetRows rows, int r, int f, int key, int at) {
    CompiledFill fill = target.fills.get(f);
    if (!rows.isSettled(r)) {
      ValueColumn given = rows.filled.column(f).values();
      ValueColumn held = rows.found.columns()[fill.fieldIndex()];
      if (given.isEqual(r, held, at)) {
        return true;
      }
      if (isPlain[f] && given.form() == held.form() && given.scale() == held.scale()) {
        return false;
      }
    }
    return target.matcher.same(
        key, fill.field(), rows.value(f, r), rows.found.columns()[fill.fieldIndex()].value(at));
  }
}
