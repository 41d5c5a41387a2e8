package org.zestyporter.core.fill;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.formula.FormulaException;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.preview.StageTable;
import org.zestyporter.core.preview.Trials;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.source.Correction;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Comparison.Ignore;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/** Where values come from, and how the stages of several columns are shown. */
class OriginsTest {
  private static final RunContext CONTEXT =
      new RunContext("odile", LocalDateTime.of(2026, 11, 23, 9, 0), "people.csv", "2026-0007");

  @TempDir Path folder;
  private Databases.Fresh on;
  private TableInfo person;
  private SourceTable source;

  @BeforeEach
  void open() throws SQLException, IOException {
    on = Databases.h2();
    on.execute(
        "CREATE TABLE town (id INTEGER PRIMARY KEY, name VARCHAR(20), land VARCHAR(20))",
        "INSERT INTO town VALUES (1, 'Perth', 'Scotland'), (2, 'Perth', 'Australia'),"
            + " (3, 'Oban', 'Scotland')",
        "CREATE TABLE person (id INTEGER PRIMARY KEY, name VARCHAR(40), kind VARCHAR(10) CHECK"
            + " (kind IN ('sail', 'motor')), town_id INTEGER REFERENCES town (id), code"
            + " VARCHAR(40), paid NUMERIC(8,2))",
        "INSERT INTO person (id, code) VALUES (1, 'Q-0041'), (2, 'Q-x'), (3, 'R-900')");
    person = on.database().table("person");
    Path file = folder.resolve("people.csv");
    Files.writeString(
        file,
        """
        First;Last;Kind;Town;Land;Paid
        Ann;Lee;sail;Perth;Scotland;1,5
        Bo;;motor;Perth;Australia;2
        ;Kay;Yawl;Oban;Scotland;x
        Ann;Lee;sail;Perth;;
        Cy;May;sail;Rome;Italy;4
        """);
    source = SourceReader.open(file, folder.resolve("cells"), Reading.FIND);
  }

  @AfterEach
  void close() throws SQLException {
    source.close();
    on.close();
  }

  private static final Destination PERSON = new Destination("person", List.of(), null, null);

  private OpenedPlan opened(Phrasebook... books) {
    Plan plan =
        new Plan("people", null, null, List.of(PERSON), null).withPhrasebooks(List.of(books));
    return new OpenedPlan(on.database(), source, plan, CONTEXT, Shared.NONE);
  }

  private CompiledFill compile(Fill fill) {
    return opened().fill(PERSON, fill);
  }

  private List<String> values(Fill fill) {
    CompiledFill compiled = compile(fill);
    FilledColumn column = new FillColumns(compiled).of(source.batch(0));
    return java.util.stream.IntStream.range(0, (int) source.rowCount())
        .mapToObj(column::filled)
        .map(
            f ->
                f.problem() != null
                    ? f.problem().code().word() + (f.question() ? "?" : "")
                    : String.valueOf(Values.text(f.value())))
        .toList();
  }

  @Test
  void columnsAreJoinedWithoutStraySigns() {
    assertThat(values(Fill.of("name", Origin.joined("[Last], [First] ([Town])"))))
        .containsExactly(
            "Lee, Ann (Perth)", "Bo (Perth)", "Kay (Oban)", "Lee, Ann (Perth)", "May, Cy (Rome)");
    assertThat(values(Fill.of("name", Origin.joined("[First] [Last]"))))
        .containsExactly("Ann Lee", "Bo", "Kay", "Ann Lee", "Cy May");
    assertThat(values(Fill.of("name", Origin.joined("[First] ([Last]) [Town]"))))
        .startsWith("Ann (Lee) Perth", "Bo Perth", "Kay) Oban");
    assertThat(values(Fill.of("name", Origin.joined("[first] [gone"))).get(0))
        .isEqualTo("Ann [gone");
    assertThatThrownBy(() -> compile(Fill.of("name", Origin.joined("[First] [Gone]"))))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining("no column “Gone”");
  }

  @Test
  void formulasComputeFromAnyColumns() {
    Fill fill =
        Fill.of(
            "paid",
            Origin.formula("IF([Kind]=\"sail\"; [Paid] * 2; 0)"),
            Step.of(StepKind.ROUND, "places", "1"));
    assertThat(values(fill)).containsExactly("3.00", "0.00", "0.00", "null", "8.00");
    assertThat(values(Fill.of("paid", Origin.formula("[Paid] + 1"))))
        .containsExactly("2.50", "3.00", "not-a-number", "null", "5.00");
    assertThatThrownBy(() -> compile(Fill.of("paid", Origin.formula("[Paid] +"))))
        .isInstanceOf(FormulaException.class);
  }

