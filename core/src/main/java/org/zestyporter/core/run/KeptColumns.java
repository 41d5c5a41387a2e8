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
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.FillColumns;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.fill.FilledColumn;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.value.SideBySide;

/**
 * What fills gave for the rows of a source, kept while somebody edits a plan: of each fill the rows
 * that it rejects, a byte a row, and the values of the fields that are looked at. Only what was
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

  private final KeptSelections selections;

  /**
   * What a fill depends on, beside the source.
   *
   * @param books the phrasebooks that it translates by
   * @param rows that it is computed for
   * @param made what rows make that its link may await; empty if they make nothing of the kind
   */
  private record Key(
      String table,
      Fill fill,
      List<Phrasebook> books,
      KeptSelections.RowsOf rows,
      List<Object> made) {}

  private static final class Kept {
    private final CompiledFill fill;

    /** Stands for it where it must not be held itself. */
    private final Object sign = new Object();

    private final Instant since;
    private final byte @Nullable [][] rejected;
    private SoftReference<FilledColumn[]> values = new SoftReference<>(null);
    private boolean isComputed;

    /** How its values spread; null if nobody asked. */
    private @Nullable Spread spread;

    Kept(CompiledFill fill, Instant since, int chunks) {
      this.fill = fill;
      this.since = since;
      this.rejected = new byte[chunks][];
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
    this.selections = new KeptSelections(source);
    this.source = source;
    this.clock = clock;
    this.recent = recent;
    this.room = room;
  }

  /** The fills of a destination, of a plan of the same source. */
  final class Open {
    private final List<Kept> all;
    private final KeptSelection selection;

    private Open(List<Kept> all, KeptSelection selection) {
      this.all = all;
      this.selection = selection;
    }

    /** What decides which rows go there. */
    KeptSelections.RowsOf rowsOf() {
      return selection.of();
    }

    /** The rows of a chunk that go there, without their cells. */
    Selection.Selected rows(int number) {
      return selection.rows(number);
    }

    /** Number of rows that a chunk has in the source. */
    int rowsOfSource(int number) {
      return selection.rowsOfSource(number);
    }

    /** How many rows go there, or parts of rows. */
    long count() {
      long count = 0;
      for (int i = 0; i < source.batches(); i++) {
        count += selection.rows(i).batch().rows();
      }
      return count;
    }

    /** In the order of the table's fields. */
    List<CompiledFill> fills() {
      return all.stream().map(k -> k.fill).toList();
    }

    /** What stands for the fills of some fields, and for no others. */
    List<Object> of(List<String> fields) {
      return of(one -> fields.stream().anyMatch(one.fill.field().name()::equalsIgnoreCase));
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
      return KeptColumns.this.chunks(this, fields);
    }

    /** A chunk with all that the fills give for some of its rows. */
    FilledChunk whole(int number, BitSet rows) {
      return FilledChunk.of(
          selection.batch(number, columns(all), rows), fills(), FilledChunk.ready(fills()));
    }
  }

  /** The fills of all destinations of a plan. */
  List<Open> openAll(OpenedPlan opened) {
    return opened.plan().destinations().stream().map(d -> open(opened, d)).toList();
  }

  /** The fills of some destinations. */
  static List<List<CompiledFill>> fills(List<Open> all) {
    return all.stream().map(Open::fills).toList();
  }

  synchronized Open open(OpenedPlan opened, Destination destination) {
    KeptSelection selection = selections.of(opened, destination);
    return new Open(compiled(opened, destination, selection.of()), selection);
  }

  /** What rows make that a link may await; empty if they make nothing of the kind. */
  private static List<Object> made(OpenedPlan opened, TableInfo table, Fill fill) {
    FieldInfo field = table.find(fill.field());
    List<Object> made = new ArrayList<>();
    for (Destination each : opened.plan().destinations()) {
      String own = opened.table(each).name();
      if (field != null && field.link() != null && field.link().table().equals(own)) {
        made.add(own);
        made.add(each.policies().onNone());
        each.fills().forEach(f -> made.add(f.field()));
      }
    }
    return made;
  }

  private synchronized List<FilledChunk> chunks(Open open, Collection<String> fields) {
    List<Kept> all = open.all;
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
    compute(open.selection, lacking, values);
    List<FilledChunk> chunks = new ArrayList<>();
    List<CompiledFill> fills = all.stream().map(k -> k.fill).toList();
    for (int i = 0; i < source.batches(); i++) {
      chunks.add(chunk(open.selection.rows(i).batch().lines(), i, all, fills, values));
    }
    drop(all);
    return chunks;
  }

  private static boolean isWanted(Kept kept, Set<String> wanted) {
    return wanted.contains(kept.fill.field().name());
  }

  /** The fills of a destination, in the order of its table's fields. */
  private List<Kept> compiled(
      OpenedPlan opened, Destination destination, KeptSelections.RowsOf rowsOf) {
    TableInfo table = opened.table(destination);
    Instant now = clock.instant();
    List<Fill> unknown = new ArrayList<>();
    Map<Fill, Key> keys = new LinkedHashMap<>();
    for (Fill fill : destination.fills()) {
      Key key =
          new Key(destination.table(), fill, opened.books(fill), rowsOf, made(opened, table, fill));
      keys.put(fill, key);
      Kept known = kept.get(key);
      boolean isOld =
          known != null && known.fill.dependsOnRecords() && known.since.plus(recent).isBefore(now);
      if (known == null || isOld) {
        unknown.add(fill);
      }
    }
    MadeRecords made = new MadeRecords(opened);
    for (CompiledFill fill : opened.fills(destination.withFills(unknown), made::isMade)) {
      kept.put(keys.get(fill.fill()), new Kept(fill, now, source.batches()));
    }
    List<Kept> all = new ArrayList<>();
    table.fields().stream()
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
  private void compute(
      KeptSelection selection, List<Kept> lacking, Map<Kept, FilledColumn[]> values) {
    if (lacking.isEmpty()) {
      return;
    }
    try {
      computeAll(selection, lacking, values);
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

  private void computeAll(
      KeptSelection selection, List<Kept> lacking, Map<Kept, FilledColumn[]> values) {
    Set<Integer> columns = columns(lacking);
    SideBySide.go(
        source.batches(),
        1,
        (from, to) -> {
          List<FillColumns> ready = FilledChunk.ready(lacking.stream().map(k -> k.fill).toList());
          for (int i = from; i < to; i++) {
            Batch batch = selection.batch(i, columns);
            for (int k = 0; k < ready.size(); k++) {
              note(lacking.get(k), values, i, ready.get(k).of(batch), batch.rows());
            }
          }
        });
  }

  /** Indexes of the columns that fills read. */
  private static Set<Integer> columns(List<Kept> some) {
    Set<Integer> columns = new TreeSet<>();
    some.forEach(k -> columns.addAll(k.fill.columns()));
    return columns;
  }

  private static void note(
      Kept kept, Map<Kept, FilledColumn[]> values, int number, FilledColumn column, int rows) {
    byte[] rejected = new byte[rows];
    if (column.reject(rejected)) {
      kept.rejected[number] = rejected;
    }
    if (values.containsKey(kept)) {
      values.get(kept)[number] = column;
    }
  }

  private static FilledChunk chunk(
      long[] lines,
      int number,
      List<Kept> all,
      List<CompiledFill> fills,
      Map<Kept, FilledColumn[]> values) {
    byte[] rejected = new byte[lines.length];
    FilledColumn[] columns = new FilledColumn[all.size()];
    for (int f = 0; f < columns.length; f++) {
      Kept one = all.get(f);
      columns[f] = values.containsKey(one) ? values.get(one)[number] : null;
      byte[] own = one.rejected[number];
      for (int r = 0; own != null && r < own.length; r++) {
        rejected[r] = FilledChunk.worse(rejected[r], own[r]);
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
