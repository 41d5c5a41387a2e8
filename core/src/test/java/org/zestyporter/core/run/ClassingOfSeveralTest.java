package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zestyporter.core.run.Loans.books;
import static org.zestyporter.core.run.Loans.plan;
import static org.zestyporter.core.run.Loans.with;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.match.MatchClass;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Comparison.Ignore;

/**
 * Rows by class in plans of several tables: from what is kept the same as if all were rehearsed.
 */
class ClassingOfSeveralTest {
  @TempDir Path folder;

  /** The entries of one destination, in the order of the file. */
  private static final class Entries implements Ledger {
    private final int destination;
    private final Fates fates = new Fates();

    Entries(int destination) {
      this.destination = destination;
    }

    @Override
    public void begin(LedgerLayout layout) {
      // the chunks say it again
    }

    @Override
    public void append(LedgerChunk chunk) {
      if (chunk.destination() == destination) {
        fates.append(chunk);
      }
    }

    List<String> told() {
      fates.entries.sort(
          Comparator.comparingLong(LedgerEntry::line).thenComparing(LedgerEntry::part));
      return fates.told();
    }
  }

  private static List<String> rehearsed(OpenedPlan opened, int destination) {
    Entries entries = new Entries(destination);
    new Pipeline(opened).rehearse(entries, Progress.NONE);
    return entries.told();
  }

  /** What becomes of all rows, shown class by class. */
  private static List<String> shown(Classing classing, int destination) {
    Entries entries = new Entries(destination);
    for (MatchClass is : MatchClass.values()) {
      classing.show(is, (chunk, entry) -> entries.fates.entries.add(chunk.entries().get(entry)));
    }
    return entries.told();
  }

  private static List<Plan> edits(Plan first) {
    Policies skipping =
        new Policies(null, Policies.OnNone.SKIP, null, Policies.OnRepeat.MERGE, null);
    MatchKey loosely = new MatchKey(List.of("name"), List.of(Ignore.CASE));
    Decision out = new Decision(Map.of("name", "L3"), Decision.Act.REJECT, null);
    List<Plan> edits = new ArrayList<>();
    edits.add(first);
    Plan loose = with(first, 0, d -> d.withKeys(List.of(loosely)));
    edits.add(loose);
    // more rows are taken now, though nothing else of this table is edited
    edits.add(with(loose, 3, d -> with(d, "art", f -> f.withWhenBad(Fill.WhenBad.BLANK))));
    // rows of which the condition can't tell are rejected, though no fill rejects any there
    Plan bare = with(loose, 2, d -> d.withFills(d.fills().subList(0, 1)));
    edits.add(bare);
    edits.add(with(bare, 2, d -> d.withWhere("1/([Zeile]-1)>0")));
    edits.add(with(first, 1, d -> d.withPolicies(skipping)));
    edits.add(with(first, 2, d -> d.withWhere("[Titel]<>\"Effi\"")));
    edits.add(with(first, 3, d -> d.withSplit(new Destination.Split("Themen", List.of("w")))));
    edits.add(with(first, 0, d -> d.withDecisions(List.of(out))));
    edits.add(first.withRun(first.run().withRows(RunSettings.Rows.EACH)));
    edits.add(with(first, 3, d -> with(d, "art", f -> f.withWhenBad(Fill.WhenBad.BLANK))));
    edits.add(books(first, 1, 2));
    edits.add(with(first, 1, d -> d.withKeys(List.of())));
    edits.add(first);
    return edits;
  }

  @ParameterizedTest
  @CsvSource({"h2, reject, 40", "h2, blank, 700", "postgresql, reject, 300"})
  void eachEditIsSeenThoughTheRestIsKept(String database, String missing, int names)
      throws SQLException, IOException {
    String[] rows = Loans.rows(300, names);
    try (Databases.Fresh on = database.equals("h2") ? Databases.h2() : Databases.postgres();
        SourceTable source = Runs.source(folder, rows)) {
      Loans.schema(on);
      on.database().forget();
      Remembered remembered = new Remembered(on.database(), source, Clock.systemUTC());
      int number = 0;
      for (Plan edited : edits(books(plan("whole", missing, ""), 0, 0))) {
        OpenedPlan opened = Runs.opened(on, source, edited);
        for (int d = 0; d < edited.destinations().size(); d++) {
          String which = "edit " + number + ", table " + d;
          Classing kept = Classing.of(opened, d, remembered);
          assertThat(kept.counted()).as(which).isEqualTo(Classing.of(opened, d, null).counted());
          assertThat(shown(kept, d)).as(which).isEqualTo(rehearsed(opened, d));
        }
        number++;
      }
    }
  }
}
