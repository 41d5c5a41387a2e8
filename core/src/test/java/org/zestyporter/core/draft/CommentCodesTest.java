package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DistinctValues;

/** Codes that only the description of a field explains. */
class CommentCodesTest {
  @TempDir Path folder;

  private static CommentCodes of(FieldType type, String comment, String... values) {
    return CommentCodes.of(FieldInfo.of("f", type).withComment(comment), column(values));
  }

  private static DistinctValues column(String... values) {
    DistinctValues column = new DistinctValues();
    for (String value : values) {
      byte[] text = value.getBytes(java.nio.charset.StandardCharsets.UTF_8);
      Cell.Kind kind = Cell.Kind.TEXT;
      long hash = DistinctValues.hash(kind, text, 0, text.length);
      column.add(hash, kind, text, 0, text.length, 1, 1);
    }
    return column;
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "gender: 0 = male, 1 = female | gender | male | 0 | female | 1",
        "Sex (0-male; 1-female) | Sex | Male | 0 | Female | 1",
        "性别 0男 1女 | 性别 | 男 | 0 | 女 | 1",
        "状态（0：禁用，1：启用） | 状态 | 启用 | 1 | 禁用 | 0",
        "区分 1:個人 2:法人 | 区分 | 個人 | 1 | 法人 | 2",
        "state of the order, open=1, on its way=2, done=-1 | state of the order | open | 1 | done | -1",
        "1. Draft 2. Sent | '' | draft | 1 | sent | 2",
        "Вид: 1 - приход, 2 - расход | Вид | Приход | 1 | расход | 2",
      })
  void codesAreReadAsPeopleWriteThem(
      String comment, String about, String one, String first, String other, String second) {
    CommentCodes codes = of(FieldType.WHOLE, comment, one, other);
    assertThat(codes).as(comment).isNotNull();
    assertThat(codes.about()).isEqualTo(about);
    Map<String, String> meanings = new java.util.TreeMap<>(String.CASE_INSENSITIVE_ORDER);
    meanings.putAll(codes.meanings());
    assertThat(meanings).containsEntry(one, first).containsEntry(other, second);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "at most 12 characters, or 30 signs | characters | signs",
        "see rule 7 and rule 8 | rule | see",
        "1 = male, 1 = man | male | man",
        "gender: 0 = male, 1 = female | m | f",
        "M = male, F = female | male | female",
      })
  void whatTellsNoCodesOfANumberIsLeft(String comment, String one, String other) {
    assertThat(of(FieldType.WHOLE, comment, one, other)).isNull();
  }

  @Test
  void lettersAreCodesOfTexts() {
    CommentCodes codes = of(FieldType.TEXT, "A: active, CL: closed", "Active", "closed");
    assertThat(codes.meanings()).isEqualTo(Map.of("active", "A", "closed", "CL"));
    // columns that hold the codes themselves need nothing
    assertThat(of(FieldType.TEXT, "A: active, CL: closed", "A", "CL")).isNull();
  }

  /** Where the words are what the field may hold, they are no names of codes. */
  @Test
  void choicesSayWhatIsHeld() {
    String comment = "A: active, CL: closed";
    FieldInfo field = FieldInfo.of("f", FieldType.TEXT).withComment(comment);
    DistinctValues column = column("active", "closed");
    assertThat(CommentCodes.of(field, column)).isNotNull();
    assertThat(CommentCodes.of(field.withChoices(List.of("A", "CL", "X")), column)).isNotNull();
    assertThat(CommentCodes.of(field.withChoices(List.of("active", "closed")), column)).isNull();
  }

  /** A description may be as long as its author liked. */
  @Test
  void longDescriptionsTakeNoTime() {
    String words = "ein langer Satz ohne Ende ".repeat(20_000);
    assertThat(of(FieldType.WHOLE, words, "ein", "Satz")).isNull();
    String near = "ein Satz ohne Ende und ".repeat(43);
    assertThat(of(FieldType.WHOLE, near, "ein", "Satz")).isNull();
  }

  /** A draft replaces the words by the codes; a column of yes and no may be about anything. */
  @Test
  void draftsTranslateWords() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE TABLE staff (no VARCHAR(9) PRIMARY KEY, xb SMALLINT, zt CHAR(1), insured SMALLINT)",
          "COMMENT ON COLUMN staff.xb IS 'gender: 0 = male, 1 = female'",
          "COMMENT ON COLUMN staff.zt IS 'A: active, L: on leave'",
          "COMMENT ON COLUMN staff.insured IS '0 = no, 1 = yes'");
      try (SourceTable source =
          PlanDraftTest.file(
              folder,
              "No,Gender,Where they are,Car",
              "S1,Male,active,yes",
              "S2,Female,On leave,no",
              "S3,Female,active,yes",
              "S4,Male,active,no")) {
        ProposedTable draft =
            new PlanDraft(on.database(), source).draft(on.database().table("staff"));
        assertThat(steps(draft, "xb"))
            .containsExactly(
                "trim {}",
                "replace {from=male, to=0}",
                "replace {from=female, to=1}",
                "read-number {}");
        assertThat(PlanDraftTest.fill(draft, "zt").origin().column()).isEqualTo("Where they are");
        assertThat(steps(draft, "zt")).contains("replace {from=on leave, to=L}");
        assertThat(draft.destination().fills()).extracting(Fill::field).doesNotContain("insured");
      }
    }
  }

  private static List<String> steps(ProposedTable draft, String field) {
    List<String> steps = new ArrayList<>();
    PlanDraftTest.fill(draft, field)
        .steps()
        .forEach(s -> steps.add(s.kind().word() + " " + new java.util.TreeMap<>(s.with())));
    return steps;
  }
}
