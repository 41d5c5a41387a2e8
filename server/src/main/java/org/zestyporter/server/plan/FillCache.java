package org.zestyporter.server.plan;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.Expiry;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.preview.StageTable;
import org.zestyporter.core.run.Remembered;
import org.zestyporter.core.source.Correction;
import org.zestyporter.core.source.Rows;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.PorterException;

/**
 * Remembers compiled fills and their counts for a while, so that an edit of one fill computes that
 * one anew and no other, and looks up no link twice.
 */
@Component
class FillCache {
  private static final int FILLS = 120;
  private static final int CORRECTED = 16;
  private static final int EDITED = 3;
  private static final Duration EDITED_FOR = Duration.ofMinutes(10);
  private static final Duration FOR = Duration.ofSeconds(30);

  /**
   * What a compiled fill depends on.
   *
   * @param rows the very same rows, and parts of them
   * @param table connection and name of the table
   * @param beside what else it depends on: the phrasebooks that it translates by, and for a link
   *     the destinations that make its records, and where it points
   */
  record Key(Rows rows, Fill fill, List<String> table, List<Object> beside, String who) {}

  private record Editing(SourceTable rows, Application application, String who) {}

  private record Selecting(
      SourceTable rows, @Nullable String where, Destination.@Nullable Split split, String who) {}

  private record Corrected(SourceTable rows, List<Correction> corrections) {}

  /** A compiled fill, and its counts once they are asked for. */
  static final class Entry {
    private final CompiledFill fill;
    private final Rows rows;
    private StageTable counts;

    Entry(CompiledFill fill, Rows rows) {
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

  private final Cache<Key, Entry> fills =
      Caffeine.newBuilder()
          .maximumSize(FILLS)
          .expireAfter(
              Expiry.<Key, Entry>creating(
                  (key, entry) -> entry.fill.dependsOnRecords() ? FOR : EDITED_FOR))
          .build();
  private final Cache<Corrected, SourceTable> corrected =
      Caffeine.newBuilder().maximumSize(CORRECTED).build();

  /** What goes to destinations that take not all rows, or parts of them. */
  private final Cache<Selecting, Rows> selected =
      Caffeine.newBuilder().maximumSize(CORRECTED).expireAfterWrite(EDITED_FOR).build();

  /** Plans in which somebody is editing how rows match. */
  private final Cache<Editing, Remembered> edited =
      Caffeine.newBuilder().maximumSize(EDITED).softValues().expireAfterAccess(EDITED_FOR).build();

  private final Clock clock;

  FillCache(Clock clock) {
    this.clock = clock;
  }

  /** What is kept of rows and records while somebody edits a plan. */
  Remembered remembered(PlanService.Opened opened, String who) {
    return edited.get(
        new Editing(opened.rows(), opened.database(), who),
        e -> new Remembered(e.application(), e.rows(), clock));
  }

  /**
   * What of the rows goes to the destination that is shown, the same each time; all of them where
   * its condition can't be read, which is a matter of the plan.
   */
  Rows rows(PlanService.Opened opened, String who) {
    try {
      return selected(opened, who);
    } catch (PorterException e) {
      return opened.rows();
    }
  }

  private Rows selected(PlanService.Opened opened, String who) {
    Destination into = opened.destination();
    if (into.takesAll()) {
      return opened.rows();
    }
    return selected.get(
        new Selecting(opened.rows(), into.where(), into.split(), who),
        s -> opened.now(who).rows(into));
  }

  /** A fill of the destination that is shown, compiled if it is not at hand or too old. */
  Entry fill(PlanService.Opened opened, Fill fill, String who) {
    TableInfo table = opened.table();
    Key key =
        new Key(
            rows(opened, who),
            fill,
            List.of(String.valueOf(opened.plan().connection()), table.name()),
            List.of(
                opened.now(who).books(fill), makers(opened, table, fill), opened.plan().links()),
            who);
    return get(key, k -> opened.now(who).fill(opened.destination(), fill));
  }

  /** The destinations that may make the records which a link looks for. */
  private static List<Destination> makers(PlanService.Opened opened, TableInfo table, Fill fill) {
    FieldInfo field = table.field(fill.field());
    return field.link() == null
        ? List.of()
        : opened.plan().destinations().stream()
            .filter(d -> d.table().equalsIgnoreCase(field.link().table()))
            .toList();
  }

  /** The compiled fill of a key, compiled if it is not at hand or too old. */
  Entry get(Key key, Function<Key, CompiledFill> compile) {
    return fills.get(key, k -> new Entry(compile.apply(k), k.rows()));
  }

  /** The rows with their corrections, the same each time. */
  SourceTable corrected(SourceTable rows, List<Correction> corrections) {
    return corrections.isEmpty()
        ? rows
        : corrected.get(new Corrected(rows, corrections), c -> c.rows().corrected(c.corrections()));
  }

  /** Forgets everything: the application's records have changed. */
  void forget() {
    fills.invalidateAll();
    edited.invalidateAll();
  }
}
