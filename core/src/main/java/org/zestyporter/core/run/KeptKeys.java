package org.zestyporter.core.run;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.function.Function;
import java.util.function.IntToLongFunction;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.fill.Awaited;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.LinkKey;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.match.RowIndex;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.SideBySide;

/**
 * The keys of a source's rows, kept while somebody edits a plan: as hashes, for as long as the
 * fields of a key are filled alike, and with the records that were found for them, for as long as
 * the same rows are rejected and the records are taken to be the same. What takes more room than
 * there is goes, what was asked for longest ago first.
 */
final class KeptKeys {
  private final KeptAnswers answers;
  private final KeptThings<Object, Object> kept;

  /**
   * What the hashes of a key depend on.
   *
   * @param key a match key, or how links look records up
   * @param fills of its fields
   */
  private record HashesOf(Object key, List<Object> fills) {}

  /**
   * What is found by a key depends on.
   *
   * @param of its hashes
   * @param fills those that may reject a row, which is not noted then
   * @param since when the records were read
   */
  private record FindsOf(HashesOf of, List<Object> fills, @Nullable String among, Instant since) {}

  /**
   * What it depends on besides whether rows with the same key say the same.
   *
   * @param said fields by which they are compared
   * @param fills of these
   */
  private record SayingsOf(FindsOf of, List<String> said, List<Object> fills) {}

  /**
   * Hashes of the rows of a destination.
   *
   * @param before the same of the plan before; null if nobody told of one
   * @param hash gives what tells those of a chunk's rows, on the thread that asks
   */
  private record Wanted(
      HashesOf of, @Nullable HashesOf before, Function<TargetRows, IntToLongFunction> hash) {}

  /**
   * A plan that gives most rows the same values.
   *
   * @param columns of its destinations
   * @param touched by chunk, the rows to which it gives others
   */
  record Alike(List<KeptColumns.Open> columns, List<BitSet> touched) {}

  /** What rows await by a link. */
  private record Awaits(LinkKey by) {}

  /**
   * @param room bytes that all may take
   */
  KeptKeys(KeptAnswers answers, long room) {
    this.answers = answers;
    this.kept = new KeptThings<>(room);
  }

  /**
   * The keys of all rows by destination and chunk; null for a destination that nobody asks for, or
   * whose keys hold the parent's record, which can't be told before that is known.
   *
   * @param noted those that somebody asks for
   * @param onlyKeys true if nobody asks for the values that must be unique
   * @param alike whose keys are known; null if there is none
   */
  List<@Nullable List<Noting.Hashed>> hashed(
      List<Target> targets,
      List<Target> noted,
      List<KeptColumns.Open> columns,
      ChunkSource chunks,
      boolean onlyKeys,
      @Nullable Alike alike) {
    List<List<Noting.Hashed>> all = new ArrayList<>();
    for (Target target : targets) {
      boolean isTold = noted.contains(target) && !target.keysNeedParent();
      all.add(isTold ? hashed(target, columns, chunks, onlyKeys, alike) : null);
    }
    return all;
  }

  /** The keys of all rows of a destination by chunk. */
  private List<Noting.Hashed> hashed(
      Target target,
      List<KeptColumns.Open> columns,
      ChunkSource chunks,
      boolean onlyKeys,
      @Nullable Alike alike) {
    List<Wanted> wanted = new ArrayList<>(wanted(target, target.matcher, columns, alike));
    if (!onlyKeys) {
      target.guard.matchers().forEach(m -> wanted.addAll(wanted(target, m, columns, alike)));
    }
    List<long[][]> hashes = hashes(target, wanted, chunks, alike);
    List<Noting.Hashed> all = new ArrayList<>();
    int keys = target.matcher.size();
    for (int i = 0; i < chunks.count(); i++) {
      List<long[]> own = new ArrayList<>();
      for (long[][] some : hashes) {
        own.add(some[i]);
      }
      all.add(
          new Noting.Hashed(
              new Matcher.Hashes(own.subList(0, keys).toArray(long[][]::new)),
              own.subList(keys, own.size()).stream()
                  .map(one -> new Matcher.Hashes(new long[][] {one}))
                  .toList()));
    }
    return all;
  }

