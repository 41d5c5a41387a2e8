package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.KeyIndex;
import org.zestyporter.core.application.Lookups;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.ValueColumn;

/**
 * Keeps the records of some tables once they are all gone through, as far as there is room for
 * them, so that none of them has to be asked for again: a database finds a record by its key in the
 * time in which it sends several one after the other. To be used only while nothing is written.
 */
final class SeenRecords implements Lookups {
  /** The part of the memory that the records of a table may take. */
  private static final int SHARE = 6;

  private static final long MOST = 128L << 20;

  /** About how many bytes the key of a record takes in an index. */
  private static final int KEY_WEIGHT = 24;

  private final Lookups through;
  private final Application application;
  private final Set<TableInfo> tables;
  private final Map<TableInfo, Seen> seen = new HashMap<>();
  private long room = Math.min(MOST, Runtime.getRuntime().maxMemory() / SHARE);

  SeenRecords(Lookups through, Application application, Collection<TableInfo> tables) {
    this.through = through;
    this.application = application;
    this.tables = Set.copyOf(tables);
  }

  /** All records of a table, some in each piece, and where each of them is. */
  private static final class Seen {
    private final TableInfo table;
    private final List<ValueColumn[]> pieces = new ArrayList<>();
    private final List<Integer> firsts = new ArrayList<>();
    private final KeyIndex places = new KeyIndex();
    private int count;
    private long weight;

    Seen(TableInfo table) {
      this.table = table;
    }

    void add(ValueColumn[] records) {
      pieces.add(records);
      firsts.add(count);
      weight += Arrays.stream(records).mapToLong(ValueColumn::weight).sum();
      places.putAll(table, records, count);
      count += records[0].rows();
      weight += (long) KEY_WEIGHT * records[0].rows();
    }

    Records of(Collection<List<Object>> wanted) {
      ColumnMaker[] made = new ColumnMaker[table.fields().size()];
      Arrays.setAll(made, f -> new ColumnMaker());
      BitSet taken = new BitSet(count);
      for (List<Object> key : wanted) {
        int place = places.get(key);
        if (place >= 0 && !taken.get(place)) {
          taken.set(place);
          int piece = Collections.binarySearch(firsts, place);
          piece = piece < 0 ? -piece - 2 : piece;
          ValueColumn[] records = pieces.get(piece);
          for (int f = 0; f < made.length; f++) {
            made[f].put(records[f], place - firsts.get(piece));
          }
        }
      }
      return Records.of(table, made);
    }
  }

  @Override
  public void look(Ask ask, Consumer<ValueColumn[]> found) {
    TableInfo table = ask.table();
    int[] asked = ask.fields().stream().mapToInt(table.fields()::indexOf).toArray();
    Consumer<ValueColumn[]> some =
        all -> found.accept(Arrays.stream(asked).mapToObj(f -> all[f]).toArray(ValueColumn[]::new));
    Seen known = seen.get(table);
    if (ask.wanted() != null || known == null && !isWorthSeeing(table)) {
      through.look(ask, found);
    } else if (known != null) {
      known.pieces.forEach(some);
    } else {
      see(table, some);
    }
  }

  private boolean isWorthSeeing(TableInfo table) {
    return tables.contains(table)
        && !table.primaryKey().isEmpty()
        && application.count(table) * (KEY_WEIGHT + 8L * table.fields().size()) < room;
  }

  private void see(TableInfo table, Consumer<ValueColumn[]> some) {
    Seen[] all = {new Seen(table)};
    through.look(
        Ask.all(table, table.fields()),
        records -> {
          if (all[0] != null) {
            all[0].add(records);
            all[0] = all[0].weight > room ? null : all[0];
          }
          some.accept(records);
        });
    if (all[0] != null) {
      room -= all[0].weight;
      seen.put(table, all[0]);
    }
  }

  @Override
  public Records fetch(TableInfo table, Collection<List<Object>> keys) {
    Seen known = seen.get(table);
    return known == null ? through.fetch(table, keys) : known.of(keys);
  }
}
