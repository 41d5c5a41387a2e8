package org.zestyporter.demo;

import static org.assertj.core.api.Assertions.assertThat;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.draft.ProposedTable;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.ProblemCode;

/** The whole path without a server: the generator's own counts are what must come out. */
class ArrivalsTest {
  private static final RunContext CONTEXT =
      new RunContext("odile", LocalDateTime.of(2026, 11, 23, 9, 0), "winter-arrivals.xlsx");

  private final Marina marina = Marina.open();
  private final Arrivals.Facts facts = marina.arrivals().facts();
  private Connection builder;
  private Database database;
  @TempDir Path folder;

  @BeforeEach
  void build() throws SQLException {
    String url = "jdbc:h2:mem:" + UUID.randomUUID() + ";DB_CLOSE_DELAY=-1;DATABASE_TO_LOWER=TRUE";
    database = Database.connect(url, "sa", "");
    builder = DriverManager.getConnection(url, "sa", "");
    marina.build(builder);
  }

  @AfterEach
  void close() throws SQLException {
    builder.close();
  }

  @ParameterizedTest
  @ValueSource(strings = {"winter-arrivals.xlsx", "winter-arrivals.csv"})
  void rehearsalFindsWhatTheGeneratorPutIn(String name) throws IOException {
    try (SourceTable source = open(name)) {
      Plan plan = draft(source);
      RunReport report = rehearse(source, plan);

      assertThat(report.read()).isEqualTo(facts.rows());
      assertCounts(
          report,
          facts.added(),
          facts.changed(),
          facts.unchanged(),
          facts.repeated(),
          facts.rejected());
      assertThat(rowsByCause(report))
          .isEqualTo(
              Map.of(
                  "type_id unknown-link", (long) facts.unknownKinds(),
                  "owner_id unknown-link", (long) facts.unknownOwners(),
                  "berth_id unknown-link", (long) facts.unknownBerths(),
                  "arrived_on not-a-date", (long) facts.badDates(),
                  "length_m not-a-number", (long) facts.badLengths() - 1,
                  "length_m out-of-range", 1L,
                  "registration required", (long) facts.noRegistration()));
      // a draft asks which of the lines is right
      RunReport asked =
          rehearse(source, plan(plan.destinations().get(0).withPolicies(Policies.DRAFTED)));
      assertThat(asked.questions())
          .filteredOn(q -> q.code() == ProblemCode.CONTRADICTED)
          .singleElement()
          .satisfies(q -> assertThat(q.rows()).isEqualTo(2L * facts.repeated()));
      assertThat(asked.destinations().get(0).skipped()).isZero();
      assertThat(total(report, "length_m").source()).isEqualByComparingTo(facts.lengths());
      assertThat(total(report, "beam_m").source()).isEqualByComparingTo(facts.beams());
      assertThat(report.balanced()).isTrue();
      assertThat(database.count(database.table("vessel"))).isEqualTo(Marina.VESSELS);
    }
  }

  @Test
  void theSameHoldsOnPostgres() throws IOException, SQLException {
    try (EmbeddedPostgres postgres = EmbeddedPostgres.builder().start()) {
      String url = postgres.getJdbcUrl("postgres", "postgres");
      try (Connection connection = DriverManager.getConnection(url, "postgres", "")) {
        marina.build(connection);
      }
      database = Database.connect(url, "postgres", "");
      runDoesWhatWasRehearsedAndTheSecondRunChangesNothing();
    }
  }

  @Test
  void runDoesWhatWasRehearsedAndTheSecondRunChangesNothing() throws IOException {
    try (SourceTable source = open("winter-arrivals.xlsx")) {
      Plan plan = draft(source);
      RunReport rehearsed = rehearse(source, plan);
      RunReport run =
          new Pipeline(new OpenedPlan(database, source, plan, CONTEXT, Shared.NONE))
              .run("2026-0001", Ledger.NONE, Progress.NONE);

      assertThat(run.destinations()).isEqualTo(rehearsed.destinations());
      assertThat(run.problems()).isEqualTo(rehearsed.problems());
      assertThat(total(run, "length_m").written()).isEqualByComparingTo(facts.lengths());
      assertThat(database.count(database.table("vessel")))
          .isEqualTo(Marina.VESSELS + facts.added());

      RunReport again = rehearse(source, plan);
      assertCounts(
          again,
          0,
          0,
          facts.added() + facts.changed() + facts.unchanged(),
          facts.repeated(),
          facts.rejected());
    }
  }

