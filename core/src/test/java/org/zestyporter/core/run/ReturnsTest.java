package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.zip.ZipFile;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.source.Correction;
import org.zestyporter.core.source.FileChange;
import org.zestyporter.core.source.ReturnTitles;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.TestTables;
import org.zestyporter.core.source.reading.CellFormat;
import org.zestyporter.core.source.reading.ColumnShape;
import org.zestyporter.core.source.reading.Pick;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.ReadingBuilder;
import org.zestyporter.core.source.reading.SheetInfo;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** The rejected rows of a run as a file, and what it is when it comes back. */
class ReturnsTest {
  private static final RunContext CONTEXT =
      new RunContext("odile", LocalDateTime.of(2026, 11, 23, 9, 0), "harvest.csv");

  /** A heading, a pick, titles, two sections, grouped cells; and in the rows what goes wrong. */
  private static final String HARVEST =
      "Harvest list;;;;\nOrchard:;Hillside;;;\n\nTree;Grade;Picked;Kilos;Note\n"
          + "Upper field;;;;\nT-1;first;01.09.2026;12,5;\nT-2;;02.09.2026;tons;two, or three\n"
          + "T-3;;31.09.2026;9;\"says \"\"fine\"\"\"\nLower field;;;;\n"
          + "T-4;second;03.09.2026;7;\nT-5;;04.09.2026;8;=1+1\nT-6;rotten;05.09.2026;5;é\n";

  @TempDir Path folder;

  private static void schema(Databases.Fresh on) throws SQLException {
    on.execute(
        "CREATE TABLE harvest (tree VARCHAR(10) PRIMARY KEY, field VARCHAR(20),"
            + " grade VARCHAR(10) CHECK (grade IN ('first', 'second')), picked DATE,"
            + " kilos NUMERIC(8,2) NOT NULL, orchard VARCHAR(20))");
  }

  private static Plan plan(List<Correction> corrections) {
    Reading reading =
        ReadingBuilder.builder()
            .section("Field")
            .fillDown(List.of("Grade"))
            .picks(List.of(new Pick("Orchard", "B", 2, "Orchard:")))
            .build();
    List<Fill> fills =
        List.of(
            Fill.of("tree", Origin.column("Tree")),
            Fill.of("field", Origin.column("Field")),
            Fill.of("grade", Origin.column("Grade")),
            Fill.of("picked", Origin.column("Picked"), Step.of(StepKind.READ_DATE)),
            Fill.of("kilos", Origin.column("Kilos"), Step.of(StepKind.READ_NUMBER)).rejectBlank(),
            Fill.of("orchard", Origin.column("Orchard")));
    MatchKey key = new MatchKey(List.of("tree"), List.of());
    Destination harvest = new Destination("harvest", fills, List.of(key), null);
    return new Plan("Harvest", null, reading, List.of(harvest), null).withCorrections(corrections);
  }

  private RunReport run(Databases.Fresh on, Plan plan, Path file, String number, Returns[] into)
      throws IOException {
    try (SourceTable source =
        SourceReader.open(file, folder.resolve("cells" + number), plan.reading())) {
      OpenedPlan opened = new OpenedPlan(on.database(), source, plan, CONTEXT, Shared.NONE);
      Returns returns = new Returns(opened, "Run " + number);
      Fates ledger = new Fates();
      RunReport report = new Pipeline(opened).run(number, ledger, Progress.NONE);
      ledger.entries.forEach(e -> returns.add(0, e));
      into[0] = returns;
      bytes.reset();
      returns.write(bytes, format);
      return report;
    }
  }

  private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
  private Returns.Format format = Returns.Format.CSV;

  private Path written(String name) throws IOException {
    return Files.write(folder.resolve(name), bytes.toByteArray());
  }