  @Test
  void stagesOfSeveralColumnsStandOnceForEachCombination() {
    CompiledFill fill = compile(Fill.of("paid", Origin.formula("[Paid] + LEN([Kind])")));
    StageTable table = StageTable.of(fill, source, 0, 10);
    assertThat(table.columns()).containsExactly("Kind", "Paid");
    assertThat(table.distinct()).isEqualTo(5);
    assertThat(table.troubledRows()).isEqualTo(1);
    assertThat(table.rows().get(0).trace().cells()).containsExactly("Yawl", "x");
    assertThat(table.rows().get(0).trace().stoppedAt()).isZero();
    assertThat(table.rows().get(1).trace().origin()).isEqualTo("5.5");
    StageTable joined =
        StageTable.of(compile(Fill.of("name", Origin.joined("[First] [Last]"))), source, 0, 10);
    assertThat(joined.rows().get(0).rows()).isEqualTo(2);
    assertThat(joined.rows().get(0).line()).isEqualTo(2);
  }

  @Test
  void stepsMayReadOtherColumnsAndTheValueSoFar() {
    assertThat(
            values(
                Fill.of(
                    "name",
                    Origin.column("First"),
                    Step.of(StepKind.OR_COLUMN, "column", "Last"),
                    Step.of(StepKind.JOIN, "column", "Town", "between", " of "),
                    Step.of(StepKind.FORMULA, "formula", "UPPER([value]) & LEN([Kind])"))))
        .containsExactly(
            "ANN OF PERTH4", "BO OF PERTH5", "KAY OF OBAN4", "ANN OF PERTH4", "CY OF ROME4");
  }

  @Test
  void numbersGoOnFromRowToRow() {
    assertThat(values(Fill.of("code", Origin.series(new Origin.Series(7L, 5L, "A", 3)))))
        .containsExactly("A007", "A012", "A017", "A022", "A027");
    assertThat(values(Fill.of("id", Origin.series(new Origin.Series(null, null, null, null)))))
        .containsExactly("4", "5", "6", "7", "8");
    assertThat(values(Fill.of("code", Origin.series(new Origin.Series(null, 1L, "Q-", 4)))))
        .startsWith("Q-0042", "Q-0043");
    assertThat(values(Fill.of("id", Origin.generated(Origin.Generator.ROW))))
        .containsExactly("1", "2", "3", "4", "5");
    assertThat(values(Fill.of("id", Origin.generated(Origin.Generator.LINE)))).startsWith("2", "3");
    assertThat(values(Fill.of("code", Origin.generated(Origin.Generator.RUN))))
        .containsOnly("2026-0007");
  }

  @Test
  void identifiersDifferFromRowToRowAndAreTheSameWhenComputedAgain() {
    Fill fill = Fill.of("code", Origin.generated(Origin.Generator.UUID));
    List<String> first = values(fill);
    assertThat(first).doesNotHaveDuplicates().isEqualTo(values(fill));
    assertThat(first)
        .allMatch(
            v -> v.matches("[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}"));
  }

  @Test
  void linksAreFoundBySeveralFields() {
    Origin.Link link =
        new Origin.Link(
            "name",
            List.of(new Origin.Also("land", "Land")),
            List.of(Ignore.CASE),
            Origin.WhenMissing.ASK,
            null);
    assertThat(values(Fill.of("town_id", Origin.linked("Town", link))))
        .containsExactly("1", "2", "3", "unknown-link?", "unknown-link?");
    Origin.Link byName = new Origin.Link("name", null, List.of(), Origin.WhenMissing.REJECT, null);
    assertThat(values(Fill.of("town_id", Origin.linked("Town", byName))))
        .containsExactly("several-links", "several-links", "3", "several-links", "unknown-link");
  }

  @Test
  void linksAreFoundByWhatAFormulaOrAFixedValueGives() {
    Origin.Link link = new Origin.Link("name", null, null, null, null);
    Origin formula =
        new Origin.Linked(Origin.formula("IF([Kind]=\"sail\"; \"Oban\"; \"Rome\")"), link);
    assertThat(values(Fill.of("town_id", formula)))
        .containsExactly("3", "unknown-link", "unknown-link", "3", "3");
    assertThat(values(Fill.of("town_id", new Origin.Linked(Origin.fixed("Oban"), link))))
        .containsOnly("3");
  }

  @Test
  void unknownChoicesAreQuestionsIfThePlanAsks() {
    Fill fill = Fill.of("kind", Origin.column("Kind")).withWhenBad(Fill.WhenBad.ASK);
    assertThat(values(fill)).containsExactly("sail", "motor", "unknown-choice?", "sail", "sail");
    StageTable table = StageTable.of(compile(fill), source, 0, 9);
    assertThat(table.questions()).isEqualTo(1);
    assertThat(table.rows().get(0).trace().question()).isTrue();
    assertThat(values(fill.withWhenBad(Fill.WhenBad.REJECT))).contains("unknown-choice");
  }

