package org.zestyporter.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Measures;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.UnitWords;
import org.zestyporter.core.value.Words;

class PlanTest {
  private static final TableInfo BOAT =
      new TableInfo(
          null,
          "boat",
          null,
          List.of(
              field("id", FieldType.WHOLE, true, false),
              field("reg", FieldType.TEXT, false, false),
              field("notes", FieldType.TEXT, false, true)),
          List.of("id"),
          List.of(List.of("reg")));

  private static FieldInfo field(String name, FieldType type, boolean generated, boolean nullable) {
    return FieldInfo.of(name, type).withNullable(nullable).withGenerated(generated);
  }

  private static List<String> codes(Destination destination) {
    return PlanCheck.check(destination, BOAT, List.of("Reg", "Notes")).stream()
        .map(m -> m.code().word())
        .toList();
  }

  private static Destination boat(List<MatchKey> keys, Fill... fills) {
    return new Destination("boat", List.of(fills), keys, null);
  }

  @Test
  void completePlanHasNoMatters() {
    MatchKey key = new MatchKey(List.of("reg"), List.of());
    assertThat(codes(boat(List.of(key), Fill.of("reg", Origin.column("reg"))))).isEmpty();
  }

  @Test
  void readsTheColumnsOfItsOriginsStepsLinksAndParts() {
    Origin.Link owner =
        new Origin.Link(
            "email",
            null,
            List.of(new Origin.Also("town", "Town")),
            null,
            Origin.WhenMissing.CREATE,
            List.of(Fill.of("full_name", Origin.column("Owner"))),
            null);
    Step off = new Step(StepKind.OR_COLUMN, Map.of("column", "Left out"), true);
    Destination boat =
        boat(
                List.of(),
                Fill.of(
                    "reg",
                    new Origin.Joined("[Harbour]-[No]"),
                    Step.of(StepKind.OR_COLUMN, "column", "Reg"),
                    Step.of(StepKind.FORMULA, "formula", "[value] & [Suffix]"),
                    off),
                Fill.of("owner_id", Origin.linked("Mail", owner)),
                // what a field is called, or filled with, is no column
                Fill.of("notes", new Origin.Fixed("Town hall")))
            .withSplit(new Destination.Split("Tags", List.of(";")));
    assertThat(boat.columnsRead())
        .containsExactlyInAnyOrder(
            "Harbour", "No", "Reg", "Suffix", "Mail", "Town", "Owner", "Tags");
  }

  @Test
  void everyMatterIsNamedAtOnce() {
    MatchKey key = new MatchKey(List.of("notes"), List.of());
    Destination bad =
        boat(
            List.of(key),
            Fill.of("colour", Origin.column("Reg")),
            Fill.of("reg", Origin.column("Register"), Step.of(StepKind.MULTIPLY)),
            Fill.of("REG", Origin.DATABASE));
    assertThat(codes(bad))
        .containsExactly(
            "no-such-field",
            "no-such-column",
            "step-settings",
            "filled-twice",
            "required-field",
            "key-not-filled");
    assertThatThrownBy(() -> PlanCheck.require(bad, BOAT, List.of("Reg"), book -> true))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining("colour")
        .hasMessageContaining("Register");
  }

  /** One reason for all, however many there are. */
  @Test
  void anotherFileIsToldInAFewSentences() {
    List<PlanCheck.Matter> matters =
        Stream.of("A", "B", "C", "D", "E")
            .map(c -> new PlanCheck.Matter(ErrorCode.NO_SUCH_COLUMN, "reg", "No “" + c + "”."))
            .toList();
    assertThatThrownBy(() -> PlanCheck.require(matters))
        .hasMessage(
            "No “A”. No “B”. No “C”. 2 more are missing. Is it another file, or are its titles"
                + " in another line?");
    assertThatThrownBy(() -> PlanCheck.require(matters.subList(0, 3)))
        .hasMessage("No “A”. No “B”. No “C”.");
  }

  @Test
  void requiredFieldThatNothingFillsIsAMatter() {
    assertThat(codes(boat(List.of(), Fill.of("notes", Origin.column("Notes")))))
        .containsExactly("required-field");
  }

