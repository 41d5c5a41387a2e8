package org.zestyporter.core.preview;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.FillColumns;
import org.zestyporter.core.fill.FillCompiler;
import org.zestyporter.core.fill.FilledColumn;
import org.zestyporter.core.fill.Phrases;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Comparison.Ignore;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.ProblemCode;

/** The stages that values pass through, and what the plan does with those that fail. */
class StageTableTest {
  private static final RunContext CONTEXT =
      new RunContext("odile", LocalDateTime.of(2026, 11, 23, 9, 0), "boats.csv");

  @TempDir Path folder;
  private Databases.Fresh on;
  private TableInfo boat;
  private SourceTable source;

  @BeforeEach
  void open() throws SQLException, IOException {
    on = Databases.h2();
    on.execute(
        "CREATE TABLE kind (id INTEGER PRIMARY KEY, name VARCHAR(20) NOT NULL)",
        "INSERT INTO kind VALUES (1, 'sloop'), (2, 'ketch'), (3, 'Ketch')",
        "CREATE TABLE boat (id INTEGER PRIMARY KEY, feet NUMERIC(5,2), kind_id INTEGER"
            + " REFERENCES kind (id), note VARCHAR(10), file VARCHAR(20), line INTEGER,"
            + " at TIMESTAMP)");
    boat = on.database().table("boat");
    Path file = folder.resolve("boats.csv");
    Files.writeString(
        file,
        "Feet;Kind;Note\n28,5;sloop;a\n28,5;KETCH;b\ntbc;sloop;\n28,5; sloop ;c\n;yawl;d\n31;sloop;e\n");
    source = SourceReader.open(file, folder.resolve("cells"), Reading.FIND);
  }

  @AfterEach
  void close() throws SQLException {
    source.close();
    on.close();
  }

  private CompiledFill compile(Fill fill) {
    Destination into = new Destination("boat", List.of(), null, null);
    Plan plan = new Plan("boats", null, null, List.of(into), null);
    return new OpenedPlan(on.database(), source, plan, CONTEXT, Shared.NONE).fill(into, fill);
  }

  private StageTable stages(Fill fill) {
    return StageTable.of(compile(fill), source, 0, 100);
  }

  /** A rule over one field stops a value where it is filled, and steps are tried against it. */
  @Test
  void aTablesRuleOfOneFieldIsToldOfEachValue() throws SQLException {
    on.execute(
        "CREATE TABLE tag (id INTEGER PRIMARY KEY, text VARCHAR(10), depth INTEGER,"
            + " CHECK (text NOT LIKE '%ETCH%'), CHECK (text <> 'yawl' OR depth > 1))");
    Fill fill = Fill.of("text", Origin.column("Kind"), Step.of(StepKind.TRIM));
    Destination into = new Destination("tag", List.of(), null, null);
    Plan plan = new Plan("tags", null, null, List.of(into), null);
    OpenedPlan opened = new OpenedPlan(on.database(), source, plan, CONTEXT, Shared.NONE);

    StageTable table = StageTable.of(opened.fill(into, fill), source, 0, 100);
    assertThat(table.troubled()).as("the other rule looks at two fields").isEqualTo(1);
    CompiledFill.Trace first = table.rows().get(0).trace();
    assertThat(first.problem().code()).isEqualTo(ProblemCode.CHECK);
    assertThat(first.problem().value()).isEqualTo("KETCH");
    assertThat(first.problem().reason()).startsWith("it breaks the table's rule").contains("ETCH");

    assertThat(new Trials(opened.compiler(), opened.fill(into, fill), source).rank(-1, List.of()))
        .anySatisfy(
            trial -> {
              assertThat(trial.step().kind()).isEqualTo(StepKind.CASE);
              assertThat(trial.frees()).isEqualTo(1);
            });
  }

  private static Fill feet() {
    return Fill.of(
        "feet",
        Origin.column("Feet"),
        Step.of(StepKind.READ_NUMBER),
        Step.of(StepKind.MULTIPLY, "by", "2"));
  }

