package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;

/** Deliveries to a farmers' cooperative, each with what is known of the member who brought it. */
class LinkedDraftTest {
  private static final String[] LINES = {
    "Numru;Karta;Isem;Kunjom;Imwieled;Data;Piż",
    "K1;0649427G;Marija;Attard;1965-04-02;2026-02-13;12.5",
    "K2;0824548Z;Salvu;Camilleri;1961-03-12;2026-04-01;80",
    "K3;0649427G;Marija;Attard;1965-04-02;2026-05-18;7.25",
    "K4;0960888Z;Toni;Azzopardi;1958-06-03;2026-05-19;31",
    "K5;0824548Z;Salvu;Camilleri;1961-03-12;2026-06-02;44"
  };

  @TempDir Path folder;

  /**
   * @param unique what tells members apart, if anything does
   */
  private static void schema(Databases.Fresh on, String unique) throws SQLException {
    on.execute(
        "CREATE TABLE membru (id INTEGER PRIMARY KEY, karta VARCHAR(10) NOT NULL "
            + unique
            + ", isem VARCHAR(40) NOT NULL, kunjom VARCHAR(40) NOT NULL, twieled DATE)",
        "CREATE TABLE kunsinna (numru VARCHAR(8) PRIMARY KEY, membru INTEGER NOT NULL"
            + " REFERENCES membru (id), data DATE NOT NULL, piz DECIMAL(9,3) NOT NULL)");
  }

  private SourceTable file() throws IOException {
    Path file = folder.resolve("kunsinni.csv");
    Files.writeString(file, String.join("\n", LINES) + "\n");
    return SourceReader.open(file, folder.resolve("cells"), Reading.FIND);
  }

  private static Set<String> used(Destination destination) {
    Set<String> used = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    destination.columnsRead().forEach(used::add);
    return used;
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void whoseRecordsRowsBelongToIsProposedAndWritten(Databases.Fresh on)
      throws SQLException, IOException {
    try (on) {
      schema(on, "UNIQUE");
      Application application = on.database();
      try (SourceTable source = file()) {
        PlanDraft draft = new PlanDraft(application, source);
        Destination child = draft.draft(application.table("kunsinna")).destination();
        assertThat(child.fills()).extracting(Fill::field).contains("numru", "data", "piz");
        List<ProposedTable> above = draft.above(child, used(child));
        assertThat(above).hasSize(1);
        Destination members = above.get(0).destination();
        assertThat(members.table()).isEqualTo("membru");
        assertThat(members.distinct()).isTrue();
        assertThat(members.keys().get(0).fields()).containsExactly("karta");
        assertThat(members.fills())
            .as("no column that deliveries take, though it holds days too")
            .extracting(f -> f.field() + " " + f.origin().form().column())
            .contains("karta Karta", "isem Isem", "kunjom Kunjom")
            .doesNotContain("twieled Data");
        assertThat(draft.above(application.table("membru"), child, used(child)))
            .isEqualTo(above.get(0));
        Fill number = Fill.of("id", Origin.generated(Origin.Generator.LINE)).forNewOnly();
        Plan plan =
            new Plan(
                "kunsinni",
                null,
                null,
                List.of(
                    confirmed(members.withFills(with(members.fills(), number))),
                    confirmed(child.withParent(new Destination.Parent("membru", null)))),
                null);
        RunContext context =
            new RunContext("odile", LocalDateTime.of(2026, 12, 1, 9, 0), "kunsinni.csv");
        OpenedPlan opened = new OpenedPlan(application, source, plan, context, Shared.NONE);
        var report = new Pipeline(opened).run("1", Ledger.NONE, Progress.NONE);
        assertThat(report.destinations()).extracting(d -> d.added()).containsExactly(3L, 5L);
        assertThat(
                on.rows(
                    "SELECT m.kunjom, COUNT(*) FROM kunsinna k JOIN membru m ON m.id = k.membru"
                        + " GROUP BY m.kunjom ORDER BY m.kunjom"))
            .hasSize(3);
      }
    }
  }

  private static List<Fill> with(List<Fill> fills, Fill another) {
    return Stream.concat(
            fills.stream().filter(f -> !f.field().equals(another.field())), Stream.of(another))
        .toList();
  }

  private static Destination confirmed(Destination one) {
    return one.withFills(one.fills().stream().map(f -> f.withGuess(false)).toList());
  }

  @Test
  void nothingIsProposedWhereTheLinkIsFilledOrNothingTellsRecordsApart()
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = file()) {
      schema(on, "");
      PlanDraft draft = new PlanDraft(on.database(), source);
      Destination child = draft.draft(on.database().table("kunsinna")).destination();
      Destination known =
          child.withFills(with(child.fills(), Fill.of("membru", Origin.fixed("7"))));
      assertThat(draft.above(known, used(known))).isEmpty();
      assertThat(draft.above(on.database().table("membru"), known, used(known))).isNull();
      assertThat(draft.above(child, used(child))).as("nothing tells members apart").isEmpty();
    }
  }
}
