package org.zestyporter.server.plan;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.springframework.stereotype.Component;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.preview.StageTable;
import org.zestyporter.core.source.Correction;
import org.zestyporter.core.source.SourceTable;

/**
 * Remembers compiled fills and their counts for a while, so that an edit of one fill computes that
 * one anew and no other, and looks up no link twice.
 */
@Component
class FillCache {
  private static final int FILLS = 120;
  private static final int CORRECTED = 16;
  private static final long FOR = Duration.ofSeconds(30).toNanos();

  /**
   * What a compiled fill depends on.
   *
   * @param rows the very same rows
   * @param table connection and name of the table
   * @param words revision of the phrasebooks, shared and own
   */
  record Key(SourceTable rows, Fill fill, List<String> table, List<Object> words, String who) {}

  private record Corrected(SourceTable rows, List<Correction> corrections) {}

  /** A compiled fill, and its counts once they are asked for. */
  static final class Entry {
    private final CompiledFill fill;
    private final SourceTable rows;
    private final long made = System.nanoTime();
    private StageTable counts;

    Entry(CompiledFill fill, SourceTable rows) {
      this.fill = fill;
      this.rows = rows;
    }

    CompiledFill fill() {
      return fill;
    }

    synchronized StageTable counts() {
      if (counts == null) {
        counts = StageTable.counts(fill, rows);
      }
      return counts;
    }
  }

  private final Map<Key, Entry> fills = bounded(FILLS);
  private final Map<Corrected, SourceTable> corrected = bounded(CORRECTED);

  private static <K, V> Map<K, V> bounded(int most) {
    return new LinkedHashMap<>(16, 0.75f, true) {
      private static final long serialVersionUID = 1L;

      @Override
      protected boolean removeEldestEntry(Map.Entry<K, V> eldest) {
        return size() > most;
      }
    };
  }

  /** The compiled fill of a key, compiled if it is not at hand or too old. */
  Entry get(Key key, Function<Key, CompiledFill> compile) {
    synchronized (fills) {
      Entry known = fills.get(key);
      if (known != null && System.nanoTime() - known.made < FOR) {
        return known;
      }
    }
    Entry entry = new Entry(compile.apply(key), key.rows());
    synchronized (fills) {
      fills.put(key, entry);
    }
    return entry;
  }

  /** The rows with their corrections, the same each time. */
  SourceTable corrected(SourceTable rows, List<Correction> corrections) {
    if (corrections.isEmpty()) {
      return rows;
    }
    synchronized (corrected) {
      return corrected.computeIfAbsent(
          new Corrected(rows, corrections), c -> rows.corrected(corrections));
    }
  }

  /** Forgets everything: the application's records have changed. */
  void forget() {
    synchronized (fills) {
      fills.clear();
    }
  }
}
