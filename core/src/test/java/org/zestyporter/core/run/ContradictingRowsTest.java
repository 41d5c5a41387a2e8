package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.zestyporter.core.run.Choir.members;
import static org.zestyporter.core.run.Choir.schema;
import static org.zestyporter.core.run.Choir.text;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.match.MatchClass;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.Policies.OnRepeat;
import org.zestyporter.core.preview.MatchSurvey;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.ProblemCode;

/** Rows with the same key that say different things, in the members' list of a choir. */
class ContradictingRowsTest {
  @TempDir Path folder;

  /** Rows that say the same are one; those that don't wait until somebody says which is right. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void whichOfContradictingRowsIsRightIsAsked(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      schema(on);
      String[] rows = {
        "Nr;Nachname;Geboren;Stimme;Beitrag;Ort",
        "99;Neumann;2001-03-04;Alt;20;",
        "21;Voss;1950-01-01;Bass;10;Ulm",
        "099;Neumann;2001-03-04;;25;Jena",
        "21;Voss;1950-01-01;Bass;10,00;Ulm",
        "99;Neumann;2001-03-04;Sopran;;",
        "7;Adler;1980-01-02;Alt;40;Kiel",
        "007;Adler;1980-01-02;Alt;40;Bonn"
      };
      Destination asks = members(null, null, null, OnRepeat.ASK);
      Fates ledger = new Fates();
      RunReport report = Choir.go(on, folder, asks, ledger, false, rows);
      for (long line : new long[] {2, 4, 6, 7, 8}) {
        assertThat(ledger.line(line).outcome()).as("line %d", line).isEqualTo(Outcome.REJECTED);
        assertThat(ledger.line(line).notes().get(0).code()).isEqualTo(ProblemCode.CONTRADICTED);
        assertThat(ledger.line(line).notes().get(0).question()).isTrue();
      }
      assertThat(ledger.reasons(2)).isEqualTo("line 6 has the same key and says something else");
      assertThat(ledger.reasons(6)).isEqualTo("line 2 has the same key and says something else");
      assertThat(ledger.line(3).outcome()).isEqualTo(Outcome.SKIPPED);
      assertThat(ledger.line(5).outcome()).isEqualTo(Outcome.NEW);
      assertThat(report.questions())
          .singleElement()
          .satisfies(q -> assertThat(q.rows()).isEqualTo(5));

      MatchSurvey.MatchClasses classes;
      try (SourceTable source = Runs.source(folder, rows)) {
        Plan plan = new Plan("Chor", null, Reading.FIND, List.of(asks), null);
        Classing classing = Classing.of(Runs.opened(on, source, plan), 0, null);
        classes = new MatchSurvey(classing, MatchClass.REPEATS, 10).result(List.of());
      }
      assertThat(classes.repeats()).isEqualTo(6);
      assertThat(classes.pairs()).extracting(LedgerEntry::line).containsExactly(2L, 7L, 3L);
      assertThat(classes.others().stream().map(o -> o.stream().map(LedgerEntry::line).toList()))
          .containsExactly(List.of(4L, 6L), List.of(8L), List.of());

      Destination decided =
          asks.withDecisions(
              List.of(
                  new Decision(Map.of("nummer", "99"), Decision.Act.MERGE, null),
                  new Decision(Map.of("nummer", "7"), Decision.Act.FIRST, null),
                  new Decision(Map.of("nummer", "7"), Decision.Act.TAKE, List.of("2"))));
      Fates then = new Fates();
      RunReport run = Choir.go(on, folder, decided, then, true, rows);
      assertThat(run.questions()).isEmpty();
      assertThat(run.balanced()).isTrue();
      assertThat(then.line(6).outcome()).isEqualTo(Outcome.NEW);
      assertThat(text(on, "beitrag", "nachname = 'Neumann'")).startsWith("20");
      assertThat(text(on, "ort", "nachname = 'Neumann'")).isEqualTo("Jena");
      assertThat(then.line(7).outcome()).isEqualTo(Outcome.CHANGED);
      assertThat(then.line(8).outcome()).isEqualTo(Outcome.SKIPPED);
      assertThat(text(on, "ort", "id = 1")).isEqualTo("Kiel");

      // left out, all of them
      Destination out =
          asks.withDecisions(
              List.of(new Decision(Map.of("nummer", "99"), Decision.Act.SKIP, null)));
      Fates left = new Fates();
      Choir.go(on, folder, out, left, false, rows);
      assertThat(left.line(2).outcome()).isEqualTo(Outcome.SKIPPED);
      assertThat(left.line(6).notes().get(0).code()).isEqualTo(ProblemCode.DECIDED);
    }
  }
}
