package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.StepKind;

/** Whole names of people in a file, for fields of first and last name. */
class PersonNamesTest {
  @TempDir Path folder;

  /** A title, the names below it, and what a draft makes of them: first and last name. */
  static Stream<Arguments> names() {
    return Stream.of(
        Arguments.of(
            "Full name",
            List.of("Ida Brandt", "Oskar  Lind", "Mia Holm"),
            List.of("Ida;Brandt;", "Oskar;Lind;", "Mia;Holm;")),
        // more than two words: the last, with what belongs to it
        Arguments.of(
            "Name",
            List.of("Jan van der Berg", "Anna Maria Lind", "Ida Brandt", "Mia Holm", "Cher"),
            List.of("Jan;van der Berg;", "Anna Maria;Lind;", "Ida;Brandt;", "Mia;Holm;", "Cher")),
        Arguments.of(
            "Kunde Name",
            List.of("Brandt, Ida", "Lind, Oskar Paul", "van der Berg,Jan"),
            List.of("Ida;Brandt;", "Oskar Paul;Lind;", "Jan;van der Berg;")),
        Arguments.of(
            "Nom et prénom",
            List.of("DUPONT Marie", "LE GOFF Yann", "PETIT Anne Lise"),
            List.of("Marie;DUPONT;", "Yann;LE GOFF;", "Anne Lise;PETIT;")),
        Arguments.of(
            "Nome e cognome",
            List.of("Ida Brandt", "Anna Maria De Rossi", "Al Holm"),
            List.of("Ida;Brandt;", "Anna Maria;De Rossi;", "Al;Holm;")),
        Arguments.of(
            "Nachname und Vorname",
            List.of("Brandt Ida", "Lind Oskar"),
            List.of("Ida;Brandt;", "Oskar;Lind;")),
        // some in the other order, told by their comma
        Arguments.of(
            "Name",
            List.of("Ida Brandt", "Oskar Lind", "van der Berg, Jan", "Anna Maria Holm", "Falk, Ua"),
            List.of(
                "Ida;Brandt;", "Oskar;Lind;", "Jan;van der Berg;", "Anna Maria;Holm;", "Ua;Falk;")),
        Arguments.of(
            "Full name",
            List.of("Ida Brandt", "Oskar Lind", "Holm, Mia"),
            List.of("Ida;Brandt;", "Oskar;Lind;", "Mia;Holm;")),
        Arguments.of(
            "Nom et prénom",
            List.of("DUPONT Marie", "LE GOFF Yann", "PETIT, Anne", "ROUX Zoé", "VIDAL Luc"),
            List.of("Marie;DUPONT;", "Yann;LE GOFF;", "Anne;PETIT;", "Zoé;ROUX;", "Luc;VIDAL;")),
        Arguments.of("氏名", List.of("山田 太郎", "佐藤 花子"), List.of("太郎;山田;", "花子;佐藤;")),
        Arguments.of("שם מלא", List.of("דליה לוי", "משה כהן"), List.of("דליה;לוי;", "משה;כהן;")));
  }

  @ParameterizedTest
  @MethodSource("names")
  void wholeNamesAreParted(String title, List<String> names, List<String> stands)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2();
        SourceTable source = file(title, names)) {
      on.execute(
          "CREATE TABLE person (no INTEGER PRIMARY KEY, first_name VARCHAR(40) NOT NULL,"
              + " last_name VARCHAR(40) NOT NULL)");
      Destination draft = draft(on, source);
      assertThat(draft.fills()).hasSize(3);
      assertThat(fill(draft, "first_name").awaitsConfirmation()).isTrue();
      assertThat(fill(draft, "last_name").awaitsConfirmation()).isTrue();
      RunReport report = confirmed(on, source, draft);
      // a name of one word has no last one; it is rejected, and nothing is made up
      List<String> written = stands.stream().filter(s -> s.endsWith(";")).toList();
      assertThat(report.destinations().get(0).rejected()).isEqualTo(names.size() - written.size());
      assertThat(on.rows("SELECT first_name, last_name FROM person ORDER BY no"))
          .isEqualTo(written);
    }
  }

  /** A run of what was drafted, once somebody has confirmed its guesses. */
  private static RunReport confirmed(Databases.Fresh on, SourceTable source, Destination draft) {
    Destination confirmed =
        draft.withFills(draft.fills().stream().map(f -> f.withGuess(false)).toList());
    Plan plan = new Plan("People", null, null, List.of(confirmed), null);
    return new Pipeline(Runs.opened(on, source, plan)).run("1", Ledger.NONE, Progress.NONE);
  }

  /** A title that says both fields in a language that nobody taught it. */
  @Test
  void aTitleThatSaysTwoFieldsIsParted() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2();
        SourceTable source =
            file("Isem u kunjom", List.of("Marija Attard", "Salvu Vella", "Grech, Toni"))) {
      on.execute(
          "CREATE TABLE person (no INTEGER PRIMARY KEY, isem VARCHAR(40) NOT NULL,"
              + " kunjom VARCHAR(40) NOT NULL)");
      Destination draft = draft(on, source);
      assertThat(fill(draft, "isem").awaitsConfirmation()).isTrue();
      confirmed(on, source, draft);
      assertThat(on.rows("SELECT isem, kunjom FROM person ORDER BY no"))
          .containsExactly("Marija;Attard;", "Salvu;Vella;", "Toni;Grech;");
    }
  }

  @Test
  void whatIsNoWholeNameIsNotParted() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE TABLE person (no INTEGER PRIMARY KEY, first_name VARCHAR(40),"
              + " last_name VARCHAR(40))");
      for (List<String> values :
          List.of(
              List.of("Ida", "Oskar", "Mia"),
              List.of("Berth 12", "Berth 14", "Berth 9"),
              List.of("ida@post.example", "o lind@post.example", "mia@post.example"))) {
        try (SourceTable source = file("Name", values)) {
          assertThat(fill(draft(on, source), "last_name")).as("%s", values).isNull();
        }
      }
      // names of something else than people
      try (SourceTable source =
          file("Boat name", List.of("Silver Wren", "Merry Heron", "Little Lass"))) {
        assertThat(draft(on, source).fills().stream().filter(f -> !f.steps().isEmpty()))
            .noneMatch(f -> f.steps().get(f.steps().size() - 1).kind() == StepKind.SPLIT);
      }
      // the file has the parts: the whole is not asked
      try (SourceTable source =
          Runs.source(
              folder, "no,Name,First,Last", "1,Ida Brandt,Ida,Brandt", "2,Mia Holm,Mia,Holm")) {
        Destination draft = draft(on, source);
        assertThat(fill(draft, "first_name").origin().columns()).containsExactly("First");
        assertThat(fill(draft, "last_name").origin().columns()).containsExactly("Last");
      }
    }
  }

  private SourceTable file(String title, List<String> names) throws IOException {
    return Runs.source(
        folder,
        Stream.concat(
                Stream.of("no," + title),
                IntStream.range(0, names.size()).mapToObj(i -> i + ",\"" + names.get(i) + "\""))
            .toArray(String[]::new));
  }

  private static Destination draft(Databases.Fresh on, SourceTable source) {
    return new PlanDraft(on.database(), source).draft(on.database().table("person")).destination();
  }

  private static @Nullable Fill fill(Destination draft, String field) {
    return draft.fills().stream()
        .filter(f -> f.field().equalsIgnoreCase(field))
        .findFirst()
        .orElse(null);
  }
}
