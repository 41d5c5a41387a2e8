package org.zestyporter.core.run;

import java.lang.ref.SoftReference;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.FillColumns;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.fill.FilledColumn;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.ColumnChunk;
import org.zestyporter.core.value.SideBySide;

/**
 * What fills gave for the rows of a source, kept while somebody edits a plan: of each fill the rows
 * that it rejects, a bit a row, and the values of the fields that are looked at. Only what was
 * edited is computed anew, on all processors.
 */
final class KeptColumns {
  private static final int MOST_FILLS = 500;

  private final SourceTable source;
  private final Clock clock;
  private final Duration recent;
  private final long room;

  /** By what they depend on, the ones that were asked for last at the end. */
  private final Map<Key, Kept> kept = new LinkedHashMap<>(16, 0.75f, true);

  /**
   * What a fill depends on, beside the source.
   *
   * @param books the phrasebooks that it translates by
   */
  private record Key(String table, Fill fill, List<Phrasebook> books) {}

  private static final class Kept {
    private final CompiledFill fill;

    /** Stands for it where it must not be held itself. */
    private final Object sign = new Object();

    private final Instant since;
    private final boolean @Nullable [][] rejected;
    private SoftReference<FilledColumn[]> values = new SoftReference<>(null);
    private boolean isComputed;

    /** How its values spread; null if nobody asked. */
    private @Nullable Spread spread;

    Kept(CompiledFill fill, Instant since, int chunks) {
      this.fill = fill;
      this.since = since;
      this.rejected = new boolean[chunks][];
    }

    long weight() {
      FilledColumn[] known = values.get();
      return known == null
          ? 0
          : Arrays.stream(known).mapToLong(column -> column.values().weight()).sum();
    }
  }

  /**
   * @param recent for how long a fill that depends on records is not computed anew
   * @param room bytes that the values may take
   */
  KeptColumns(SourceTable source, Clock clock, Duration recent, long room) {
    this.source = source;
    this.clock = clock;
    this.recent = recent;
    this.room = room;
  }

  /** The fills of a destination that takes all rows, of a plan of the same source. */
  final class Open {
    private final List<Kept> all;

    private Open(List<Kept> all) {
      this.all = all;
    }

    /** In the order of the table's fields. */
    List<CompiledFill> fills() {
      return all.stream().map(k -> k.fill).toList();
    }

    /** What stands for the fills of some fields, and for no others. */
    List<Object> of(List<String> fields) {
      return of(one -> fields.stream().anyMatch(one.fill.field().name()::equalsIgnoreCase));
    }

    /** What stands for all fills. */
    List<Object> ofAll() {
      return of(one -> true);
    }

    /** What stands for the fills that may reject a row, once all were computed. */
    List<Object> rejecting() {
      return of(one -> Arrays.stream(one.rejected).anyMatch(Objects::nonNull));
    }

    private List<Object> of(Predicate<Kept> some) {
      return all.stream().filter(some).map(one -> one.sign).toList();
    }

    /** Lets what is known of how values spread be known, and keeps what is counted now. */
    void spreads(FarOff farOff, Runnable count) {
      for (int f : farOff.fills()) {
        if (all.get(f).spread != null) {
          farOff.know(f, all.get(f).spread);
        }
      }
      count.run();
      farOff.fills().forEach(f -> all.get(f).spread = farOff.spread(f));
    }

    /** The fields that are filled otherwise than by another plan, which fills the same fields. */
    List<String> changed(Open other) {
      List<String> changed = new ArrayList<>();
      for (int f = 0; f < all.size(); f++) {
        if (all.get(f) != other.all.get(f)) {
          changed.add(all.get(f).fill.field().name());
        }
      }
      return changed;
    }

    /**
     * All rows by chunk.
     *
     * @param fields the fields whose values are wanted; of the others it is only known which rows
     *     they reject
     */
    List<FilledChunk> chunks(Collection<String> fields) {
      return KeptColumns.this.chunks(all, fields);
    }

    /** A chunk with all that the fills give for some of its rows. */
    FilledChunk whole(int number, BitSet rows) {
      Batch batch = source.batch(number);
      ColumnChunk[] columns =
          Arrays.stream(batch.columns()).map(c -> c.only(rows)).toArray(ColumnChunk[]::new);
      Batch some = new Batch(batch.firstRow(), batch.lines(), columns);
      return FilledChunk.of(some, fills(), FilledChunk.ready(fills()));
    }
  }

  synchronized Open open(OpenedPlan opened, Destination destination) {
    return new Open(compiled(opened, destination));
  }

