package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Comparison.Ignore;

/** What the application keeps unique, and what the file holds once, could tell records apart. */
class KeySuggestionTest {
  @TempDir Path folder;

  private List<KeySuggestion> suggested(Databases.Fresh on, MatchKey... keys)
      throws IOException, SQLException {
    List<String> lines = new ArrayList<>(List.of("Zunft;Werk;Blatt;Vermerk;Grad"));
    for (int i = 0; i < 40; i++) {
      lines.add(
          "Z" + i % 4 + ";W" + i / 4 + ";BL-" + (100 + i) + ";" + "steht " + i * i + ";" + i % 7);
    }
    try (SourceTable source = PlanDraftTest.file(folder, lines.toArray(String[]::new))) {
      TableInfo table = on.database().table("stück");
      Destination drafted =
          new PlanDraft(on.database(), source).draft(table).destination().withKeys(List.of(keys));
      return KeySuggestion.of(table, drafted, source, null);
    }
  }

  private static Databases.Fresh atelier() throws SQLException {
    Databases.Fresh on = Databases.h2();
    on.execute(
        "CREATE TABLE \"stück\" (\"nr\" INTEGER GENERATED ALWAYS AS IDENTITY PRIMARY KEY,"
            + " \"zunft\" VARCHAR(9) NOT NULL, \"werk\" VARCHAR(9) NOT NULL,"
            + " \"blatt\" VARCHAR(20), \"vermerk\" VARCHAR(90), \"grad\" INTEGER,"
            + " UNIQUE (\"zunft\", \"werk\"))");
    return on;
  }

  @Test
  void uniqueFieldsComeFirstThenColumnsWithoutRepeats() throws SQLException, IOException {
    try (Databases.Fresh on = atelier()) {
      List<KeySuggestion> suggested = suggested(on);
      assertThat(suggested.get(0).key().fields()).containsExactly("zunft", "werk");
      assertThat(suggested.get(0).unique()).isTrue();
      assertThat(suggested.subList(1, suggested.size()))
          .extracting(s -> s.key().fields().get(0))
          .containsExactlyInAnyOrder("blatt", "vermerk");
      assertThat(suggested)
          .filteredOn(s -> s.key().fields().contains("blatt"))
          .singleElement()
          .satisfies(
              s -> {
                assertThat(s.values()).isEqualTo(40);
                assertThat(s.rows()).isEqualTo(40);
                assertThat(s.unique()).isFalse();
                assertThat(s.key().ignoring())
                    .containsExactly(Ignore.CASE, Ignore.SPACES, Ignore.PUNCTUATION);
              });
    }
  }

  @Test
  void moreFieldsThanAKeyHasFindNothingMore() throws SQLException, IOException {
    try (Databases.Fresh on = atelier()) {
      assertThat(suggested(on, new MatchKey(List.of("werk"), List.of())))
          .noneMatch(s -> s.key().fields().contains("werk") && s.unique());
    }
  }

  /** After another key, words of which many differ: codes and sentences with figures don't. */
  @Test
  void wordsMayBeSpeltAlike() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE TABLE \"stück\" (\"nr\" VARCHAR(9) PRIMARY KEY, \"zunft\" VARCHAR(40),"
              + " \"werk\" VARCHAR(90))");
      List<String> lines = new ArrayList<>(List.of("Nr;Zunft;Werk"));
      for (int i = 0; i < 40; i++) {
        String word = "Ä" + "bcdfghklmn".charAt(i / 4) + "e" + "rst".charAt(i % 3) + "er";
        lines.add("N" + i + ";" + word + " Schmidt;Blatt " + i);
      }
      try (SourceTable source = PlanDraftTest.file(folder, lines.toArray(String[]::new))) {
        TableInfo table = on.database().table("stück");
        Destination drafted = new PlanDraft(on.database(), source).draft(table).destination();
        MatchKey nr = new MatchKey(List.of("nr"), List.of());
        List<KeySuggestion> near =
            KeySuggestion.of(table, drafted.withKeys(List.of(nr)), source, null).stream()
                .filter(s -> s.key().isNear())
                .toList();
        assertThat(near)
            .singleElement()
            .satisfies(s -> assertThat(s.key().nearIn()).containsOnlyKeys("zunft"));
        MatchKey had = near.get(0).key();
        assertThat(KeySuggestion.of(table, drafted.withKeys(List.of(nr, had)), source, null))
            .noneMatch(s -> s.key().isNear());
        assertThat(KeySuggestion.of(table, drafted.withKeys(List.of()), source, null))
            .noneMatch(s -> s.key().isNear());
      }
    }
  }

  @Test
  void whatIsAKeyAlreadyIsNotSuggested() throws SQLException, IOException {
    try (Databases.Fresh on = atelier()) {
      assertThat(
              suggested(
                  on,
                  new MatchKey(List.of("werk", "zunft"), List.of()),
                  new MatchKey(List.of("vermerk"), List.of())))
          .extracting(s -> s.key().fields())
          .containsExactly(List.of("blatt"));
    }
  }

  /** An index of any kind that begins with one of the fields is enough; one over a part is not. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void anIndexIsMissedOnlyWhereThereIsNone(Databases.Fresh on) throws SQLException {
    try (on) {
      on.execute(
          "CREATE TABLE sheet (id INTEGER PRIMARY KEY, code VARCHAR(20) UNIQUE, shelf INTEGER,"
              + " place INTEGER, remark VARCHAR(40))",
          "CREATE INDEX on_shelf ON sheet (shelf, place)");
      TableInfo sheet = on.database().table("sheet");
      for (String found : List.of("id", "code", "shelf")) {
        assertThat(on.database().missingIndex(sheet, List.of(sheet.field(found)))).isNull();
      }
      assertThat(
              on.database()
                  .missingIndex(sheet, List.of(sheet.field("remark"), sheet.field("shelf"))))
          .isNull();
      String statement =
          on.database().missingIndex(sheet, List.of(sheet.field("remark"), sheet.field("place")));
      assertThat(statement).startsWith("CREATE INDEX ").contains("sheet").contains("remark");
      on.execute(statement);
      assertThat(on.database().missingIndex(sheet, List.of(sheet.field("remark")))).isNull();
    }
  }
}