  @Test
  void everyDistinctValueStandsOnceTroubledFirstThenByRows() {
    StageTable table = stages(feet());
    assertThat(table.distinct()).isEqualTo(4);
    assertThat(table.troubled()).isEqualTo(1);
    assertThat(table.troubledRows()).isEqualTo(1);
    assertThat(table.rows())
        .extracting(r -> r.trace().origin())
        .containsExactly("tbc", "28,5", "", "31");
    assertThat(table.rows()).extracting(StageTable.Row::rows).containsExactly(1L, 3L, 1L, 1L);
    StageTable.Row first = table.rows().get(0);
    assertThat(first.line()).isEqualTo(4);
    assertThat(first.trace().stoppedAt()).isZero();
    assertThat(first.trace().problem().code()).isEqualTo(ProblemCode.NOT_A_NUMBER);
    StageTable.Row second = table.rows().get(1);
    assertThat(second.trace().steps()).containsExactly("28.5", "57.0");
    assertThat(second.trace().result()).isEqualTo("57.00");
    assertThat(table.altered()).as("31 is read as 31").containsExactly(1, 2);
  }

  @Test
  void stepsThatAreOffArePassedOver() {
    Fill off =
        new Fill(
            "feet",
            Origin.column("Feet"),
            List.of(
                Step.of(StepKind.READ_NUMBER),
                new Step(StepKind.MULTIPLY, java.util.Map.of("by", "2"), true)),
            null,
            null,
            null,
            null,
            false,
            null,
            null,
            null);
    assertThat(stages(off).rows().get(1).trace().result()).isEqualTo("28.50");
    assertThat(stages(off).altered().get(1)).isZero();
  }

  @Test
  void badValuesGoOnOnlyAsThePlanSays() {
    Fill blank =
        new Fill(
            "feet",
            Origin.column("Feet"),
            feet().steps(),
            null,
            null,
            Fill.WhenBad.BLANK,
            null,
            false,
            null,
            null,
            null);
    StageTable.Row tbc = find(stages(blank), "tbc");
    assertThat(tbc.trace().softened()).isTrue();
    assertThat(tbc.trace().result()).isNull();
    assertThat(stages(blank).troubled()).isZero();

    Fill standard =
        new Fill(
            "feet",
            Origin.column("Feet"),
            feet().steps(),
            null,
            null,
            Fill.WhenBad.DEFAULT,
            "9.5",
            false,
            null,
            null,
            null);
    assertThat(find(stages(standard), "tbc").trace().result()).isEqualTo("9.50");

    Fill wrong =
        new Fill(
            "feet",
            Origin.column("Feet"),
            feet().steps(),
            null,
            null,
            Fill.WhenBad.DEFAULT,
            "much",
            false,
            null,
            null,
            null);
    assertThat(find(stages(wrong), "tbc").trace().problem().reason())
        .contains("the default can't be taken");
    assertThat(stages(wrong).troubled()).isEqualTo(1);
  }

  @Test
  void blanksGoOnOnlyAsThePlanSays() {
    Fill reject = feet().rejectBlank();
    assertThat(find(stages(reject), "").trace().problem().code()).isEqualTo(ProblemCode.REQUIRED);
    Fill standard =
        new Fill(
            "feet",
            Origin.column("Feet"),
            feet().steps(),
            Fill.WhenBlank.DEFAULT,
            null,
            null,
            "7",
            false,
            null,
            null,
            null);
    assertThat(find(stages(standard), "").trace().result()).isEqualTo("7.00");
  }

  private static StageTable.Row find(StageTable table, String origin) {
    return table.rows().stream()
        .filter(r -> r.trace().origin().equals(origin))
        .findFirst()
        .orElseThrow();
  }

  @Test
  void linksShowTheKeyTheyFind() {
    Fill exact = Fill.of("kind_id", Origin.link("Kind", "name"), Step.of(StepKind.TRIM));
    assertThat(find(stages(exact), "sloop").trace().result()).isEqualTo("1");
    assertThat(find(stages(exact), " sloop ").trace().result()).isEqualTo("1");
    assertThat(find(stages(exact), "KETCH").trace().problem().code())
        .isEqualTo(ProblemCode.UNKNOWN_LINK);
    Fill loose =
        Fill.of("kind_id", Origin.link("Kind", "name", Ignore.CASE), Step.of(StepKind.TRIM));
    assertThat(find(stages(loose), "KETCH").trace().problem().code())
        .isEqualTo(ProblemCode.SEVERAL_LINKS);
    assertThat(find(stages(loose), "yawl").trace().problem().code())
        .isEqualTo(ProblemCode.UNKNOWN_LINK);
    assertThat(stages(loose).rows().get(0).trace().stoppedAt()).isEqualTo(1);
  }

