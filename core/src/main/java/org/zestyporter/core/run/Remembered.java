package org.zestyporter.core.run;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
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

  /**
   * True if there is room for the values of some fields of all rows, and their keys; where there is
   * none, rows are gone through chunk by chunk.
   */
  static boolean fits(long rows, Target target, List<String> fields, long memory) {
    return weight(rows, target, fields) <= memory / SHARE_AT_WORK;
  }

  /**
   * About how many bytes it takes to go through them, with as many records and what is found for
   * the keys.
   */
  static long weightAtWork(long rows, Target target, List<String> fields) {
    return 2 * weight(rows, target, fields) + Chunks.weightOfKeys(rows, target);
  }

  private static long weight(long rows, Target target, List<String> fields) {
    int keys = target.matcher.size() + target.guard.size() + target.made.size();
    long weight = (long) KEY_WEIGHT * (keys + target.awaiting.length);
    for (String field : fields) {
      boolean isText = target.table.field(field).type() == FieldType.TEXT;
      weight += isText ? TEXT_WEIGHT : OTHER_WEIGHT;
    }
    weight += (long) AWAITED_WEIGHT * target.awaiting.length;
    return rows * weight;
  }

  /** The same in the memory that there is. */
  static boolean fits(long rows, Target target, List<String> fields) {
    return fits(rows, target, fields, Runtime.getRuntime().maxMemory());
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
