package org.zestyporter.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.application.ToldLink;
import org.zestyporter.core.source.Correction;
import org.zestyporter.core.source.reading.ColumnShape;
import org.zestyporter.core.source.reading.Escape;
import org.zestyporter.core.source.reading.Fold;
import org.zestyporter.core.source.reading.Pick;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.ReadingBuilder;
import org.zestyporter.core.source.reading.RowTest;
import org.zestyporter.core.source.reading.SkippedLine;
import org.zestyporter.core.source.reading.SourceFormat;
import org.zestyporter.core.source.reading.Span;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Comparison.Ignore;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.ValueType;
import tools.jackson.databind.JsonNode;

/** The published schema and the plans that are really read and written are the same. */
class PlanSchemaTest {
  private static final JsonNode DOCUMENT = document();
  private static final Schema SCHEMA =
      SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12).getSchema(DOCUMENT);

  private static JsonNode document() {
    try {
      return PlanJson.MAPPER.readTree(Files.readString(Path.of("..", "docs", "plan.schema.json")));
    } catch (IOException e) {
      throw new IllegalStateException(e);
    }
  }

  private static List<String> errors(String json) {
    return SCHEMA.validate(PlanJson.MAPPER.readTree(json)).stream().map(Object::toString).toList();
  }

  @Test
  void planWithEverythingInItIsValid() {
    Reading reading =
        ReadingBuilder.builder()
            .format(SourceFormat.DELIMITED)
            .entry("winter/arrivals.csv")
            .encoding("UTF-8")
            .delimiter("||")
            .quote("\"")
            .escape(Escape.BACKSLASH)
            .comment("#")
            .borders(List.of(8, 20))
            .sheet("Arrivals")
            .sheets(List.of("North", "South"))
            .titleRows(List.of(4L, 5L))
            .unitsRow(6L)
            .firstRow(7L)
            .lastRow(90L)
            .stopAfterBlank(2)
            .records(new Span(2, 10L))
            .leaveOut(List.of(new RowTest("Kind", RowTest.Test.IS_NOT, "sloop")))
            .where("[Kind] <> \"Total\"")
            .skip(List.of(new SkippedLine(12, "Page 2")))
            .totals(true)
            .omit(List.of("Notes"))
            .fillDown(List.of("Pontoon"))
            .blankWords(List.of("n/a"))
            .renamed(Map.of("Boat", "Boat name"))
            .picks(List.of(new Pick("Season", "B", 2, "Season")))
            .fold(
                new Fold(
                    "Sep 26",
                    "Nov 26",
                    null,
                    List.of(new Fold.FoldName("Month", null), new Fold.FoldName("Unit", 6L)),
                    List.of("Reading"),
                    true))
            .locale(new LocaleSettings(",", DateOrder.MONTH_DAY_YEAR))
            .century("20")
            .confirmed(List.of("dates-among-codes:Code"))
            .columns(List.of(new ColumnShape("Boat name", "B", ValueType.TEXT)))
            .build();
    List<Fill> fills =
        Stream.of(
                Origin.column("A"),
                Origin.fixed("x"),
                Origin.generated(Origin.Generator.LINE),
                Origin.link("B", "email", Ignore.values()),
                Origin.joined("[A] [B]"),
                Origin.formula("UPPER([A])"),
                Origin.series(new Origin.Series(100L, 5L, "Q-", 6)),
                Origin.linked(
                    "B",
                    new Origin.Link(
                        "name",
                        List.of("surname"),
                        List.of(new Origin.Also("town", "Town")),
                        List.of(),
                        Origin.WhenMissing.CREATE,
                        List.of(Fill.of("town", Origin.column("Town"))),
                        List.of("Ulm"))),
                Origin.DATABASE)
            .map(
                o ->
                    new Fill(
                        "f",
                        o,
                        List.of(Step.of(StepKind.ROUND, "places", "2")),
                        Fill.WhenBlank.DEFAULT,
                        Fill.BlankOnMatch.CLEAR,
                        Fill.WhenBad.BLANK,
                        "0",
                        true,
                        Fill.Never.RAISE,
                        List.of("9", Fill.ANY),
                        true))
            .toList();
    Destination destination =
        new Destination(
            "vessel",
            fills,
            List.of(
                new MatchKey(
                    List.of("a", "b"),
                    List.of(Ignore.LEADING_ZEROS),
                    Map.of("b", List.of(Ignore.CASE)))),
            new Policies(
                Policies.OnMatch.FILL_BLANKS,
                Policies.OnNone.ASK,
                Policies.OnSeveral.LATEST,
                Policies.OnRepeat.MERGE,
                "changed_on"));
    Plan plan =
        new Plan(
            "p",
            "marina",
            reading,
            List.of(
                destination
                    .withChecksOff(List.of("dates in order"))
                    .withAmong("[sold] = FALSE()")
                    .withDecisions(
                        List.of(
                            new Decision(
                                Map.of("a", "x", "b", "y"), Decision.Act.TAKE, List.of("7")),
                            new Decision(Map.of("a", "z", "b", "y"), Decision.Act.OTHER, null))),
                destination
                    .withName("stays")
                    .withWhere("[Stays]<>\"\"")
                    .withDistinct(true)
                    .withSplit(new Destination.Split("Stays", List.of(";", ",")))
                    .withParent(new Destination.Parent("vessel", "vessel_id"))),
            new RunSettings(
                RunSettings.Mode.SET_ASIDE,
                RunSettings.WhenAltered.REFUSE,
                RunSettings.Rows.EACH,
                5_000,
                40,
                3,
                RunSettings.WhenDifferent.REFUSE,
                true),
            List.of(new Phrasebook("Kinds", List.of(new Phrasebook.Phrase("K", null)))),
            List.of(new Correction(12, "LOA", "tbc", "32")),
            List.of(new ToldLink("vessel", "owner", "person", "number")));
    assertThat(errors(PlanJson.write(plan))).isEmpty();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "{\"destinations\": []}",
        "{\"name\": \"p\", \"destinations\": [], \"colour\": 1}",
        "{\"name\": \"p\", \"destinations\": [{\"table\": \"t\", \"fills\": [{\"field\": \"f\", \"origin\": {\"kind\": \"column\"}}]}]}",
        "{\"name\": \"p\", \"destinations\": [{\"table\": \"t\", \"keys\": [{\"fields\": []}]}]}",
        "{\"name\": \"p\", \"destinations\": [], \"reading\": {\"delimiter\": \"\"}}",
        "{\"name\": \"p\", \"destinations\": [], \"reading\": {\"firstRow\": 0}}"
      })
  void whatIsNoPlanIsInvalid(String json) {
    assertThat(errors(json)).isNotEmpty();
  }

  @Test
  void listsOfWordsAreThoseOfTheCode() {
    assertThat(words("/$defs/step/properties/kind/enum"))
        .containsExactly(
            Arrays.stream(StepKind.values()).map(StepKind::word).toArray(String[]::new));
    assertThat(words("/$defs/origin/properties/kind/enum"))
        .containsExactly(
            Arrays.stream(OriginForm.Kind.values())
                .map(OriginForm.Kind::word)
                .toArray(String[]::new));
    assertThat(words("/$defs/origin/properties/generator/enum"))
        .containsExactly(
            Arrays.stream(Origin.Generator.values())
                .map(Origin.Generator::word)
                .toArray(String[]::new));
    assertThat(words("/$defs/ignoring/items/enum"))
        .containsExactly(Arrays.stream(Ignore.values()).map(Ignore::word).toArray(String[]::new));
    assertThat(words("/$defs/dateOrder/enum"))
        .containsExactly(
            Arrays.stream(DateOrder.values()).map(DateOrder::word).toArray(String[]::new));
    assertThat(words("/$defs/reading/properties/format/enum"))
        .containsExactly(
            Arrays.stream(SourceFormat.values()).map(SourceFormat::word).toArray(String[]::new));
    assertThat(words("/$defs/reading/properties/leaveOut/items/properties/test/enum"))
        .containsExactly(
            Arrays.stream(RowTest.Test.values()).map(RowTest.Test::word).toArray(String[]::new));
    assertThat(words("/$defs/reading/properties/columns/items/properties/type/enum"))
        .containsExactly(
            Arrays.stream(ValueType.values()).map(ValueType::word).toArray(String[]::new));
    assertThat(
            DOCUMENT
                .at("/$defs/reading/properties")
                .propertyStream()
                .map(Map.Entry::getKey)
                .toList())
        .containsExactlyElementsOf(
            Arrays.stream(Reading.class.getRecordComponents()).map(c -> c.getName()).toList());
  }

  private static List<String> words(String pointer) {
    return DOCUMENT.at(pointer).valueStream().map(JsonNode::asString).toList();
  }
}