  /** Only a new record can't do without them. */
  @Test
  void whoOnlyUpdatesRecordsNeedNotFillRequiredFields() {
    Fill notes = Fill.of("notes", Origin.column("Notes"));
    Policies policies =
        new Policies(
            Policies.OnMatch.UPDATE,
            Policies.OnNone.SKIP,
            Policies.OnSeveral.REJECT,
            Policies.OnRepeat.REJECT);
    MatchKey key = new MatchKey(List.of("notes"), List.of());
    Destination updates = new Destination("boat", List.of(notes), List.of(key), policies);
    assertThat(codes(updates)).isEmpty();
    Fill left = Fill.of("reg", Origin.DATABASE);
    assertThat(codes(new Destination("boat", List.of(notes, left), List.of(key), policies)))
        .isEmpty();
  }

  @Test
  void linkNeedsALinkField() {
    assertThat(codes(boat(List.of(), Fill.of("reg", Origin.link("Reg", "email")))))
        .containsExactly("no-link");
  }

  @Test
  void jsonLeavesOutWhatIsUsual() {
    Plan read =
        PlanJson.read(
            """
            {"name": "Boats", "destinations": [{"table": "boat", "fills": [
              {"field": "reg", "origin": {"kind": "column", "column": "Reg"},
               "steps": [{"kind": "trim"}]}]}]}""");
    Fill fill = read.destinations().get(0).fills().get(0);
    assertThat(fill.whenBlank()).isEqualTo(Fill.WhenBlank.LEAVE);
    assertThat(fill.onlyNew()).isFalse();
    assertThat(read.run().mode()).isEqualTo(RunSettings.Mode.ALL_OR_NOTHING);
    assertThat(read.destinations().get(0).policies()).isEqualTo(Policies.DEFAULT);
    assertThat(PlanJson.read(PlanJson.write(read))).isEqualTo(read);
  }

  @Test
  void anOriginWithoutAKindIsAMatterOfThePlan() {
    Plan read =
        PlanJson.read(
            """
            {"name": "p", "destinations": [{"table": "boat", "fills": [
              {"field": "reg", "origin": {"column": "Reg"}},
              {"field": "notes", "origin": {"kind": "link"}}]}]}""");
    assertThat(codes(read.destinations().get(0))).containsExactly("no-origin", "no-link");
    assertThat(PlanJson.read(PlanJson.write(read))).isEqualTo(read);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '#',
      value = {
        "{\"name\": \"x\", \"destinatons\": []}#destinatons",
        "{\"name\": \"x\"#line 1",
        "{\"destinations\": [{\"fills\": [{\"steps\": [{\"kind\": \"tirm\"}]}]}]}#tirm"
      })
  void whatIsNoPlanSaysWhere(String json, String hint) {
    assertThatThrownBy(() -> PlanJson.read(json))
        .isInstanceOfSatisfying(
            PorterException.class,
            e -> {
              assertThat(e.code()).isEqualTo(ErrorCode.NOT_A_PLAN);
              assertThat(e.getMessage()).contains(hint).doesNotContain("org.zestyporter");
            });
  }

  @ParameterizedTest
  @CsvSource({
    "Reg No,registration,80,100",
    "Insured until,insured_until,100,100",
    "Arrives,arrived_on,75,100",
    "Kind,type,80,95",
    "ownerEmail,owner_email,100,100",
    "Berth,beam,0,40",
    "Notes,registration,0,20"
  })
  void namesAgreeAsAPersonWouldSay(String column, String field, int least, int most) {
    assertThat(Words.agreement(Words.of(column), Words.of(field))).isBetween(least, most);
  }

  @ParameterizedTest
  @CsvSource({
    "LOA (ft),length_m,0.3048",
    "Length in cm,length_m,0.01",
    "weight kg,mass_t,0.001",
    "LOA (m),length_m,",
    "LOA,length_m,",
    "Weight kg,length_m,"
  })
  void unitsInNamesAreConverted(String column, String field, java.math.BigDecimal factor) {
    assertThat(UnitWords.differ(column, field)).isEqualTo(factor != null);
    if (factor != null) {
      assertThat(
              Measures.conversion(UnitWords.in(column).symbol(), UnitWords.in(field).symbol())
                  .factor())
          .isEqualByComparingTo(factor);
    }
  }
}
