package org.zestyporter.core.preview;

import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.value.ProblemCode;

/**
 * A ledger that only tells how rows match, with the first pairs of row and record.
 *
 * <p>Classes of rows: they match one record, none, or several; or repeat inside the file; or can't
 * be matched because a value is in trouble.
 */
public final class MatchSurvey implements Ledger {
  private final int pairsWanted;
  private final List<LedgerEntry> pairs = new ArrayList<>();
  private final List<String> fields = new ArrayList<>();
  private long one;
  private long none;
  private long several;
  private long repeats;
  private long troubled;

  public MatchSurvey(int pairsWanted) {
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
  public void begin(int destination, String table, List<String> names) {
    fields.addAll(names);
  }

  @Override
  public void append(LedgerChunk chunk) {
    for (LedgerEntry entry : chunk.entries()) {
      count(entry);
    }
  }

  private void count(LedgerEntry entry) {
    if (entry.before() != null) {
      one++;
      if (pairs.size() < pairsWanted && entry.outcome() == Outcome.CHANGED) {
        pairs.add(entry);
      }
    } else if (entry.outcome() == Outcome.NEW) {
      none++;
    } else if (has(entry, ProblemCode.SEVERAL_MATCHES)) {
      several++;
    } else if (has(entry, ProblemCode.REPEATED)) {
      repeats++;
    } else if (has(entry, ProblemCode.NO_MATCH)) {
      none++;
    } else {
      troubled++;
    }
  }

  private static boolean has(LedgerEntry entry, ProblemCode code) {
    return entry.notes().stream().anyMatch(n -> n.code() == code && !n.softened());
  }

  public MatchClasses result() {
    return new MatchClasses(one, none, several, repeats, troubled, fields, pairs);
  }
}
