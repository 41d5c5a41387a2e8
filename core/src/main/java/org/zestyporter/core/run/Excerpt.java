package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.match.KeyHashes;
import org.zestyporter.core.match.Match;
import org.zestyporter.core.value.SideBySide;

/**
 * Some rows of a source, to be gone through as if all were: with those that are {@linkplain Ties
 * tied} to one of them, and from what is kept of the others.
 *
 * <pre>{@code
 * Excerpt excerpt = Excerpt.of(own, columns, alsoLookedAt, remembered);
 * try (Room room = Room.take(excerpt.weight())) {
 *   excerpt.open();
 *   excerpt.tie(null);
 *   if (excerpt.spread(rows)) {
 *     excerpt.pass(rows, taken);
 *   }
 * }
 * }</pre>
 */
final class Excerpt {
  /** More rows are gone through about as fast with all others. */
  private static final int MOST = 150_000;

  private final OpenedPlan own;
  private final List<Part> parts;
  private final KeptKeys keys;
  private List<Target> targets;
  private ChunkSource chunks;
  private List<List<Noting.Hashed>> hashed;
  private Ties ties;

  /** A destination. */
  private static final class Part {
    private final KeptColumns.Open columns;

    /** Hashes keys and unique values, and counts numbers; nothing else is noted in it. */
    private final Target hasher;

    /** The fields whose values are known of all rows. */
    private final List<String> lookedAt;

    private List<FilledChunk> filled;

    /** Records of which it is known what else they would touch. */
    private final Set<List<Object>> known = new HashSet<>();

    Part(KeptColumns.Open columns, Target hasher, List<String> also) {
      this.columns = columns;
      this.hasher = hasher;
      this.lookedAt = hasher.lookedAt(false);
      lookedAt.addAll(also);
    }

    /** About how many bytes its rows take. */
    long weight() {
      return Remembered.weight(columns.count(), hasher, lookedAt);
    }
  }

  private Excerpt(OpenedPlan own, List<Part> parts, KeptKeys keys) {
    this.own = own;
    this.parts = parts;
    this.keys = keys;
    this.targets = parts.stream().map(part -> part.hasher).toList();
  }

  /**
   * @param own the plan, with look-ups through what is remembered
   * @param columns of its destinations
   * @param also by destination, fields whose values are wanted of all rows
   * @return null if it can't be told which rows are tied, or what has to be known of all rows takes
   *     too much memory
   */
  static @Nullable Excerpt of(
      OpenedPlan own,
      List<KeptColumns.Open> columns,
      List<List<String>> also,
      Remembered remembered) {
    List<Part> parts = new ArrayList<>();
    for (Target hasher : Targets.open(own, KeptColumns.fills(columns))) {
      Part part = new Part(columns.get(hasher.index), hasher, also.get(hasher.index));
      boolean isTied = !hasher.keysNeedParent() || hasher.isWithinParent();
      if (!isTied || hasher.matcher.isNear() || !Remembered.fits(part.weight())) {
        return null;
      }
      parts.add(part);
    }
    return new Excerpt(own, parts, remembered.keys());
  }

  /** About how many bytes it takes. */
  long weight() {
    return parts.stream()
        .mapToLong(p -> Remembered.weightAtWork(p.weight(), p.columns.count(), p.hasher))
        .sum();
  }

  /** The destinations of {@link #chunks}. */
  List<Target> targets() {
    return targets;
  }

  /** All rows, with the fields that are looked at. */
  ChunkSource chunks() {
    return chunks;
  }

  /** Computes the values that are not kept; before anything else. */
  void open() {
    for (Part part : parts) {
      part.filled = part.columns.chunks(part.lookedAt);
      part.columns.spreads(part.hasher.farOff, () -> count(part));
      part.hasher.farOff.settle();
    }
    use(targets);
  }

  /**
   * Finds out what rows have in common; before any are spread.
   *
   * @param alike whose keys are known; null if there is none
   */
  void tie(KeptKeys.@Nullable Alike alike) {
    List<KeptColumns.Open> columns = parts.stream().map(part -> part.columns).toList();
    hashed = keys.hashed(targets, targets, columns, chunks, false, alike);
    ties = new Ties(targets, columns, hashed, chunks, keys, alike);
  }

  private static void count(Part part) {
    SideBySide.go(
        part.filled.size(),
        1,
        (from, to) -> part.filled.subList(from, to).forEach(part.hasher.farOff::note));
  }

  private void use(List<Target> next) {
    targets = next;
    List<KeptChunks.Part> kept = new ArrayList<>();
    for (Target target : next) {
      Part part = parts.get(target.index);
      // numbers are counted once
      target.farOff = part.hasher.farOff;
      kept.add(new KeptChunks.Part(part.columns, part.filled, target));
    }
    chunks = new KeptChunks(kept);
  }

  /**
   * Adds all rows that have to be gone through with some, and notes them.
   *
   * @param rows by chunk, rows of the source
   * @return false if they are too many
   */
  boolean spread(List<BitSet> rows) {
    long noted = -1;
    while (ties.spread(rows, MOST) && Ties.count(rows) != noted) {
      noted = Ties.count(rows);
      use(Targets.open(own, parts.stream().map(part -> part.columns.fills()).toList()));
      new Noting(own, targets, chunks, rows, hashed).go(Progress.NONE);
      targets.forEach(target -> findRecords(target, rows));
    }
    return Ties.count(rows) <= MOST;
  }

  /**
   * Adds what rows may have in common with the records that some rows speak of, or that have a
   * unique value which one of these is to take.
   */
  private void findRecords(Target target, List<BitSet> some) {
    if (target.keysNeedParent()) {
      // rows that speak of its records share the parent
      return;
    }
    Part part = parts.get(target.index);
    Set<List<Object>> records = new HashSet<>();
    for (int i = 0; i < some.size(); i++) {
      BitSet in = some.get(i);
      if (in.isEmpty()) {
        continue;
      }
      TargetRows rows = chunks.next(i).targets().get(target.index);
      for (int row = in.nextSetBit(0); row >= 0; row = in.nextSetBit(row + 1)) {
        for (int r = rows.from(row); r < rows.to(row); r++) {
          Match match = target.matcher.match(rows.first + r, rows.byField, r);
          records.addAll(match.records());
          records.addAll(target.guard.holders(rows.byField, r));
        }
      }
    }
    records.removeAll(part.known);
    part.known.addAll(records);
    Records found = records.isEmpty() ? Records.none() : own.lookups().fetch(target.table, records);
    KeyHashes shared = ties.of(target);
    for (List<Object> record : records) {
      int at = found.at(record);
      if (at >= 0) {
        part.hasher.matcher.addHashes(found.columns(), at, shared);
        for (long hash : part.hasher.guard.hashes(found.columns(), at)) {
          shared.add(hash);
        }
      }
    }
  }

  /**
   * Decides rows that were spread.
   *
   * @param taken takes the chunks once these rows are decided
   */
  void pass(List<BitSet> rows, Consumer<ChunkRows> taken) {
    SomeRows.passAlone(own, targets, chunks, rows, taken);
  }
}
