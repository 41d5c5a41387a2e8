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
import org.zestyporter.core.application.FieldInfo;
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
    Map<Ask, Answer> all = kept.all();
    all.keySet().removeIf(other -> other.wanted() != null || !other.table().equals(ask.table()));
    List<Map.Entry<Ask, Answer>> parts = parts(ask, all);
    parts.forEach(part -> kept.touch(part.getKey()));
    return parts.isEmpty() ? null : joined(parts, ask);
  }

  /**
   * The answers that hold what is asked of all records: one for all fields, or one for each if they
   * tell of the same records; none if there are none.
   *
   * @param all that tell of all records of its table
   */
  private static List<Map.Entry<Ask, Answer>> parts(Ask ask, Map<Ask, Answer> all) {
    Map.Entry<Ask, Answer> whole = longest(ask.fields(), all);
    if (whole != null) {
      return List.of(whole);
    }
    List<FieldInfo> key = ask.table().fields(ask.table().primaryKey());
    List<Map.Entry<Ask, Answer>> parts = new ArrayList<>();
    for (FieldInfo field : ask.fields()) {
      List<FieldInfo> both = new ArrayList<>(key);
      both.add(field);
      parts.add(longest(both, all));
    }
    return key.isEmpty() || parts.contains(null) || !areOfSame(key, parts) ? List.of() : parts;
  }

  /** The one that has held for longest, so that what follows from it holds for longest too. */
  private static Map.@Nullable Entry<Ask, Answer> longest(
      List<FieldInfo> fields, Map<Ask, Answer> all) {
    return all.entrySet().stream()
        .filter(e -> e.getKey().fields().containsAll(fields))
        .min(Comparator.comparing(e -> e.getValue().since))
        .orElse(null);
  }

  private static boolean areOfSame(List<FieldInfo> key, List<Map.Entry<Ask, Answer>> parts) {
    List<Answer> keys =
        parts.stream()
            .distinct()
            .map(part -> joined(List.of(part), Ask.all(part.getKey().table(), key)))
            .toList();
    return keys.stream().allMatch(keys.get(0)::isSame);
  }

  /**
   * The answer to a question of which more is known than was asked.
   *
   * @param parts the answer that holds all its fields, or one for each
   */
  private static Answer joined(List<Map.Entry<Ask, Answer>> parts, Ask wanted) {
    List<ValueColumn[]> records = new ArrayList<>();
    for (int piece = 0; piece < parts.get(0).getValue().records.size(); piece++) {
      ValueColumn[] some = new ValueColumn[wanted.fields().size()];
      for (int c = 0; c < some.length; c++) {
        Map.Entry<Ask, Answer> part = parts.get(parts.size() == 1 ? 0 : c);
        int at = part.getKey().fields().indexOf(wanted.fields().get(c));
        some[c] = part.getValue().records.get(piece)[at];
      }
      records.add(some);
    }
    Comparator<Instant> byTime = Comparator.naturalOrder();
    // its columns are kept already, so that it weighs nothing of its own
    return new Answer(
        records,
        parts.stream().map(part -> part.getValue().since).max(byTime).orElseThrow(),
        parts.stream().map(part -> part.getValue().read).min(byTime).orElseThrow(),
        0);
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