  /** By chunk and row of a destination, what links look its records up by; 0 where it is blank. */
  long[][] made(
      Target target,
      List<KeptColumns.Open> columns,
      ChunkSource chunks,
      LinkKey key,
      RowIndex index,
      @Nullable Alike alike) {
    Wanted wanted =
        wanted(target, key, key.fields(), columns, alike, rows -> r -> index.hash(rows.byField, r));
    return hashes(target, List.of(wanted), chunks, alike).get(0);
  }

  /**
   * By chunk and row of a destination, what the link of a fill awaits; 0 where it awaits nothing.
   */
  long[][] awaited(
      Target target,
      List<KeptColumns.Open> columns,
      ChunkSource chunks,
      int fill,
      RowIndex index,
      @Nullable Alike alike) {
    CompiledFill awaits = target.fills.get(fill);
    Wanted wanted =
        wanted(
            target,
            new Awaits(awaits.awaited()),
            List.of(awaits.field().name()),
            columns,
            alike,
            rows -> r -> rows.value(fill, r) instanceof Awaited a ? index.hash(a.parts()) : 0);
    return hashes(target, List.of(wanted), chunks, alike).get(0);
  }

  /** Those that are wanted, by chunk and row, from before or anew. */
  private List<long[][]> hashes(
      Target target, List<Wanted> wanted, ChunkSource chunks, @Nullable Alike alike) {
    List<long[][]> hashes = wanted.stream().map(w -> known(w.of, chunks.count())).toList();
    List<long[][]> before = wanted.stream().map(w -> known(w.before, chunks.count())).toList();
    SideBySide.go(
        chunks.count(),
        1,
        (from, to) -> {
          for (int i = from; i < to; i++) {
            TargetRows rows = chunks.next(i).targets().get(target.index);
            for (int w = 0; w < hashes.size(); w++) {
              if (hashes.get(w)[i] == null) {
                IntToLongFunction hash = wanted.get(w).hash.apply(rows);
                long[] same = before.get(w)[i];
                hashes.get(w)[i] =
                    same == null ? each(rows, hash) : some(rows, hash, same, alike.touched.get(i));
              }
            }
          }
        });
    for (int w = 0; w < hashes.size(); w++) {
      long weight = 0;
      for (long[] some : hashes.get(w)) {
        weight += (long) some.length * Long.BYTES;
      }
      kept.keep(wanted.get(w).of, hashes.get(w), weight);
    }
    return hashes;
  }

  private static long[] each(TargetRows rows, IntToLongFunction hash) {
    long[] each = new long[rows.count()];
    Arrays.setAll(each, hash);
    return each;
  }

  /** The same where only some rows of the source differ. */
  private static long[] some(
      TargetRows rows, IntToLongFunction hash, long[] before, BitSet touched) {
    if (touched.isEmpty()) {
      return before;
    }
    long[] some = before.clone();
    for (int row = touched.nextSetBit(0); row >= 0; row = touched.nextSetBit(row + 1)) {
      for (int r = rows.from(row); r < rows.to(row); r++) {
        some[r] = hash.applyAsLong(r);
      }
    }
    return some;
  }

  private static List<Wanted> wanted(
      Target target, Matcher matcher, List<KeptColumns.Open> columns, @Nullable Alike alike) {
    List<Wanted> wanted = new ArrayList<>();
    for (int k = 0; k < matcher.size(); k++) {
      int number = k;
      MatchKey key = matcher.keys().get(k);
      wanted.add(
          wanted(
              target,
              key,
              key.fields(),
              columns,
              alike,
              rows -> matcher.hash(number, rows.byField)));
    }
    return wanted;
  }