  @Test
  void fixedAndGeneratedValuesAreOneRow() {
    StageTable fixed = stages(Fill.of("note", Origin.fixed("winter")));
    assertThat(fixed.rows()).hasSize(1);
    assertThat(fixed.rows().get(0).rows()).isEqualTo(6);
    assertThat(fixed.rows().get(0).trace().result()).isEqualTo("winter");
    assertThat(result(Origin.Generator.FILE_NAME, "file")).isEqualTo("boats.csv");
    assertThat(result(Origin.Generator.RUN_TIME, "at")).isEqualTo("2026-11-23T09:00:00");
    assertThat(result(Origin.Generator.LINE, "line")).isEqualTo("2");
    assertThat(result(Origin.Generator.WHO, "note")).isEqualTo("odile");
  }

  private String result(Origin.Generator generator, String field) {
    return stages(Fill.of(field, Origin.generated(generator))).rows().get(0).trace().result();
  }

  @Test
  void lineNumbersAreEachRowsOwn() {
    CompiledFill line = compile(Fill.of("line", Origin.generated(Origin.Generator.LINE)));
    FilledColumn lines = new FillColumns(line).of(source.batch(0));
    assertThat(lines.value(0)).hasToString("2");
    assertThat(lines.value(1)).hasToString("3");
  }

  @Test
  void pagesShowPartOfTheTableButCountAllOfIt() {
    StageTable page = StageTable.of(compile(feet()), source, 1, 2);
    assertThat(page.rows()).extracting(r -> r.trace().origin()).containsExactly("28,5", "");
    assertThat(page.distinct()).isEqualTo(4);
    assertThat(page.troubled()).isEqualTo(1);
  }

  @Test
  void rowsAreCountedOverTheWholeFileHoweverManyValuesItHolds() throws IOException {
    StringBuilder text = new StringBuilder("Feet;Kind\n");
    for (int i = 0; i < DistinctValues.LIMIT + 50; i++) {
      text.append(i).append(";sloop\n");
    }
    text.append("tbc;sloop\ntbd;sloop\n");
    Path file = folder.resolve("many.csv");
    Files.writeString(file, text);
    try (SourceTable many = SourceReader.open(file, folder.resolve("many-cells"), Reading.FIND)) {
      CompiledFill feet =
          new FillCompiler(on.database()::table, many, CONTEXT, Phrases.NONE)
              .compile(
                  Fill.of("note", Origin.column("Feet"), Step.of(StepKind.READ_NUMBER)),
                  boat.field("note"),
                  boat);
      assertThat(StageTable.of(feet, many, 0, 5).troubledRows()).isZero();
      StageTable counts = StageTable.counts(feet, many);
      assertThat(counts.distinctCapped()).isTrue();
      assertThat(counts.troubledRows()).isEqualTo(2);
    }
  }

  @Test
  void nextTroubledRowIsFoundAndThenNoMore() {
    List<CompiledFill> fills = List.of(compile(feet()));
    assertThat(Troubles.next(source, fills, -1)).isEqualTo(2);
    assertThat(Troubles.next(source, fills, 2)).isEqualTo(-1);
    assertThat(Troubles.next(source, fills, 5)).isEqualTo(-1);
  }

  @Test
  void missingColumnIsNamed() {
    Destination bad =
        new Destination("boat", List.of(Fill.of("note", Origin.column("Gone"))), null, null);
    assertThatThrownBy(
            () ->
                new FillCompiler(on.database()::table, source, CONTEXT, Phrases.NONE)
                    .compile(bad, boat))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining("no column “Gone”")
        .hasMessageContaining("note");
  }
}
