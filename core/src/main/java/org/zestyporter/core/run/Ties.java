package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.fill.LinkKey;
import org.zestyporter.core.match.KeyHashes;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.match.RowIndex;
import org.zestyporter.core.value.SideBySide;

/**
 * What the rows of a source have in common: a key, a value that must be unique, a record that one
 * makes and another links to. What becomes of a row may change what becomes of all that have
 * anything in common with it.
 *
 * <p>Rows whose keys hold the parent's record have no ties of their own: they share that of the
 * parent.
 */
final class Ties {
  private final ChunkSource chunks;
  private final List<Tie> ties = new ArrayList<>();

  /** By destination, what touched rows and records have in common with others. */
  private final Map<Integer, KeyHashes> ofKeys = new HashMap<>();

  /**
   * @param shared by which others are touched
   * @param hashes by chunk and row of the destination; 0 for none
   */
  private record Tie(int destination, KeyHashes shared, long[][] hashes) {}

  /**
   * @param keys by destination and chunk; null for one whose keys hold the parent's record
   * @param columns of the destinations
   * @param alike whose keys are known; null if there is none
   */
  Ties(
      List<Target> targets,
      List<KeptColumns.Open> columns,
      List<List<Noting.Hashed>> keys,
      ChunkSource chunks,
      KeptKeys kept,
      KeptKeys.@Nullable Alike alike) {
    this.chunks = chunks;
    Map<LinkKey, RowIndex> indexes = new HashMap<>();
    Map<LinkKey, KeyHashes> ofLinks = new HashMap<>();
    for (Target target : targets) {
      if (keys.get(target.index) != null) {
        addKeys(target, keys.get(target.index));
      }
      target.made.forEach(
          (key, index) -> {
            indexes.put(key, index);
            long[][] made = kept.made(target, columns, chunks, key, index, alike);
            ties.add(new Tie(target.index, shared(ofLinks, key), made));
          });
    }
    for (Target target : targets) {
      for (int fill : target.awaiting) {
        LinkKey key = target.fills.get(fill).awaited();
        long[][] awaited = kept.awaited(target, columns, chunks, fill, indexes.get(key), alike);
        ties.add(new Tie(target.index, shared(ofLinks, key), awaited));
      }
    }
  }

  private static KeyHashes shared(Map<LinkKey, KeyHashes> ofLinks, LinkKey key) {
    return ofLinks.computeIfAbsent(key, k -> new KeyHashes());
  }

  private void addKeys(Target target, List<Noting.Hashed> all) {
    KeyHashes shared = of(target);
    int count = target.matcher.size() + target.guard.size();
    for (int k = 0; k < count; k++) {
      long[][] hashes = new long[all.size()][];
      for (int i = 0; i < hashes.length; i++) {
        hashes[i] = key(all.get(i), k);
      }
      ties.add(new Tie(target.index, shared, hashes));
    }
  }

  private static long[] key(Noting.Hashed hashed, int key) {
    Matcher.Hashes keys = hashed.keys();
    int count = keys.byKey().length;
    return key < count ? keys.byKey()[key] : hashed.guarded().get(key - count).byKey()[0];
  }

  /** What touched rows and records of a destination have in common with others. */
  KeyHashes of(Target target) {
    return ofKeys.computeIfAbsent(target.index, t -> new KeyHashes());
  }

  /**
   * Adds the rows that have anything in common with one that is touched, and those that have
   * anything in common with these.
   *
   * @param touched by chunk, rows of the source
   * @param most how many there may be
   * @return false if they are more
   */
  boolean spread(List<BitSet> touched, long most) {
    long before;
    do {
      before = count(touched);
      if (before > most) {
        return false;
      }
      for (int i = 0; i < touched.size(); i++) {
        share(i, touched.get(i));
      }
      SideBySide.go(
          touched.size(),
          1,
          (from, to) -> {
            for (int i = from; i < to; i++) {
              find(i, touched.get(i));
            }
          });
    } while (count(touched) != before);
    return true;
  }

  /** Number of rows by chunk. */
  static long count(List<BitSet> rows) {
    return rows.stream().mapToLong(BitSet::cardinality).sum();
  }

  private void share(int number, BitSet touched) {
    if (touched.isEmpty()) {
      return;
    }
    ChunkRows chunk = chunks.next(number);
    for (Tie tie : ties) {
      TargetRows rows = chunk.targets().get(tie.destination);
      for (int row = touched.nextSetBit(0); row >= 0; row = touched.nextSetBit(row + 1)) {
        for (int r = rows.from(row); r < rows.to(row); r++) {
          tie.shared.add(tie.hashes[number][r]);
        }
      }
    }
  }

  private void find(int number, BitSet touched) {
    ChunkRows chunk = chunks.next(number);
    for (Tie tie : ties) {
      TargetRows rows = chunk.targets().get(tie.destination);
      long[] hashes = tie.hashes[number];
      for (int r = 0; r < hashes.length; r++) {
        if (tie.shared.has(hashes[r])) {
          touched.set(rows.rowOf(r));
        }
      }
    }
  }
}
