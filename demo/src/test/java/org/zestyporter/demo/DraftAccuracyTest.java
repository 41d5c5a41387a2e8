package org.zestyporter.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.draft.ProposedTable;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.OriginForm;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;

/** What is proposed for each file of the office, before anybody corrects a fill. */
class DraftAccuracyTest {
  @TempDir static Path folder;
  private static Connection builder;
  private static Database database;

  @BeforeAll
  static void build() throws SQLException, IOException {
    String url = "jdbc:h2:mem:" + UUID.randomUUID() + ";DB_CLOSE_DELAY=-1;DATABASE_TO_LOWER=TRUE";
    database = Database.connect(url, "sa", "");
    builder = DriverManager.getConnection(url, "sa", "");
    Marina marina = Marina.open();
    marina.build(builder);
    marina.arrivals().writeWorkbook(folder.resolve("winter-arrivals.xlsx"));
    marina.officeFiles().write(folder);
  }

  @AfterAll
  static void close() throws SQLException {
    builder.close();
  }

  /** A file read as proposed at the Read stop, with its picks and its fold. */
  private static SourceTable open(String name) throws IOException {
    Path file = folder.resolve(name);
    Path cells = folder.resolve(name + ".cells");
    Reading wanted = Reading.FIND;
    try (SourceTable table = SourceReader.open(file, cells, wanted)) {
      var found = table.proposals();
      wanted =
          wanted.with(
              b ->
                  b.picks(found.picks().isEmpty() ? null : found.picks())
                      .fold(found.fold())
                      .fillDown(found.fillDown().isEmpty() ? null : found.fillDown()));
    }
    return SourceReader.open(file, cells, wanted);
  }

  private static Map<String, String> draft(SourceTable source, String table) {
    Map<String, String> drafted = new LinkedHashMap<>();
    List<Fill> fills =
        new PlanDraft(database, source).draft(database.table(table)).destination().fills();
    for (Fill fill : fills) {
      Origin origin = fill.origin();
      OriginForm form = origin.form();
      String from =
          form.column() != null
              ? form.column()
              : form.template() != null ? form.template() : form.generator().word();
      drafted.put(fill.field(), origin.link() == null ? from : from + " > " + origin.link().by());
    }
    return drafted;
  }

  /**
   * All that is proposed is right. Left to the person, because nothing in the file says it: the
   * vessels' status, when an owner became a member, an address' kind and postcode, the day of a
   * reading (the file has months), and which of two prices holds.
   */
  /** Each of the office's files is worth a proposal; the best is the table that it is meant for. */
  @ParameterizedTest
  @CsvSource({
    "winter-arrivals.xlsx, vessel",
    "december-arrivals.csv, vessel",
    "owners-export.csv, owner",
    "tariffs-spring.ods, tariff",
    "contracts.tsv, berth_contract",
    "winterlager.xlsx, vessel",
    "harbour-app.json, vessel"
  })
  void theRightTableIsProposed(String file, String table) throws IOException {
    try (SourceTable source = open(file)) {
      int columns = source.columns().size();
      List<ProposedTable> worth =
          new PlanDraft(database, source)
              .rank().stream().filter(p -> p.takesEnoughOf(columns)).toList();
      assertThat(worth).isNotEmpty();
      assertThat(worth.get(0).destination().table()).isEqualTo(table);
    }
  }

  @ParameterizedTest(name = "{0} for {1}")
  @CsvSource(
      delimiter = '|',
      value = {
        "winter-arrivals.xlsx | vessel |"
            + " registration=Reg No; name=Boat name; type_id=Kind > name; length_m=LOA (ft); beam_m=Beam (ft); owner_id=Owner e-mail > email; berth_id=Berth > label; arrived_on=Arrives; insured_until=Insured until; notes=Notes; created_by=who",
        "december-arrivals.csv | vessel |"
            + " registration=Reg No; name=Boat name; type_id=Kind > name; length_m=LOA (ft); beam_m=Beam (ft); owner_id=Owner mail > email; berth_id=Berth > label; arrived_on=Arrives; insured_until=Insured until; created_by=who",
        "owners-export.csv | owner |"
            + " given_name=Given name; family_name=Family name; email=E-mail; phone=Phone; credit_limit=Credit limit",
        "owners-export.csv | owner_address |"
            + " owner_id=E-mail > email; street=Postal street; town=Postal town",
        "meter-round-2026.xlsx | meter_reading |" + " meter_id=Meter > number; kwh=Value",
        "tariffs-spring.ods | tariff |" + " code=Code; name=Kind",
        "contracts.tsv | berth_contract |"
            + " number=Contract; vessel_id=Vessel > registration; berth_id=Berth > label; tariff_id=Tariff > code; starts_on=Starts on; ends_on=Ends on",
        "winterlager.xlsx | vessel |"
            + " registration=Boot Kennz.; name=Bootsname; type_id=Boot Typ > name; length_m=Maße Lüa; beam_m=Maße Breite; owner_id=Eigner E-Mail > email; berth_id=Lager Liegeplatz > label; arrived_on=Lager Ankunft; created_by=who",
        "harbour-app.json | vessel |"
            + " registration=registration; name=name; type_id=kind > name; length_m=size.length; beam_m=size.beam; owner_id=owner.email > email; created_by=who"
      })
  void fieldsAreFilledFromTheColumnsThatAreMeant(String file, String table, String expected)
      throws IOException {
    try (SourceTable source = open(file)) {
      List<String> drafted =
          draft(source, table).entrySet().stream()
              .map(e -> e.getKey() + "=" + e.getValue())
              .toList();
      assertThat(drafted).containsExactly(expected.split("; "));
    }
  }
}