  private synchronized List<FilledChunk> chunks(List<Kept> all, Collection<String> fields) {
    Set<String> wanted = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    wanted.addAll(fields);
    Map<Kept, FilledColumn[]> values = new HashMap<>();
    List<Kept> lacking = new ArrayList<>();
    for (Kept one : all) {
      boolean isWanted = isWanted(one, wanted);
      FilledColumn[] known = isWanted ? one.values.get() : null;
      if (isWanted) {
        values.put(one, known == null ? new FilledColumn[source.batches()] : known);
      }
      if (!one.isComputed || isWanted && known == null) {
        lacking.add(one);
      }
    }
    compute(lacking, values);
    List<FilledChunk> chunks = new ArrayList<>();
    List<CompiledFill> fills = all.stream().map(k -> k.fill).toList();
    for (int i = 0; i < source.batches(); i++) {
      chunks.add(chunk(i, all, fills, values));
    }
    drop(all);
    return chunks;
  }

  private static boolean isWanted(Kept kept, Set<String> wanted) {
    return wanted.contains(kept.fill.field().name());
  }

  /** The fills of a destination, in the order of its table's fields. */
  private List<Kept> compiled(OpenedPlan opened, Destination destination) {
    Instant now = clock.instant();
    List<Fill> unknown = new ArrayList<>();
    Map<Fill, Key> keys = new LinkedHashMap<>();
    for (Fill fill : destination.fills()) {
      Key key = new Key(destination.table(), fill, opened.books(fill));
      keys.put(fill, key);
      Kept known = kept.get(key);
      boolean isOld =
          known != null && known.fill.dependsOnRecords() && known.since.plus(recent).isBefore(now);
      if (known == null || isOld) {
        unknown.add(fill);
      }
    }
    for (CompiledFill fill : opened.fills(destination.withFills(unknown))) {
      kept.put(keys.get(fill.fill()), new Kept(fill, now, source.batches()));
    }
    List<Kept> all = new ArrayList<>();
    opened.table(destination).fields().stream()
        .flatMap(
            field ->
                destination.fills().stream()
                    .filter(f -> f.field().equalsIgnoreCase(field.name()) && f.isGiven()))
        .forEach(f -> all.add(kept.get(keys.get(f))));
    return all;
  }

  /**
   * @param values takes the values of those that are among its keys
   */
  private void compute(List<Kept> lacking, Map<Kept, FilledColumn[]> values) {
    if (lacking.isEmpty()) {
      return;
    }
    try {
      computeAll(lacking, values);
    } catch (RuntimeException e) {
      // what is half computed is not kept
      kept.values().removeAll(lacking);
      throw e;
    }
    for (Kept one : lacking) {
      one.isComputed = true;
      if (values.containsKey(one)) {
        one.values = new SoftReference<>(values.get(one));
      }
    }
  }

  private void computeAll(List<Kept> lacking, Map<Kept, FilledColumn[]> values) {
    Set<Integer> columns = new TreeSet<>();
    lacking.forEach(k -> columns.addAll(k.fill.columns()));
    SideBySide.go(
        source.batches(),
        1,
        (from, to) -> {
          List<FillColumns> ready = FilledChunk.ready(lacking.stream().map(k -> k.fill).toList());
          for (int i = from; i < to; i++) {
            Batch batch = source.batch(i, columns);
            for (int k = 0; k < ready.size(); k++) {
              note(lacking.get(k), values, i, ready.get(k).of(batch), batch.rows());
            }
          }
        });
  }

  private static void note(
      Kept kept, Map<Kept, FilledColumn[]> values, int number, FilledColumn column, int rows) {
    if (column.odd() != null) {
      kept.rejected[number] = new boolean[rows];
      column.reject(kept.rejected[number]);
    }
    if (values.containsKey(kept)) {
      values.get(kept)[number] = column;
    }
  }

  private FilledChunk chunk(
      int number, List<Kept> all, List<CompiledFill> fills, Map<Kept, FilledColumn[]> values) {
    long[] lines = source.batch(number, List.of()).lines();
    boolean[] rejected = new boolean[lines.length];
    FilledColumn[] columns = new FilledColumn[all.size()];
    for (int f = 0; f < columns.length; f++) {
      Kept one = all.get(f);
      columns[f] = values.containsKey(one) ? values.get(one)[number] : null;
      boolean[] own = one.rejected[number];
      for (int r = 0; own != null && r < own.length; r++) {
        rejected[r] |= own[r];
      }
    }
    return FilledChunk.some(fills, lines, columns, rejected);
  }

  /** Lets go of what takes too much room, but for fills that were just asked for. */
  private void drop(List<Kept> current) {
    long weight = 0;
    List<Map.Entry<Key, Kept>> entries = new ArrayList<>(kept.entrySet());
    for (int i = entries.size() - 1; i >= 0; i--) {
      Kept one = entries.get(i).getValue();
      boolean isCurrent = current.contains(one);
      weight += one.weight();
      if (weight > room && !isCurrent || entries.size() - i > MOST_FILLS && !isCurrent) {
        kept.remove(entries.get(i).getKey());
      }
    }
  }
}