  @Test
  void defaultsForBlanksAreCounted() {
    Fill fill =
        Fill.of("paid", Origin.column("Paid"), Step.of(StepKind.READ_NUMBER))
            .withWhenBlank(Fill.WhenBlank.DEFAULT)
            .withDefaultValue("9");
    StageTable table = StageTable.of(compile(fill), source, 0, 9);
    assertThat(table.noted()).isEqualTo(1);
    StageTable.Row blank =
        table.rows().stream().filter(r -> r.trace().origin().isEmpty()).findFirst().orElseThrow();
    assertThat(blank.trace().result()).isEqualTo("9.00");
    assertThat(blank.trace().problem().code()).isEqualTo(ProblemCode.DEFAULTED);
  }

  @Test
  void cutTextsAreCounted() {
    Fill fill = Fill.of("name", Origin.column("Town"), Step.of(StepKind.CUT, "length", "4"));
    StageTable table = StageTable.of(compile(fill), source, 0, 9);
    assertThat(table.noted()).as("three rows of Perth").isEqualTo(3);
    assertThat(table.troubled()).isZero();
  }

  @Test
  void correctedCellsAreReadInsteadUntilTheFileChanges() {
    SourceTable corrected =
        source.corrected(
            List.of(
                new Correction(4, "Paid", "x", "7,5"),
                new Correction(5, "Town", "Paris", "Oban"),
                new Correction(99, "Town", "Perth", "Oban")));
    assertThat(corrected.lapsed()).extracting(Correction::line).containsExactly(5L, 99L);
    assertThat(corrected.batch(0).columns()[5].cell(2).text()).isEqualTo("7,5");
    assertThat(source.batch(0).columns()[5].cell(2).text()).isEqualTo("x");
    assertThat(corrected.cells(0, 5).cell(2).text()).isEqualTo("7,5");
    assertThat(texts(corrected)).containsEntry("7,5", 1L).doesNotContainKey("x");
    assertThat(texts(source)).containsKey("x");
  }

  private static Map<String, Long> texts(SourceTable table) {
    return table.distinct(5).tallies().entrySet().stream()
        .collect(Collectors.toMap(e -> e.getKey().text(), e -> e.getValue().rows()));
  }

  @Test
  void stepsAreRankedByTheRowsTheyFree() {
    Fill fill = Fill.of("kind", Origin.column("Kind")).withWhenBad(Fill.WhenBad.ASK);
    Phrasebook book = new Phrasebook("Kinds", List.of(new Phrasebook.Phrase("yawl", "sail")));
    OpenedPlan opened = opened(book);
    Trials trials = new Trials(opened.compiler(), opened.fillForTrials(PERSON, fill), source);
    List<Trials.Trial> ranked = trials.rank(-1, List.of("Kinds"));
    assertThat(ranked.get(0).step().kind()).isEqualTo(StepKind.TRANSLATE);
    assertThat(ranked.get(0).frees()).isEqualTo(1);
    assertThat(ranked.get(0).before()).isEqualTo("Yawl");
    assertThat(ranked.get(0).after()).isEqualTo("sail");
    assertThat(ranked.get(0).freed()).containsExactly("Yawl");
    assertThat(ranked).extracting(t -> t.step().kind()).doesNotHaveDuplicates();
    Trials.Trial upper =
        ranked.stream().filter(t -> t.step().kind() == StepKind.PHONE).findFirst().orElseThrow();
    assertThat(upper.breaks()).isEqualTo(4);
  }

  @ParameterizedTest
  @CsvSource({
    "paid,Paid,READ_NUMBER",
    "town_id,Town,TRIM",
  })
  void rankedStepsComeWithAPlaceAmongTheSteps(String field, String column, StepKind kept) {
    Fill fill =
        field.equals("paid")
            ? Fill.of(field, Origin.column(column), Step.of(kept))
            : Fill.of(field, Origin.link(column, "name"), Step.of(kept));
    OpenedPlan opened = opened();
    List<Trials.Trial> ranked =
        new Trials(opened.compiler(), opened.fillForTrials(PERSON, fill), source)
            .rank(-1, List.of());
    assertThat(ranked).allMatch(t -> t.at() >= 0 && t.at() <= 1);
    Trials.Trial blank =
        ranked.stream()
            .filter(t -> t.step().kind() == StepKind.BLANK_WHEN)
            .findFirst()
            .orElseThrow();
    assertThat(blank.frees()).isPositive();
    assertThat(blank.doubtful()).isTrue();
  }
}