  private static Wanted wanted(
      Target target,
      Object key,
      List<String> fields,
      List<KeptColumns.Open> columns,
      @Nullable Alike alike,
      Function<TargetRows, IntToLongFunction> hash) {
    HashesOf before =
        alike == null ? null : new HashesOf(key, alike.columns.get(target.index).of(fields));
    return new Wanted(new HashesOf(key, columns.get(target.index).of(fields)), before, hash);
  }

  /** By chunk; null where it is not known. */
  private long[][] known(@Nullable HashesOf of, int chunks) {
    Object held = of == null ? null : kept.get(of);
    return held == null ? new long[chunks][] : (long[][]) held;
  }

  /**
   * Lets the keys of destinations be known that were gone through before, and keeps the others once
   * that is done.
   *
   * @param columns of the destinations
   * @param isTogether true if a row goes to none of them that one rejects
   * @param go notes all rows by the other keys, and has what they ask answered
   */
  void known(
      List<Target> targets, List<KeptColumns.Open> columns, boolean isTogether, Runnable go) {
    List<FindsOf[]> before = new ArrayList<>();
    for (Target target : targets) {
      FindsOf[] of = new FindsOf[target.matcher.size()];
      for (int k = 0; k < of.length; k++) {
        of[k] = findsOf(target, columns, isTogether, k);
        if (of[k] != null) {
          know(target, columns.get(target.index), k, of[k]);
        }
      }
      before.add(of);
    }
    go.run();
    for (Target target : targets) {
      FindsOf[] of = before.get(target.index);
      for (int k = 0; k < of.length; k++) {
        boolean isWhole = target.matcher.isKnown(k) || target.matcher.asksForAll(k);
        FindsOf now = isWhole ? findsOf(target, columns, isTogether, k) : null;
        // others may have read the records meanwhile
        if (now != null && (of[k] == null || of[k].equals(now))) {
          keep(target, columns.get(target.index), k, now);
        }
      }
    }
  }

  /** Lets a key be known, as far as anything is kept of it. */
  private void know(Target target, KeptColumns.Open columns, int k, FindsOf of) {
    Matcher.Known held = (Matcher.Known) kept.get(of);
    boolean isAsked = held != null && held.hasRepeats() && !target.matcher.said().isEmpty();
    Object compared = isAsked ? kept.get(sayingsOf(target, columns, of)) : null;
    if (compared != null) {
      target.matcher.know(k, (Matcher.Known) compared, true);
    } else if (held != null) {
      target.matcher.know(k, isAsked ? held.uncompared() : held, false);
    }
  }

  private void keep(Target target, KeptColumns.Open columns, int k, FindsOf of) {
    Matcher.Known known = target.matcher.known(k);
    if (known.hasRepeats() && !target.matcher.said().isEmpty()) {
      kept.keep(sayingsOf(target, columns, of), known, known.weightOfRepeats());
      if (kept.get(of) == null) {
        kept.keep(of, known.uncompared(), known.weight());
      }
    } else {
      kept.keep(of, known, known.weight());
    }
  }

  private static SayingsOf sayingsOf(Target target, KeptColumns.Open columns, FindsOf of) {
    List<String> said = target.matcher.said();
    return new SayingsOf(of, said, columns.of(said));
  }

  /**
   * Null if nothing is known of the records, or they are only near, or the keys hold the parent's.
   */
  private @Nullable FindsOf findsOf(
      Target target, List<KeptColumns.Open> all, boolean isTogether, int k) {
    if (target.keysNeedParent()) {
      return null;
    }
    KeptColumns.Open columns = all.get(target.index);
    var ask = target.matcher.all(k);
    Instant since = ask == null ? null : answers.since(ask);
    if (since == null) {
      return null;
    }
    MatchKey key = target.matcher.keys().get(k);
    List<Object> fills = new ArrayList<>();
    for (KeptColumns.Open each : isTogether ? all : List.of(columns)) {
      fills.addAll(each.rejecting());
      // rows of which a condition can't tell whether they go there are rejected too
      fills.add(each.rowsOf());
    }
    return new FindsOf(
        new HashesOf(key, columns.of(key.fields())), fills, target.destination.among(), since);
  }
}
