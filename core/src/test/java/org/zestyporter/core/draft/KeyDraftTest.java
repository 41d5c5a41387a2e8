package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.AdditionalAnswers.delegatesTo;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.atLeastOnce;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.ErrorCode;

/** Of several keys the one by which the records are found. */
class KeyDraftTest {
  @TempDir Path folder;

  private static void schema(Databases.Fresh on) throws SQLException {
    on.execute(
        "CREATE TABLE book (shelf VARCHAR(10) NOT NULL PRIMARY KEY, isbn CHAR(13) UNIQUE,"
            + " serial INTEGER UNIQUE, title VARCHAR(40))");
  }

  /**
   * @param held the record that is there
   */
  @ParameterizedTest
  @CsvSource({
    "S-1, NULL, NULL, shelf",
    "S-9, NULL, NULL, isbn",
    "S-9, '9791100079195', NULL, isbn",
    "S-1, '9791100079195', NULL, isbn",
    // numbers of two lists are alike by chance
    "S-1, NULL, 7, shelf",
    "S-9, NULL, 7, serial"
  })
  void theKeyIsThatOfWhichRecordsHoldValues(String shelf, String isbn, String serial, String key)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      on.execute(
          "INSERT INTO book VALUES ('" + shelf + "', " + isbn + ", " + serial + ", 'Tides')");
      try (SourceTable source = books()) {
        ProposedTable draft =
            new PlanDraft(on.database(), source).draft(on.database().table("book"));
        assertThat(draft.destination().keys())
            .singleElement()
            .satisfies(k -> assertThat(k.fields()).containsExactly(key));
      }
    }
  }

  /** With what is unique already a further field tells nothing more. */
  @Test
  void aKeyNeedsNoMoreFieldsThanAnother() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE TABLE book (shelf VARCHAR(10) PRIMARY KEY, title VARCHAR(40),"
              + " UNIQUE (title, shelf))",
          "INSERT INTO book VALUES ('S-1', 'Tides')");
      try (SourceTable source = books()) {
        assertThat(
                new PlanDraft(on.database(), source)
                    .draft(on.database().table("book"))
                    .destination()
                    .keys())
            .singleElement()
            .satisfies(k -> assertThat(k.fields()).containsExactly("shelf"));
      }
    }
  }

  /** Who may add records but not read them still gets a draft. */
  @Test
  void recordsThatNobodyMayReadTellNothing() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      Application blind = mock(Application.class, delegatesTo(on.database()));
      doThrow(ErrorCode.DATABASE_RIGHTS.error("The user may not read it."))
          .when(blind)
          .look(any(), any());
      try (SourceTable source = books()) {
        assertThat(new PlanDraft(blind, source).draft(blind.table("book")).destination().keys())
            .singleElement()
            .satisfies(k -> assertThat(k.fields()).containsExactly("isbn"));
        verify(blind, atLeastOnce()).look(any(), any());
      }
    }
  }

  private SourceTable books() throws IOException {
    return PlanDraftTest.file(
        folder,
        "Shelf,Isbn,Serial,Title",
        "S-1,979-11-0007-919-5,7,Tides",
        "S-2,979-11-0015-838-6,8,Knots",
        "S-3,9791100237577,9,Clouds");
  }

  @ParameterizedTest
  @CsvSource({"13, true", "17, false", "10, false"})
  void signsGoWhereACodeHasRoomWithoutThem(int length, boolean gone)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute("CREATE TABLE book (isbn VARCHAR(" + length + ") UNIQUE)");
      try (SourceTable source = books()) {
        ProposedTable draft =
            new PlanDraft(on.database(), source).draft(on.database().table("book"));
        assertThat(PlanDraftTest.fill(draft, "isbn").steps())
            .extracting(s -> s.kind() == StepKind.REPLACE_PATTERN)
            .contains(gone)
            .doesNotContain(gone ? null : true);
      }
    }
  }
}
