package org.zestyporter.core.run;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.KeyIndex;
import org.zestyporter.core.application.Lookups;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.ValueColumn;

/**
 * Answers as it was before a run: records that the run made are not there, and those that it found
 * are as they were. So the rows of a run that goes on are decided as they were the first time.
 *
 * <p>Linked records that rows made are there: they are not to be made again.
 */
final class AsBefore implements Lookups {
  private static final int CHUNKS_READ = 12;

  private final Lookups now;
  private final Map<String, Touched> tables = new HashMap<>();
  private final Cache<Piece, LedgerChunk> read =
      Caffeine.newBuilder().maximumSize(CHUNKS_READ).executor(Runnable::run).build();

  AsBefore(Lookups now, KeptLedger ledger) {
    this.now = now;
    for (LedgerLayout layout : ledger.layouts()) {
      if (!layout.isMade() && !layout.key().isEmpty()) {
        tables.computeIfAbsent(layout.table(), t -> new Touched()).add(ledger, layout);
      }
    }
  }

  /** A chunk of the ledger. */
  private record Piece(KeptLedger ledger, LedgerLayout layout, int number) {
    LedgerChunk read() {
      return ledger.chunk(layout, number);
    }
  }

  /** What the run did in a table. */
  private final class Touched {
    /** By key, the number of the record's entry, doubled; odd if the record stood before. */
    private final KeyIndex entries = new KeyIndex();

    private final List<Piece> pieces = new ArrayList<>();

    /** Number of the first entry of each piece. */
    private final List<Integer> firsts = new ArrayList<>();

    private int count;

    void add(KeptLedger ledger, LedgerLayout layout) {
      for (int number = 0; number < ledger.chunks(layout); number++) {
        Piece piece = new Piece(ledger, layout, number);
        LedgerChunk chunk = piece.read();
        pieces.add(piece);
        firsts.add(count);
        for (int e = 0; e < chunk.size(); e++) {
          boolean stood = chunk.stood().get(e);
          if (chunk.keys()[e] != null && (stood || chunk.outcome(e) == Outcome.NEW)) {
            int before = entries.put(chunk.keys()[e], 2 * (count + e) + (stood ? 1 : 0));
            if (before >= 0) {
              // how it was at first
              entries.put(chunk.keys()[e], before);
            }
          }
        }
        count += chunk.size();
      }
    }

    boolean knows(List<Object> key) {
      return entries.get(key) >= 0;
    }

    /** Enters how the record of a key was, if it was there. */
    void put(List<Object> key, ColumnMaker[] makers) {
      int place = entries.get(key);
      if (place % 2 == 0) {
        return;
      }
      int entry = place / 2;
      int found = java.util.Collections.binarySearch(firsts, entry);
      int piece = found < 0 ? -found - 2 : found;
      LedgerChunk chunk = read.get(pieces.get(piece), Piece::read);
      for (int f = 0; f < makers.length; f++) {
        makers[f].put(chunk.before()[f].value(entry - firsts.get(piece)));
      }
    }

    /** Hands over all records that the run found, as they were. */
    void all(int[] fields, Consumer<ValueColumn[]> found) {
      for (int p = 0; p < pieces.size(); p++) {
        LedgerChunk chunk = pieces.get(p).read();
        BitSet own = new BitSet();
        for (int e = chunk.stood().nextSetBit(0); e >= 0; e = chunk.stood().nextSetBit(e + 1)) {
          List<Object> key = chunk.keys()[e];
          own.set(e, key != null && entries.get(key) == 2 * (firsts.get(p) + e) + 1);
        }
        if (!own.isEmpty()) {
          int[] rows = own.stream().toArray();
          found.accept(
              Arrays.stream(fields)
                  .mapToObj(f -> chunk.before()[f].pick(rows))
                  .toArray(ValueColumn[]::new));
        }
      }
    }
  }

  @Override
  public void look(Ask ask, Consumer<ValueColumn[]> found) {
    TableInfo table = ask.table();
    Touched touched = tables.get(table.name());
    if (touched == null) {
      now.look(ask, found);
      return;
    }
    List<FieldInfo> key = table.fields(table.primaryKey());
    List<FieldInfo> fields = new ArrayList<>(ask.fields());
    key.stream().filter(f -> !fields.contains(f)).forEach(fields::add);
    int[] parts = key.stream().mapToInt(fields::indexOf).toArray();
    int asked = ask.fields().size();
    now.look(
        new Ask(table, fields, ask.by(), ask.wanted()),
        columns -> {
          int[] others = others(columns, key, parts, touched);
          boolean all = others.length == columns[0].rows();
          if (others.length > 0) {
            found.accept(
                Arrays.stream(columns, 0, asked)
                    .map(c -> all ? c : c.pick(others))
                    .toArray(ValueColumn[]::new));
          }
        });
    touched.all(ask.fields().stream().mapToInt(table.fields()::indexOf).toArray(), found);
  }

  /** Places of the records that the run has nothing to do with. */
  private static int[] others(
      ValueColumn[] columns, List<FieldInfo> key, int[] parts, Touched touched) {
    BitSet others = new BitSet();
    for (int at = 0; at < columns[0].rows(); at++) {
      List<Object> held = new ArrayList<>(parts.length);
      for (int i = 0; i < parts.length; i++) {
        held.add(key.get(i).storage().canonical(columns[parts[i]].value(at)));
      }
      others.set(at, !touched.knows(held));
    }
    return others.stream().toArray();
  }

  @Override
  public Records fetch(TableInfo table, Collection<List<Object>> keys) {
    Touched touched = tables.get(table.name());
    List<List<Object>> own =
        touched == null ? List.of() : keys.stream().filter(touched::knows).distinct().toList();
    if (own.isEmpty()) {
      return now.fetch(table, keys);
    }
    ColumnMaker[] makers = new ColumnMaker[table.fields().size()];
    Arrays.setAll(makers, f -> new ColumnMaker());
    List<List<Object>> others = keys.stream().filter(k -> !touched.knows(k)).distinct().toList();
    Records found = others.isEmpty() ? Records.none() : now.fetch(table, others);
    for (List<Object> key : others) {
      int at = found.at(key);
      for (int f = 0; at >= 0 && f < makers.length; f++) {
        makers[f].put(found.columns()[f], at);
      }
    }
    own.forEach(key -> touched.put(key, makers));
    return Records.of(table, makers);
  }

  @Override
  public long count(TableInfo table) {
    return now.count(table);
  }
}
