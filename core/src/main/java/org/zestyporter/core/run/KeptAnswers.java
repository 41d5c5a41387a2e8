package org.zestyporter.core.run;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.Lookups;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.ValueColumn;

/**
 * Answers what was asked a moment ago as it was answered then. What is kept takes no more than so
 * many bytes; an answer that takes more alone is not kept.
 *
 * <p>What is asked of all records of a table when half of its time is over is asked anew meanwhile,
 * so that whoever goes on asking need not wait. If that brings the same, what follows from it still
 * holds.
 */
final class KeptAnswers implements Lookups {
  /** About how many bytes a key takes that was asked for. */
  private static final int KEY_WEIGHT = 80;

  private final Lookups through;
  private final Clock clock;
  private final Duration recent;
  private final long room;
  private final KeptThings<Ask, Answer> kept;
  private final Executor meanwhile;
  private final Set<Ask> renewing = ConcurrentHashMap.newKeySet();

  /**
   * What was found.
   *
   * @param since when that was read first, and has been the same each time after
   * @param read when it was read last
   */
  private record Answer(List<ValueColumn[]> records, Instant since, Instant read, long weight) {

    private Answer since(Instant instant) {
      return new Answer(records, instant, read, weight);
    }

    /** True if another one has the same values in the same order. */
    private boolean isSame(Answer other) {
      boolean same = records.size() == other.records.size();
      for (int i = 0; same && i < records.size(); i++) {
        same = isSame(records.get(i), other.records.get(i));
      }
      return same;
    }

    private static boolean isSame(ValueColumn[] one, ValueColumn[] other) {
      boolean same = one.length == other.length;
      for (int c = 0; same && c < one.length; c++) {
        same = one[c].rows() == other[c].rows();
        for (int r = 0; same && r < one[c].rows(); r++) {
          same = one[c].isEqual(r, other[c], r);
        }
      }
      return same;
    }
  }

  /**
   * @param recent for how long an answer holds
   */
  KeptAnswers(Lookups through, Clock clock, Duration recent, long room) {
    this(through, clock, recent, room, work -> Threads.daemon(work, "porter-renew").start());
  }

  /**
   * @param meanwhile asks anew
   */
  KeptAnswers(Lookups through, Clock clock, Duration recent, long room, Executor meanwhile) {
    this.meanwhile = meanwhile;
    this.through = through;
    this.clock = clock;
    this.recent = recent;
    this.room = room;
    this.kept = new KeptThings<>(room);
  }

  @Override
  public void look(Ask ask, Consumer<ValueColumn[]> found) {
    Answer answer = known(ask);
    if (answer == null) {
      keep(ask, asked(ask, found));
    } else {
      answer.records.forEach(found);
      renew(ask, answer);
    }
  }

  private void keep(Ask ask, Answer answer) {
    if (answer.weight <= room) {
      kept.keep(ask, answer, answer.weight);
    }
  }

  /** Asks anew before an answer is too old, without having anybody wait. */
  private void renew(Ask ask, Answer old) {
    boolean isOld = old.read.plus(recent.dividedBy(2)).isBefore(clock.instant());
    if (isOld && ask.wanted() == null && renewing.add(ask)) {
      meanwhile.execute(
          () -> {
            try {
              Answer now = asked(ask, records -> {});
              keep(ask, now.isSame(old) ? now.since(old.since) : now);
            } catch (PorterException e) {
              // whoever asks next is told, once the old answer holds no longer
            } finally {
              renewing.remove(ask);
            }
          });
    }
  }

  private Answer asked(Ask ask, Consumer<ValueColumn[]> found) {
    Instant now = clock.instant();
    List<ValueColumn[]> records = new ArrayList<>();
    long[] weight = {ask.wanted() == null ? 0 : (long) ask.wanted().size() * KEY_WEIGHT};
    through.look(
        ask,
        some -> {
          for (ValueColumn column : some) {
            weight[0] += column.weight();
          }
          if (weight[0] <= room) {
            records.add(some);
          } else {
            records.clear();
          }
          found.accept(some);
        });
    return new Answer(records, now, now, weight[0]);
  }

  /** Since when it has been answered alike; null if that is not known, or too long ago. */
  @Nullable Instant since(Ask ask) {
    Answer answer = known(ask);
    return answer == null ? null : answer.since;
  }

  /** What is known of it; null if nothing is, or it is too old. */
  private synchronized @Nullable Answer known(Ask ask) {
    Instant oldest = clock.instant().minus(recent);
    kept.removeIf(a -> a.read.isBefore(oldest));
    Answer same = kept.get(ask);
    if (same != null || ask.wanted() != null) {
      return same;
    }
    // the one that has held for longest, so that what follows from it holds for longest too
    Map.Entry<Ask, Answer> more =
        kept.all().entrySet().stream()
            .filter(e -> holds(e.getKey(), ask))
            .min(Comparator.comparing(e -> e.getValue().since))
            .orElse(null);
    if (more == null) {
      return null;
    }
    kept.touch(more.getKey());
    return some(more.getKey(), more.getValue(), ask);
  }

  /** True if what one asks of all records is part of what another one does. */
  private static boolean holds(Ask other, Ask ask) {
    return other.wanted() == null
        && other.table().equals(ask.table())
        && other.fields().containsAll(ask.fields());
  }

  /** The answer to a question of which more is known than was asked. */
  private static Answer some(Ask known, Answer answer, Ask wanted) {
    int[] columns = wanted.fields().stream().mapToInt(known.fields()::indexOf).toArray();
    List<ValueColumn[]> records =
        answer.records.stream()
            .map(
                all -> {
                  ValueColumn[] some = new ValueColumn[columns.length];
                  for (int c = 0; c < columns.length; c++) {
                    some[c] = all[columns[c]];
                  }
                  return some;
                })
            .toList();
    // its columns are kept already, so that it weighs nothing of its own
    return new Answer(records, answer.since, answer.read, 0);
  }

  @Override
  public Records fetch(TableInfo table, Collection<List<Object>> keys) {
    return through.fetch(table, keys);
  }

  @Override
  public long count(TableInfo table) {
    return through.count(table);
  }
}
