package org.zestyporter.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.LinkInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** What keeps a fill from being computed is said before anybody tries. */
class FillCheckTest {
  private static final List<String> COLUMNS = List.of("First", "Last", "Town [new]");

  private static FieldInfo field(String name, LinkInfo link) {
    return FieldInfo.of(name, FieldType.TEXT).withLength(20).withLink(link);
  }

  private static final TableInfo PERSON =
      new TableInfo(
          null,
          "person",
          null,
          List.of(field("name", null), field("town_id", new LinkInfo("town", "id"))),
          List.of(),
          List.of());

  private static List<String> codes(Fill fill) {
    Destination person = new Destination("person", List.of(fill), null, null);
    return PlanCheck.check(person, PERSON, COLUMNS, "Names"::equals).stream()
        .map(m -> m.code().word())
        .toList();
  }

  private static String message(Fill fill) {
    Destination person = new Destination("person", List.of(fill), null, null);
    return PlanCheck.check(person, PERSON, COLUMNS, "Names"::equals).get(0).message();
  }

  @Test
  void whatIsCompleteIsFine() {
    assertThat(codes(Fill.of("name", Origin.joined("[First] [Last], [Town [new]]]")))).isEmpty();
    assertThat(codes(Fill.of("name", Origin.formula("[First] & UPPER([last])")))).isEmpty();
    assertThat(codes(Fill.of("name", Origin.formula("PHRASE([First]; \"Names\")")))).isEmpty();
    assertThat(codes(Fill.of("name", Origin.fixed("")))).isEmpty();
    assertThat(codes(Fill.of("name", Origin.series(null)))).isEmpty();
    Origin.Link link =
        new Origin.Link("name", List.of(new Origin.Also("land", "Last")), null, null, null);
    assertThat(codes(Fill.of("town_id", new Origin.Linked(Origin.formula("[First]"), link))))
        .isEmpty();
    assertThat(codes(Fill.of("town_id", new Origin.Linked(Origin.fixed("Oban"), link)))).isEmpty();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "[First] [Middle] | no-such-column",
        "no brackets | no-columns",
        "'' | no-columns",
      })
  void templatesNameColumnsThatAreThere(String template, String code) {
    assertThat(codes(Fill.of("name", Origin.joined(template)))).containsExactly(code);
  }

  @Test
  void formulasAreReadBeforeTheyAreUsed() {
    assertThat(message(Fill.of("name", Origin.formula("UPPER([Frist])"))))
        .isEqualTo(
            "name: At character 7 of the formula: there is no column “Frist”; is it [First]?.");
    assertThat(message(Fill.of("name", Origin.formula(" ")))).isEqualTo("name has no formula yet.");
    assertThat(codes(Fill.of("name", Origin.formula("PHRASE([First]; \"Gone\")"))))
        .containsExactly("formula");
  }

  @Test
  void stepsNameWhatIsThere() {
    Origin first = Origin.column("First");
    assertThat(codes(Fill.of("name", first, Step.of(StepKind.JOIN, "column", "Gone"))))
        .containsExactly("no-such-column");
    assertThat(codes(Fill.of("name", first, Step.of(StepKind.TRANSLATE, "book", "Gone"))))
        .containsExactly("no-such-phrasebook");
    assertThat(codes(Fill.of("name", first, Step.of(StepKind.TRANSLATE, "book", "Names"))))
        .isEmpty();
    assertThat(codes(Fill.of("name", first, Step.of(StepKind.FORMULA, "formula", "[value] &"))))
        .containsExactly("formula");
    assertThat(codes(Fill.of("name", first, Step.of(StepKind.FORMULA, "formula", "[value]"))))
        .isEmpty();
    Step off = new Step(StepKind.TRANSLATE, java.util.Map.of("book", "Gone"), true);
    assertThat(codes(Fill.of("name", first, off))).as("what is off is not asked").isEmpty();
  }

  @Test
  void linksSayByWhatTheyAreLookedUp() {
    Origin.Link link =
        new Origin.Link("name", List.of(new Origin.Also("land", "Gone")), null, null, null);
    assertThat(codes(Fill.of("town_id", Origin.linked(null, link))))
        .containsExactly("no-origin", "no-such-column");
    assertThat(codes(Fill.of("name", Origin.link("First", "name")))).containsExactly("no-link");
  }
}
