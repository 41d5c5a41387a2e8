package org.zestyporter.core.run;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.KeyIndex;
import org.zestyporter.core.application.Lookups;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.ValueColumn;

/**
 * Keeps the records of some tables once they are all gone through, as far as there is room for
 * them, so that none of them has to be asked for again: a database finds a record by its key in the
 * time in which it sends several one after the other. What is kept may have changed since, so a
 * record that is to be written is to be {@link #fetchNow fetched} again.
 */
final class SeenRecords implements Lookups, AutoCloseable {
  /** The part of the memory that all of them may take together. */
  private static final int SHARE = 5;

  /** What is left of it. */
  static final AtomicLong LEFT = new AtomicLong(Runtime.getRuntime().maxMemory() / SHARE);

  /** About how many bytes the key of a record takes in an index. */
  private static final int KEY_WEIGHT = 24;

  private static final int VALUE_WEIGHT = 8;

  private static final int LONG_TEXT = 80;

  /** A table of so many records is kept for a single row. */
  private static final int FEW = 5_000;

  /**
   * A table may have so many records for each row: to keep them costs a sixth of asking for them.
   */
  private static final int FOR_EACH_ROW = 4;

  private final Lookups through;
  private final Predicate<TableInfo> kept;
  private final long most;
  private final Map<TableInfo, Seen> seen = new HashMap<>();
  private final Set<TableInfo> tooLarge = new HashSet<>();
  private final long room;
  private final AtomicLong left;
  private final ExecutorService thread =
      Executors.newSingleThreadExecutor(work -> Threads.daemon(work, "porter-see"));

  /** What is being read on a thread of its own; nobody asks anything meanwhile. */
  private final Deque<Future<?>> expected = new ArrayDeque<>();

  private volatile boolean isClosed;
  private long taken;

  /**
   * @param kept tells of which tables records are kept
   * @param rows how many rows may speak of records
   * @param room bytes that they may take here
   * @param left bytes that are left for all that are open at a time
   */
  SeenRecords(Lookups through, Predicate<TableInfo> kept, long rows, long room, AtomicLong left) {
    this.through = through;
    this.kept = kept;
    this.most = FEW + rows * FOR_EACH_ROW;
    this.room = room;
    this.left = left;
  }

  private long left() {
    return Math.min(left.get(), room - taken);
  }

  private void take(long bytes) {
    taken += bytes;
    left.addAndGet(-bytes);
  }

  /** Goes through the records of a table that has a key, on a thread of its own, for later. */
  @Override
  public void expect(TableInfo table) {
    expected.add(thread.submit(() -> seen(table)));
  }

  private void await() {
    while (!expected.isEmpty()) {
      Threads.await(expected.poll());
    }
  }

  /** Ends what is being read, and gives back the room that it has taken. */
  @Override
  public void close() {
    isClosed = true;
    expected.forEach(reading -> reading.cancel(false));
    Threads.end(thread);
    seen.clear();
    take(-taken);
  }

  /** All records of a table, and where each of them is. */
  private static final class Seen {
    private final TableInfo table;
    private final KeyIndex places = new KeyIndex();

    /** Some in each, as they were read, until the first of them is fetched. */
    private final List<ValueColumn[]> pieces = new ArrayList<>();

    private int count;
    private long weight;

    Seen(TableInfo table) {
      this.table = table;
    }

    /** Adds some; returns the bytes that they take. */
    long add(ValueColumn[] records) {
      pieces.add(records);
      places.putAll(table, records, count);
      count += records[0].rows();
      long more = (long) KEY_WEIGHT * records[0].rows();
      more += Arrays.stream(records).mapToLong(ValueColumn::weight).sum();
      weight += more;
      return more;
    }

    /** All of them. */
    Records all() {
      if (pieces.size() > 1) {
        ValueColumn[] joined = new ValueColumn[table.fields().size()];
        for (int f = 0; f < joined.length; f++) {
          List<ValueColumn> parts = new ArrayList<>(pieces.size());
          for (ValueColumn[] piece : pieces) {
            parts.add(piece[f]);
            piece[f] = null;
          }
          joined[f] = ValueColumn.joined(parts);
        }
        pieces.clear();
        pieces.add(joined);
      }
      return pieces.isEmpty() ? Records.none() : Records.of(pieces.get(0), count, places);
    }
  }

  @Override
  public void look(Ask ask, Consumer<ValueColumn[]> found) {
    await();
    boolean ofAll = ask.wanted() == null && ask.table().fields().containsAll(ask.fields());
    Seen known = ofAll ? seen(ask.table()) : null;
    if (known == null) {
      through.look(ask, found);
      return;
    }
    int[] asked = ask.fields().stream().mapToInt(ask.table().fields()::indexOf).toArray();
    for (ValueColumn[] all : known.pieces) {
      found.accept(Arrays.stream(asked).mapToObj(f -> all[f]).toArray(ValueColumn[]::new));
    }
  }

  /** All records of a table; null if there is no room for them. */
  private @Nullable Seen seen(TableInfo table) {
    Seen known = seen.get(table);
    if (known == null && isWorthSeeing(table)) {
      known = see(table);
      if (known != null) {
        seen.put(table, known);
      }
    }
    return known;
  }

  private boolean isWorthSeeing(TableInfo table) {
    return !tooLarge.contains(table)
        && kept.test(table)
        && !table.primaryKey().isEmpty()
        && table.fields().stream().allMatch(SeenRecords::isShort)
        && isFew(table, through.count(table));
  }

  private boolean isFew(TableInfo table, long records) {
    return records <= most && records * weight(table) < left();
  }

  /** False for a field whose values may be as large as files. */
  private static boolean isShort(FieldInfo field) {
    return switch (field.storage().kind()) {
      case BINARY, JSON, LIST, OTHER -> false;
      default -> true;
    };
  }

  /** About how many bytes a record takes: texts are mostly shorter than they may be. */
  private static long weight(TableInfo table) {
    long weight = KEY_WEIGHT;
    for (FieldInfo field : table.fields()) {
      boolean isText = field.type() == FieldType.TEXT;
      int length = field.length() == null ? LONG_TEXT : Math.min(field.length(), LONG_TEXT);
      weight += isText ? VALUE_WEIGHT + length / 4 : VALUE_WEIGHT;
    }
    return weight;
  }

  private @Nullable Seen see(TableInfo table) {
    Seen all = new Seen(table);
    try {
      through.look(
          Ask.all(table, table.fields()),
          records -> {
            take(all.add(records));
            if (isClosed || left() < 0) {
              throw new NoRoomException();
            }
          });
      return all;
    } catch (NoRoomException e) {
      take(-all.weight);
      tooLarge.add(table);
      return null;
    }
  }

  /** Ends the reading of records that take more room than there is. */
  private static final class NoRoomException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    NoRoomException() {
      super("more records than there is room for", null, false, false);
    }
  }

  @Override
  public Records fetch(TableInfo table, Collection<List<Object>> keys) {
    await();
    Seen known = seen.get(table);
    return known == null ? through.fetch(table, keys) : known.all();
  }

  @Override
  public boolean hasSeen(TableInfo table) {
    await();
    return seen.containsKey(table);
  }

  @Override
  public Records fetchNow(TableInfo table, Collection<List<Object>> keys) {
    await();
    return through.fetchNow(table, keys);
  }

  @Override
  public long count(TableInfo table) {
    await();
    return through.count(table);
  }
}