  /** Corrected and brought back it is read by the same plan, and only its rows are taken in. */
  @ParameterizedTest
  @EnumSource(Returns.Format.class)
  void whatComesBackGoesThroughTheSamePlan(Returns.Format as) throws SQLException, IOException {
    format = as;
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      Path file = Files.writeString(folder.resolve("harvest.csv"), HARVEST);
      Returns[] returns = new Returns[1];
      List<ColumnShape> shapes;
      try (SourceTable table =
          SourceReader.open(file, folder.resolve("first"), plan(List.of()).reading())) {
        shapes = FileChange.shape(table);
      }
      RunReport first = run(on, plan(List.of()), file, "2026-0003", returns);
      assertThat(first.destinations().get(0).added()).isEqualTo(3);
      assertThat(returns[0].size()).isEqualTo(3);

      Path back = written("back." + as.name().toLowerCase(java.util.Locale.ROOT));
      Plan plan = plan(List.of());
      try (SourceTable table = SourceReader.open(back, folder.resolve("back"), plan.reading())) {
        assertThat(table.columns())
            .containsExactly(
                "Tree",
                "Grade",
                "Picked",
                "Kilos",
                "Note",
                "Why it was not taken",
                "Line of Run 2026-0003",
                "Orchard",
                "Field");
        assertThat(ReturnTitles.runOf(table.columns())).isEqualTo("Run 2026-0003");
        // nothing in it is told as another file's
        assertThat(FileChange.compare(shapes, table)).isEmpty();
        assertThat(TestTables.rows(table))
            .containsExactly(
                "T-2|first|02.09.2026|tons|two, or three|"
                    + "kilos: “tons” no number in it|7|Hillside|Upper field",
                "T-3|first|31.09.2026|9|says \"fine\"|"
                    + "picked: “31.09.2026” no such day|8|Hillside|Upper field",
                "T-6|rotten|05.09.2026|5|é|"
                    + "grade: “rotten” not one of first, second|12|Hillside|Lower field");
      }
      // corrected by other lines, which would hold in the first file only
      List<Correction> mended =
          List.of(
              new Correction(6, "Kilos", "tons", "21"),
              new Correction(7, "Picked", "31.09.2026", "30.09.2026"));
      Returns[] again = new Returns[1];
      RunReport second = run(on, plan(mended), back, "2026-0004", again);
      assertThat(second.destinations().get(0).added()).isEqualTo(2);
      assertThat(on.one("SELECT field FROM harvest WHERE tree = 'T-3'")).isEqualTo("Upper field");
      assertThat(on.one("SELECT grade FROM harvest WHERE tree = 'T-2'")).isEqualTo("first");
      // the returns of returns
      assertThat(again[0].size()).isEqualTo(1);
      try (SourceTable table =
          SourceReader.open(written("again"), folder.resolve("again-cells"), plan.reading())) {
        assertThat(table.columns())
            .contains("Line of Run 2026-0004")
            .doesNotContain("Line of Run 2026-0003");
        assertThat(ReturnTitles.runOf(table.columns())).isEqualTo("Run 2026-0004");
      }
    }
  }

  @Test
  void aTextFileKeepsItsDelimiterAndItsEncoding() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      Charset western = Charset.forName("windows-1252");
      Path file = Files.write(folder.resolve("harvest.csv"), HARVEST.getBytes(western));
      run(on, plan(List.of()), file, "2026-0003", new Returns[1]);
      String text = bytes.toString(western);
      assertThat(text).contains("T-6;rotten;05.09.2026;5;é;").contains("\"says \"\"fine\"\"\"");
      assertThat(bytes.toString(StandardCharsets.UTF_8)).doesNotContain("é");
    }
  }

  @Test
  void theWorkbookMarksWhatFailsAndOffersTheChoices() throws SQLException, IOException {
    format = Returns.Format.XLSX;
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      Path file = Files.writeString(folder.resolve("harvest.csv"), HARVEST);
      run(on, plan(List.of()), file, "2026-0003", new Returns[1]);
      Map<String, String> parts = parts(written("back.xlsx"));
      String sheet = parts.get("xl/worksheets/sheet1.xml");
      assertThat(parts.get("xl/comments1.xml")).contains("no number in it");
      assertThat(parts.get("xl/workbook.xml")).contains("state=\"hidden\"");
      assertThat(sheet).contains("<dataValidation ").contains("'choices'!$A$1:$A$2");
      assertThat(parts.get("xl/styles.xml")).contains("FAE0E4");
    }
  }

  /** What a link knows is offered as well, if it is not too much. */
  @Test
  void theWorkbookOffersWhatALinkKnows() throws SQLException, IOException {
    format = Returns.Format.XLSX;
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE TABLE picker (id INTEGER PRIMARY KEY, name VARCHAR(40) NOT NULL)",
          "INSERT INTO picker VALUES (2, 'Nerea Lasa'), (1, 'Ane Lasa')",
          "CREATE TABLE crate (nr INTEGER PRIMARY KEY, picker INTEGER REFERENCES picker (id),"
              + " other INTEGER REFERENCES picker (id))");
      Path file = Files.writeString(folder.resolve("crates.csv"), "Nr,Who,Other\n1,Lire Lasa,\n");
      Origin.Link byName = new Origin.Link("name", List.of(), Origin.WhenMissing.REJECT);
      Destination crates =
          new Destination(
              "crate",
              List.of(
                  Fill.of("nr", Origin.column("Nr"), Step.of(StepKind.READ_NUMBER)),
                  Fill.of("picker", Origin.linked("Who", byName)),
                  Fill.of("other", Origin.linked("Other", byName))),
              List.of(new MatchKey(List.of("nr"), List.of())),
              null);
      Plan plan = new Plan("Crates", null, Reading.FIND, List.of(crates), null);
      run(on, plan, file, "2026-0003", new Returns[1]);
      Map<String, String> few = parts(written("few.xlsx"));
      assertThat(few.get("xl/worksheets/sheet1.xml")).contains("'choices'!$A$1:$A$2");
      assertThat(few.get("xl/sharedStrings.xml")).containsSubsequence("Ane Lasa", "Nerea Lasa");
      for (int id = 3; id <= 501; id++) {
        on.execute("INSERT INTO picker VALUES (" + id + ", 'Picker " + id + "')");
      }
      run(on, plan, file, "2026-0004", new Returns[1]);
      Map<String, String> many = parts(written("many.xlsx"));
      assertThat(many.get("xl/worksheets/sheet1.xml")).doesNotContain("dataValidation");
    }
  }

  /** Numbers and days are shown as they were, and read as they were. */
  @Test
  void theWorkbookKeepsTheFormatsOfItsColumns() throws SQLException, IOException {
    format = Returns.Format.XLSX;
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      Path file = folder.resolve("harvest.xlsx");
      try (OutputStream out = Files.newOutputStream(file);
          Workbook book = new Workbook(out, "test", "1.0")) {
        Worksheet sheet = book.newWorksheet("Lese");
        String[] titles = {"Tree", "Grade", "Picked", "Kilos"};
        sheet.value(0, 1, LocalDate.of(2026, 9, 30));
        sheet.style(0, 1).format("mmmm yyyy").set();
        for (int c = 0; c < titles.length; c++) {
          sheet.value(2, c, titles[c]);
        }
        for (int r = 0; r < 6; r++) {
          sheet.value(3 + r, 0, "T-" + r);
          sheet.value(3 + r, 1, r % 2 == 0 ? "first" : "rotten");
          sheet.value(3 + r, 2, LocalDate.of(2026, 9, 1 + r));
          sheet.style(3 + r, 2).format(r == 5 ? "yyyy" : "dd\\.mm\\.yyyy").set();
          sheet.value(3 + r, 3, 1000.5 + r);
          sheet.style(3 + r, 3).format("#,##0.000").set();
        }
      }
      Plan plan = plan(List.of()).withReading(Reading.FIND);
      List<Fill> fills =
          plan.destinations().get(0).fills().stream()
              .filter(f -> !List.of("field", "orchard").contains(f.field()))
              .toList();
      Plan simple = plan.withDestinations(List.of(plan.destinations().get(0).withFills(fills)));
      RunReport report = run(on, simple, file, "2026-0003", new Returns[1]);
      assertThat(report.destinations().get(0).rejected()).isEqualTo(3);
      Path back = written("back.xlsx");
      String styles = parts(back).get("xl/styles.xml");
      assertThat(styles)
          .contains("dd\\.mm\\.yyyy")
          .contains("#,##0.000")
          .doesNotContain("\"yyyy\"");
      try (SourceTable table = SourceReader.open(back, folder.resolve("back"), Reading.FIND)) {
        assertThat(table.formats())
            .contains(
                new CellFormat(2, true, "dd\\.mm\\.yyyy"), new CellFormat(3, false, "#,##0.000"));
      }
      RunReport again = run(on, simple, back, "2026-0004", new Returns[1]);
      assertThat(again.read()).isEqualTo(3);
      assertThat(again.destinations().get(0).rejected()).isEqualTo(3);
    }
  }

  /** Each row stands on its sheet again, under the titles there; text names the sheets instead. */
  @ParameterizedTest
  @EnumSource(Returns.Format.class)
  void rowsOfSeveralSheetsStandOnTheirOwn(Returns.Format as) throws SQLException, IOException {
    format = as;
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      Path file = folder.resolve("harvest.xlsx");
      List<String> names = List.of("North", "East & West", "South");
      try (OutputStream out = Files.newOutputStream(file);
          Workbook book = new Workbook(out, "test", "1.0")) {
        for (String name : names) {
          Worksheet sheet = book.newWorksheet(name);
          // each has another heading; the titles stand a line lower in the last
          int at = name.equals("South") ? 2 : 1;
          sheet.value(0, 0, "Harvest of the " + name);
          for (int c = 0; c < 3; c++) {
            sheet.value(at, c, List.of("Tree", "Grade", "Kilos").get(c));
          }
          for (int r = 1; r <= 3; r++) {
            sheet.value(at + r, 0, name.charAt(0) + "-" + r);
            sheet.value(at + r, 1, r == 2 && !name.equals("North") ? "rotten" : "first");
            sheet.value(at + r, 2, r + 0.5);
          }
        }
      }
      List<Fill> fills =
          List.of(
              Fill.of("tree", Origin.column("Tree")),
              Fill.of("grade", Origin.column("Grade")),
              Fill.of("kilos", Origin.column("Kilos"), Step.of(StepKind.READ_NUMBER)),
              Fill.of("orchard", Origin.column("Sheet")));
      Plan plan =
          plan(List.of())
              .withReading(Reading.FIND.withSheets(names))
              .withDestinations(List.of(plan(List.of()).destinations().get(0).withFills(fills)));
      RunReport first = run(on, plan, file, "2026-0003", new Returns[1]);
      assertThat(first.destinations().get(0).rejected()).isEqualTo(2);
      Path back = written("back." + as.name().toLowerCase(Locale.ROOT));
      if (as == Returns.Format.XLSX) {
        try (SourceTable opened = SourceReader.open(back, folder.resolve("b"), Reading.FIND)) {
          // one who opens it meets rows
          assertThat(opened.reading().sheet()).isEqualTo("East & West");
          assertThat(opened.rowCount()).isEqualTo(1);
          assertThat(opened.sheets()).extracting(SheetInfo::name).containsAll(names);
        }
      } else {
        assertThat(Files.readString(back)).contains("S-2,rotten,2.5,South,\"grade: ");
      }
      Reading again = as == Returns.Format.XLSX ? plan.reading() : Reading.FIND;
      try (SourceTable table = SourceReader.open(back, folder.resolve("c"), again)) {
        assertThat(ReturnTitles.runOf(table.columns())).isEqualTo("Run 2026-0003");
      }
      on.execute("ALTER TABLE harvest DROP COLUMN grade");
      Destination mended =
          plan.destinations().get(0).withFills(List.of(fills.get(0), fills.get(2), fills.get(3)));
      RunReport second =
          run(
              on,
              plan.withReading(again).withDestinations(List.of(mended)),
              back,
              "2026-0004",
              new Returns[1]);
      assertThat(second.read()).isEqualTo(2);
      assertThat(on.rows("SELECT tree, orchard, kilos FROM harvest WHERE tree IN ('E-2', 'S-2')"))
          .containsExactlyInAnyOrder("E-2;East & West;2.50;", "S-2;South;2.50;");
    }
  }

  private static Map<String, String> parts(Path file) throws IOException {
    Map<String, String> parts = new java.util.HashMap<>();
    try (ZipFile zip = new ZipFile(file.toFile())) {
      for (var entries = zip.entries(); entries.hasMoreElements(); ) {
        var entry = entries.nextElement();
        parts.put(
            entry.getName(),
            new String(zip.getInputStream(entry).readAllBytes(), StandardCharsets.UTF_8));
      }
    }
    return parts;
  }

  /** What the plan corrects is corrected in the file as well, and a word for blank stays a word. */
  @Test
  void cellsStandAsTheyWereRead() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      String text = HARVEST.replace("two, or three", "n/a");
      Path file = Files.writeString(folder.resolve("harvest.csv"), text);
      List<Correction> one = List.of(new Correction(7, "Picked", "02.09.2026", "03.09.2026"));
      run(on, plan(one), file, "2026-0003", new Returns[1]);
      assertThat(bytes.toString(StandardCharsets.UTF_8)).contains("T-2;first;03.09.2026;tons;n/a;");
    }
  }
}
