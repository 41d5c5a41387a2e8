package org.zestyporter.core.run;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.source.SourceTable;

/**
 * What was computed of a source's rows and read of an application's records, kept while somebody
 * edits a plan, so that an edit shows its effect at once. It belongs to one source as it is read
 * and corrected, and to one person; whoever keeps it lets go of it when the records change.
 *
 * <p>Records are taken to be the same for a minute. It takes three eighths of the memory at most,
 * and gives it back where memory is short.
 */
public final class Remembered {
  private static final Duration RECENT = Duration.ofMinutes(1);
  private static final int SHARE = 8;

  /** The part of the memory that all that is looked at may take while it is gone through. */
  private static final int SHARE_AT_WORK = 4;

  private static final int TEXT_WEIGHT = 24;
  private static final int AWAITED_WEIGHT = 120;
  private static final int OTHER_WEIGHT = 8;
  private static final int KEY_WEIGHT = 8;

  private final KeptColumns columns;
  private final KeptAnswers answers;
  private final KeptKeys keys;

  public Remembered(Application application, SourceTable source, Clock clock) {
    long room = Runtime.getRuntime().maxMemory() / SHARE;
    this.columns = new KeptColumns(source, clock, RECENT, room);
    this.answers = new KeptAnswers(application, clock, RECENT, room);
    this.keys = new KeptKeys(answers, room);
  }

  /** True if there is room for so much of one destination; else chunks are gone through. */
  static boolean fits(long weight) {
    return fits(weight, Runtime.getRuntime().maxMemory());
  }

  /** The same in so much memory. */
  static boolean fits(long weight, long memory) {
    return weight <= memory / SHARE_AT_WORK;
  }

  /**
   * About how many bytes it takes to go through rows, with as many records and what is found for
   * the keys.
   *
   * @param weight of the rows
   */
  static long weightAtWork(long weight, long rows, Target target) {
    return 2 * weight + Chunks.weightOfKeys(rows, target);
  }

  /**
   * About how many bytes the values of some fields of all rows take, with their keys, and what must
   * be unique or is linked.
   */
  static long weight(long rows, Target target, List<String> fields) {
    int others = target.guard.size() + target.made.size() + target.awaiting.length;
    return weightOfMatches(rows, target, fields)
        + rows * ((long) KEY_WEIGHT * others + (long) AWAITED_WEIGHT * target.awaiting.length);
  }

  /** The same where nobody asks what becomes of the rows. */
  static long weightOfMatches(long rows, Target target, List<String> fields) {
    Set<String> each = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    each.addAll(fields);
    long weight = (long) KEY_WEIGHT * target.matcher.size();
    for (String field : each) {
      boolean isText = target.table.field(field).type() == FieldType.TEXT;
      weight += isText ? TEXT_WEIGHT : OTHER_WEIGHT;
    }
    return rows * weight;
  }

  KeptColumns columns() {
    return columns;
  }

  KeptKeys keys() {
    return keys;
  }

  KeptAnswers answers() {
    return answers;
  }
}
