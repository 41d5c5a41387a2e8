package org.zestyporter.core.run;

import java.time.Clock;
import java.time.Duration;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.source.SourceTable;

/**
 * What was computed of a source's rows and read of an application's records, kept while somebody
 * edits a plan, so that an edit shows its effect at once. It belongs to one source as it is read
 * and corrected, and to one person; whoever keeps it lets go of it when the records change.
 *
 * <p>Records are taken to be the same for a minute. It takes about a quarter of the memory at most.
 */
public final class Remembered {
  private static final Duration RECENT = Duration.ofMinutes(1);
  private static final int SHARE = 8;

  private final KeptColumns columns;
  private final KeptAnswers answers;

  public Remembered(Application application, SourceTable source, Clock clock) {
    long room = Runtime.getRuntime().maxMemory() / SHARE;
    this.columns = new KeptColumns(source, clock, RECENT, room);
    this.answers = new KeptAnswers(application, clock, RECENT, room);
  }

  KeptColumns columns() {
    return columns;
  }

  KeptAnswers answers() {
    return answers;
  }
}
