package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.LinkInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.ToldLink;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanCheck;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** Links that neither the database nor a name tells, but somebody who knows the application. */
class ToldLinkTest {
  private static final List<ToldLink> LINKS =
      List.of(
          new ToldLink("deal", "purchaser", "party", null),
          new ToldLink("deal", "broker", "party", null),
          new ToldLink("DEAL", "Follows", "Deal", "number"));

  @TempDir Path folder;

  private static void tables(Databases.Fresh on) throws SQLException {
    on.execute(
        "CREATE TABLE party (pno INTEGER PRIMARY KEY, label VARCHAR(30) NOT NULL,"
            + " agency VARCHAR(8) UNIQUE, rank_of DECIMAL(4, 1))",
        "CREATE TABLE deal (id INTEGER PRIMARY KEY, number VARCHAR(8), purchaser INTEGER,"
            + " broker VARCHAR(8), follows VARCHAR(8), town VARCHAR(20))",
        "INSERT INTO party VALUES (71, 'Ida Brandt', NULL, NULL), (72, 'Oskar Lind', 'OL', NULL),"
            + " (73, 'Mia Holm', 'MH', NULL)");
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void recordsAreLookedUpWhereSomebodySaysThatAFieldPoints(Databases.Fresh on)
      throws SQLException, IOException {
    try (on) {
      tables(on);
      try (SourceTable source =
          Runs.source(
              folder,
              "id,number,Purchaser,Broker,Follows,town",
              "1,D1,Ida Brandt,Mia Holm,,Ulm",
              "2,D2,Oskar Lind,Oskar Lind,1,Bonn",
              "3,D3,Nobody,Mia Holm,2,Jena",
              "4,,Ida Brandt,,,Graz",
              "5,D5,Ida Brandt,,4,Linz")) {
        Database told = on.database().with(LINKS);
        Destination draft = new PlanDraft(told, source).draft(told.table("deal")).destination();
        assertThat(by(draft, "purchaser")).isEqualTo("label");
        assertThat(by(draft, "broker")).isEqualTo("label");
        Destination asked =
            draft.withFills(
                Stream.concat(
                        draft.fills().stream().filter(f -> !f.field().equals("follows")),
                        draft.fills().stream()
                            .filter(f -> f.field().equals("town"))
                            .map(
                                f ->
                                    f.withField("follows")
                                        .withOrigin(Origin.link("Follows", "id"))
                                        .withSteps(List.of())))
                    .toList());
        Plan plan = new Plan("Deals", null, null, List.of(asked), null).withLinks(LINKS);
        OpenedPlan opened = Runs.opened(on, source, plan);
        assertThat(opened.matters(asked)).isEmpty();
        RunReport report = new Pipeline(opened).run("1", Ledger.NONE, Progress.NONE);
        assertThat(report.destinations().get(0).rejected()).isEqualTo(2);
        assertThat(on.rows("SELECT id, purchaser, broker, follows FROM deal ORDER BY id"))
            .containsExactly("1;71;MH;null;", "2;72;OL;D1;", "4;71;null;null;");
      }
    }
  }

  private static String by(Destination draft, String field) {
    return draft.fills().stream()
        .filter(f -> f.field().equals(field))
        .map(f -> f.origin().link().by())
        .findFirst()
        .orElse("no link");
  }

  @Test
  void theyHoldOnlyForWhoTellsThem() throws SQLException {
    try (Databases.Fresh on = Databases.h2()) {
      tables(on);
      Database told = on.database().with(LINKS);
      assertThat(told.table("deal").field("broker").link())
          .isEqualTo(new LinkInfo("party", "agency"));
      assertThat(told.with(LINKS)).isSameAs(told).isSameAs(on.database().with(LINKS));
      assertThat(told.stoppable().table("deal")).isEqualTo(told.table("deal"));
      for (Database other : List.of(on.database(), told.with(List.of()))) {
        TableInfo deal = other.table("deal");
        assertThat(deal.fields()).extracting(FieldInfo::link).containsOnlyNulls();
      }
      on.execute("DROP TABLE deal", "CREATE TABLE deal (broker INTEGER)");
      on.database().forget();
      assertThat(on.database().with(LINKS).table("deal").field("broker").link().keyField())
          .isEqualTo("pno");
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "purchaser; party; agency;" + " purchaser (integer) can't hold agency (character varying).",
        "purchaser; party; nr; party has no field “nr”.",
        "buyer; party; ; deal has no field “buyer” that could hold its key.",
        "town; deal; ; it has no key of one field that town (character varying) could hold."
            + " Say which of its fields that is.",
        "said; party; ; the database says that said points at deal.id.",
        "said; deal; number; the database says that said points at deal.id.",
      })
  void whatCanBeNoLinkIsSaidWithThePlan(String field, String to, String key, String why)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      tables(on);
      on.execute("ALTER TABLE deal ADD COLUMN said INTEGER REFERENCES deal (id)");
      Destination deal = new Destination("deal", List.of(), List.of(), null);
      List<ToldLink> links = List.of(new ToldLink("deal", field, to, key));
      Plan plan = new Plan("Deals", null, null, List.of(deal), null).withLinks(links);
      try (SourceTable source = Runs.source(folder, "id,town", "1,Ulm")) {
        OpenedPlan opened = Runs.opened(on, source, plan);
        assertThat(opened.matters(deal))
            .extracting(PlanCheck.Matter::message)
            .contains("The plan says that " + field + " of deal points at " + to + ", but " + why);
      }
    }
  }

  /** What a link is looked up by, and what a missing record gets, may have gone meanwhile. */
  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "rank; pno; label; town; The table party has no field “rank”.",
        "label; pno; label; Gone; The file has no column “Gone”, which fills label.",
        "label; pno; gone; town; The table party has no field “gone”.",
        "label; pno; label; town; ",
        "label; agency; label; town;"
            + " Records of party can't be created: agency is not its key.",
      })
  void aLinkThatCanNotBeLookedUpKeepsThePlanFromGoingButNotFromOpening(
      String by, String key, String created, String column, String why)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      tables(on);
      String field = "agency".equals(key) ? "broker" : "purchaser";
      List<ToldLink> links = List.of(new ToldLink("deal", field, "party", key));
      Origin.Link link =
          new Origin.Link(
              by,
              null,
              List.of(),
              List.of(),
              Origin.WhenMissing.CREATE,
              List.of(Fill.of(created, Origin.column(column))),
              null);
      Fill fill = Fill.of(field.toUpperCase(Locale.ROOT), Origin.linked("town", link));
      Fill id = Fill.of("id", Origin.column("id"), Step.of(StepKind.READ_NUMBER));
      Destination deal = new Destination("deal", List.of(id, fill), List.of(), null);
      Plan plan = new Plan("Deals", null, null, List.of(deal), null).withLinks(links);
      try (SourceTable source = Runs.source(folder, "id,town", "1,Ulm")) {
        OpenedPlan opened = Runs.opened(on, source, plan);
        assertThat(opened.matters(deal))
            .extracting(PlanCheck.Matter::message)
            .isEqualTo(why == null ? List.of() : List.of(field + ": " + why));
        assertThat(opened.usable(deal)).hasSize(why == null ? 2 : 1);
      }
    }
  }

  @ParameterizedTest
  @CsvSource({"gone,no table “gone”", "'',no table “”"})
  void atATableThatIsNotThereNothingPoints(String to, String why) throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      tables(on);
      Destination deal = new Destination("deal", List.of(), List.of(), null);
      List<ToldLink> links = List.of(new ToldLink("deal", "town", to, null));
      Plan plan = new Plan("Deals", null, null, List.of(deal), null).withLinks(links);
      try (SourceTable source = Runs.source(folder, "id,town", "1,Ulm")) {
        assertThat(Runs.opened(on, source, plan).matters(deal))
            .extracting(PlanCheck.Matter::message)
            .anyMatch(m -> m.contains(why));
      }
    }
  }
}