  @Test
  void draftFillsEveryColumnAndSurvivesJson() throws IOException {
    try (SourceTable source = open("winter-arrivals.xlsx")) {
      assertThat(source.reading().titleRows()).containsExactly(5L);
      assertThat(source.rowCount()).isEqualTo(Arrivals.ROWS);
      assertThat(source.reading().lastRow()).isEqualTo(Arrivals.ROWS + 5L);

      List<ProposedTable> ranked = new PlanDraft(database, source).rank();
      assertThat(ranked.get(0).destination().table()).isEqualTo("vessel");

      Plan plan = draft(source);
      Map<String, String> columns =
          plan.destinations().get(0).fills().stream()
              .filter(f -> f.origin().column() != null)
              .collect(Collectors.toMap(Fill::field, f -> f.origin().column()));
      assertThat(columns)
          .containsExactlyInAnyOrderEntriesOf(
              Map.of(
                  "registration", "Reg No",
                  "name", "Boat name",
                  "type_id", "Kind",
                  "length_m", "LOA (ft)",
                  "beam_m", "Beam (ft)",
                  "owner_id", "Owner e-mail",
                  "berth_id", "Berth",
                  "arrived_on", "Arrives",
                  "insured_until", "Insured until",
                  "notes", "Notes"));
      assertThat(plan.destinations().get(0).keys().get(0).fields()).containsExactly("registration");
      assertThat(PlanJson.read(PlanJson.write(plan))).isEqualTo(plan);
    }
  }

  private SourceTable open(String name) throws IOException {
    Path file = folder.resolve(name);
    if (name.endsWith(".csv")) {
      marina.arrivals().writeText(file);
    } else {
      marina.arrivals().writeWorkbook(file);
    }
    return SourceReader.open(file, folder.resolve("cache"), Reading.FIND);
  }

  private Plan draft(SourceTable source) {
    Destination drafted =
        new PlanDraft(database, source).draft(database.table("vessel")).destination();
    assertThat(drafted.policies()).isEqualTo(Policies.DRAFTED);
    return plan(drafted.withPolicies(Policies.DEFAULT));
  }

  private static Plan plan(Destination destination) {
    return new Plan("Winter arrivals", "marina", Reading.FIND, List.of(destination), null);
  }

  private RunReport rehearse(SourceTable source, Plan plan) {
    return new Pipeline(new OpenedPlan(database, source, plan, CONTEXT, Shared.NONE))
        .rehearse(Ledger.NONE, Progress.NONE);
  }

  private static void assertCounts(
      RunReport report, int added, int changed, int unchanged, int skipped, int rejected) {
    RunReport.DestinationReport vessel = report.destinations().get(0);
    assertThat(
            List.of(
                vessel.added(),
                vessel.changed(),
                vessel.unchanged(),
                vessel.skipped(),
                vessel.rejected()))
        .containsExactly(
            (long) added, (long) changed, (long) unchanged, (long) skipped, (long) rejected);
  }

  /** Problems and questions by field and code. */
  private static Map<String, Long> rowsByCause(RunReport report) {
    Map<String, Long> rows =
        report.problems().stream()
            .collect(
                Collectors.toMap(
                    p -> p.field() + " " + p.code().word(), RunReport.ProblemGroup::rows));
    report
        .questions()
        .forEach(q -> rows.merge(q.field() + " " + q.code().word(), q.rows(), Long::sum));
    return rows;
  }

  private static RunReport.ControlTotal total(RunReport report, String field) {
    return report.controlTotals().stream()
        .filter(t -> t.field().equals(field))
        .findFirst()
        .orElse(new RunReport.ControlTotal("", field, BigDecimal.ZERO, null, BigDecimal.ZERO));
  }
}
