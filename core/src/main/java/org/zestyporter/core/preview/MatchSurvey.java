package org.zestyporter.core.preview;

import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.value.ProblemCode;

/**
 * A ledger that only tells how rows match, with the first pairs of row and record.
 *
 * <p>Classes of rows: they match one record, none, or several; or repeat inside the file; or can't
 * be matched because a value is in trouble.
 */
public final class MatchSurvey implements Ledger {
  private final int destination;
  private final int pairsWanted;
  private final List<LedgerEntry> pairs = new ArrayList<>();
  private final List<String> fields = new ArrayList<>();
  private long one;
  private long none;
  private long several;
  private long repeats;
  private long troubled;

  /**
   * @param destination index of the destination that is looked at
   */
  public MatchSurvey(int destination, int pairsWanted) {
    this.destination = destination;
    this.pairsWanted = pairsWanted;
  }

  /**
   * How the rows of a file match.
   *
   * @param fields names of the fields whose values the pairs hold
   * @param pairs rows beside the record that they match, those that change something first
   */
  public record MatchClasses(
      long one,
      long none,
      long several,
      long repeats,
      long troubled,
      List<String> fields,
      List<LedgerEntry> pairs) {}

  @Override
  public void begin(LedgerLayout layout) {
    if (layout.destination() == destination) {
      fields.addAll(layout.fields());
    }
  }

  @Override
  public void append(LedgerChunk chunk) {
    if (chunk.destination() != destination) {
      return;
    }
    for (int entry = 0; entry < chunk.size(); entry++) {
      count(chunk, entry);
    }
  }

  private void count(LedgerChunk chunk, int entry) {
    Outcome outcome = chunk.outcome(entry);
    if (chunk.stood().get(entry)) {
      one++;
      if (pairs.size() < pairsWanted && outcome == Outcome.CHANGED) {
        pairs.add(chunk.entries().get(entry));
      }
    } else if (outcome == Outcome.NEW) {
      none++;
    } else if (has(chunk, entry, ProblemCode.SEVERAL_MATCHES)) {
      several++;
    } else if (has(chunk, entry, ProblemCode.REPEATED)) {
      repeats++;
    } else if (has(chunk, entry, ProblemCode.NO_MATCH)) {
      none++;
    } else {
      troubled++;
    }
  }

  private static boolean has(LedgerChunk chunk, int entry, ProblemCode code) {
    List<LedgerEntry.Note> notes = chunk.notes()[entry];
    return notes != null && notes.stream().anyMatch(n -> n.code() == code && !n.softened());
  }

  public MatchClasses result() {
    return new MatchClasses(one, none, several, repeats, troubled, fields, pairs);
  }
}
