package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.zestyporter.core.run.Choir.fill;
import static org.zestyporter.core.run.Choir.members;
import static org.zestyporter.core.run.Choir.schema;
import static org.zestyporter.core.run.Choir.text;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.plan.Policies.OnMatch;
import org.zestyporter.core.plan.Policies.OnNone;
import org.zestyporter.core.plan.Policies.OnRepeat;
import org.zestyporter.core.plan.Policies.OnSeveral;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.ProblemCode;

/** What the policies of matching make of rows, in the members' list of a choir. */
class MatchPoliciesTest {
  private static final String[] ROWS = {
    "Nr;Nachname;Geboren;Stimme;Beitrag;Ort",
    "007;Adler;1980-01-02;Alt;40;Kiel",
    ";ÖZDEMIR;1975-05-05;Bass;55;",
    ";Brandt;1990-09-09;Tenor;35;Ulm",
    "99;Neumann;2001-03-04;Alt;20;",
    "099;Neumann;2001-03-04;;25;Jena",
    "99;Neumann;2001-03-04;Sopran;;",
    ";Öztürk;1999-01-01;Alt;10;Ulm",
    ";;;Alt;10;Ulm",
    "12;Cordes;1966-06-06;viel zu lange Stimme;10;Ulm"
  };

  @TempDir Path folder;

  private RunReport go(
      Databases.Fresh on, Destination destination, Ledger ledger, boolean run, String... rows)
      throws IOException {
    return Choir.go(on, folder, destination, ledger, run, rows);
  }

  /** What was rehearsed is what runs, whatever the policies; and doing it again changes nothing. */
  @ParameterizedTest
  @CsvSource({"h2", "postgresql"})
  void everyCombinationRunsAsItWasRehearsed(String database) throws SQLException, IOException {
    // the long search takes them all; a step that shares no factor meets every pair of policies
    int step = Integer.getInteger("porter.more", 0) > 0 ? 1 : database.equals("h2") ? 3 : 11;
    int number = 0;
    try (Databases.Fresh on = database.equals("h2") ? Databases.h2() : Databases.postgres()) {
      schema(on);
      for (OnMatch onMatch : OnMatch.values()) {
        for (OnNone onNone : OnNone.values()) {
          for (OnSeveral onSeveral : OnSeveral.values()) {
            for (OnRepeat onRepeat : OnRepeat.values()) {
              if (number++ % step == 0) {
                combination(on, members(onMatch, onNone, onSeveral, onRepeat));
              }
            }
          }
        }
      }
    }
    assertThat(number).isEqualTo(5 * 4 * 4 * 5);
  }

  private void combination(Databases.Fresh on, Destination members)
      throws SQLException, IOException {
    fill(on);
    Fates rehearsed = new Fates();
    RunReport rehearsal = go(on, members, rehearsed, false, ROWS);
    Fates again = new Fates();
    go(on, members, again, false, ROWS);
    Fates written = new Fates();
    RunReport run = go(on, members, written, true, ROWS);
    String which = members.policies().toString();
    assertThat(again.told()).as(which).isEqualTo(rehearsed.told());
    assertThat(written.told()).as(which).isEqualTo(rehearsed.told());
    assertThat(run.destinations()).as(which).isEqualTo(rehearsal.destinations());
    assertThat(run.balanced()).as(which).isTrue();
    RunReport.DestinationReport d = run.destinations().get(0);
    assertThat(d.added() + d.changed() + d.unchanged() + d.skipped() + d.rejected())
        .as(which)
        .isEqualTo(ROWS.length - 1);
    RunReport.DestinationReport second =
        go(on, members, new Fates(), true, ROWS).destinations().get(0);
    assertThat(second.added() + second.changed()).as(which).isZero();
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void repeatsAreMergedIntoOneRecord(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      schema(on);
      Fates ledger = new Fates();
      go(on, members(null, null, null, OnRepeat.MERGE), ledger, true, ROWS);
      assertThat(ledger.line(5).outcome()).isEqualTo(Outcome.SKIPPED);
      assertThat(ledger.line(5).notes().get(0).reason()).contains("the record of line 7");
      assertThat(ledger.line(7).outcome()).isEqualTo(Outcome.NEW);
      assertThat(text(on, "stimme", "nachname = 'Neumann'")).isEqualTo("Alt");
      assertThat(text(on, "beitrag", "nachname = 'Neumann'")).startsWith("20");
      assertThat(text(on, "ort", "nachname = 'Neumann'")).isEqualTo("Jena");
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void ofSeveralTheLatestIsTaken(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      schema(on);
      Fates ledger = new Fates();
      go(on, members(null, null, OnSeveral.LATEST, null), ledger, true, ROWS);
      assertThat(ledger.line(4).outcome()).isEqualTo(Outcome.CHANGED);
      assertThat(ledger.line(4).recordKey()).isEqualTo("5");
      assertThat(text(on, "stimme", "id = 5")).isEqualTo("Tenor");
      fill(on);
      on.execute("UPDATE mitglied SET eintritt = '2005-01-01' WHERE id = 4");
      Fates even = new Fates();
      go(on, members(null, null, OnSeveral.LATEST, null), even, false, ROWS);
      assertThat(even.line(4).outcome()).isEqualTo(Outcome.REJECTED);
      assertThat(even.line(4).notes().get(0).reason())
          .isEqualTo("3 records match it, and none of them alone has the highest eintritt");
    }
  }

  /** Who has left the choir is not looked for, so that one of several is the only one left. */
  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void onlySomeRecordsAreLookedFor(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      schema(on);
      Destination members = members(Policies.DEFAULT);
      Fates ledger = new Fates();
      go(on, members.withAmong("AND([ausgetreten]=0; [id]<>4)"), ledger, true, ROWS);
      assertThat(ledger.line(4).recordKey()).isEqualTo("3");
      assertThatThrownBy(() -> go(on, members.withAmong("[gone]=0"), new Fates(), false, ROWS))
          .isInstanceOf(PorterException.class)
          .hasMessageContaining("gone");
      assertThatThrownBy(() -> go(on, members.withAmong("[id]+1"), new Fates(), false, ROWS))
          .isInstanceOf(PorterException.class)
          .hasMessageContaining("TRUE or FALSE");
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void onlyBlanksAreFilled(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      schema(on);
      Fates ledger = new Fates();
      go(on, members(OnMatch.FILL_BLANKS, null, null, null), ledger, true, ROWS);
      assertThat(text(on, "stimme", "id = 1")).isEqualTo("Alt");
      assertThat(text(on, "ort", "id = 1")).isEqualTo("Kiel");
      assertThat(text(on, "beitrag", "id = 1")).startsWith("50");
      assertThat(ledger.line(3).outcome()).isEqualTo(Outcome.UNCHANGED);
    }
  }

  @ParameterizedTest
  @CsvSource({"LOWER, 50", "RAISE, 40"})
  void aNumberIsNeverMadeLowerOrHigher(Fill.Never never, String left)
      throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      Destination members = members(Policies.DEFAULT);
      UnaryOperator<Fill> change = f -> f.field().equals("beitrag") ? f.withNever(never) : f;
      Destination bounded = members.withFills(members.fills().stream().map(change).toList());
      Fates ledger = new Fates();
      RunReport report = go(on, bounded, ledger, true, ROWS);
      assertThat(text(on, "beitrag", "id = 1")).startsWith(left);
      if (never == Fill.Never.LOWER) {
        LedgerEntry.Note note = ledger.line(2).notes().get(0);
        assertThat(note.code()).isEqualTo(ProblemCode.KEPT);
        assertThat(note.reason()).isEqualTo("lower than “50.00”, which the record keeps");
        assertThat(report.problems()).anyMatch(p -> p.code() == ProblemCode.KEPT && p.rows() == 1);
      }
      UnaryOperator<Fill> wrong = f -> f.field().equals("ort") ? f.withNever(never) : f;
      Destination odd = members.withFills(members.fills().stream().map(wrong).toList());
      assertThatThrownBy(() -> go(on, odd, new Fates(), false, ROWS))
          .hasMessageContaining("it is no number and no date");
    }
  }

  private static Decision decision(String name, String born, Decision.Act act, String... record) {
    return new Decision(Map.of("nachname", name, "geboren", born), act, List.of(record));
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void whatSomebodyDecidesHolds(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      schema(on);
      Destination asks = members(OnMatch.UPDATE, OnNone.ASK, OnSeveral.ASK, null);
      Fates ledger = new Fates();
      RunReport report = go(on, asks, ledger, false, ROWS);
      LedgerEntry.Note question = ledger.line(4).notes().get(0);
      assertThat(question.question()).isTrue();
      assertThat(RecordKeys.of(question.value()))
          .containsExactlyInAnyOrder(List.of("3"), List.of("4"), List.of("5"));
      assertThat(report.questions())
          .extracting(RunReport.Question::code)
          .containsExactlyInAnyOrder(
              ProblemCode.SEVERAL_MATCHES, ProblemCode.NO_MATCH, ProblemCode.NO_MATCH);

      // a capital less is the same key, as the key is compared
      Destination decided =
          asks.withDecisions(
              List.of(
                  decision("BRANDT", "1990-09-09", Decision.Act.TAKE, "4"),
                  decision("Öztürk", "1999-01-01", Decision.Act.OTHER),
                  decision("Özdemir", "1975-05-05", Decision.Act.SKIP),
                  new Decision(Map.of("nummer", "99"), Decision.Act.REJECT, null)));
      Fates then = new Fates();
      RunReport after = go(on, decided, then, true, ROWS);
      assertThat(then.line(4).recordKey()).isEqualTo("4");
      assertThat(then.line(4).outcome()).isEqualTo(Outcome.CHANGED);
      assertThat(then.line(8).outcome()).isEqualTo(Outcome.NEW);
      assertThat(then.line(3).outcome()).isEqualTo(Outcome.SKIPPED);
      assertThat(then.line(7).outcome()).isEqualTo(Outcome.REJECTED);
      assertThat(then.line(7).notes().get(0).code()).isEqualTo(ProblemCode.DECIDED);
      assertThat(after.questions()).isEmpty();

      // the record that was meant is gone: it is asked anew
      on.execute("DELETE FROM mitglied WHERE id = 4");
      Fates gone = new Fates();
      go(on, decided, gone, false, ROWS);
      assertThat(gone.line(4).notes().get(0).question()).isTrue();
    }
  }

  /** Without a key nobody can be asked which record is meant: every row is a new one. */
  @Test
  void withoutAKeyThereIsNothingToAsk() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      Destination members =
          members(OnMatch.ASK, OnNone.ASK, OnSeveral.ASK, OnRepeat.MERGE).withKeys(List.of());
      RunReport report = go(on, members, new Fates(), false, ROWS);
      assertThat(report.destinations().get(0).added()).isEqualTo(ROWS.length - 2);
      assertThat(report.questions()).isEmpty();
    }
  }

  /** That a row speaks of another record lets the next key be asked. */
  @Test
  void whatIsNotTheSameIsLookedForByTheNextKey() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      Destination members =
          members(Policies.DEFAULT)
              .withDecisions(
                  List.of(new Decision(Map.of("nummer", "7"), Decision.Act.OTHER, null)));
      Fates ledger = new Fates();
      String titles = "Nr;Nachname;Geboren;Stimme;Beitrag;Ort";
      go(on, members, ledger, false, titles, "7;Adler;1980-01-02;;;", "7;X;1980-01-02;;;");
      // both rows hold number 7, so the last one is kept; by name nobody is found
      assertThat(ledger.line(3).outcome()).isEqualTo(Outcome.NEW);
      Fates alone = new Fates();
      go(on, members, alone, false, titles, "7;Adler;1980-01-02;;;");
      assertThat(alone.line(2).matchedBy()).isEqualTo(2);
    }
  }

  @Test
  void keysOfRecordsAreOneText() {
    List<List<Object>> keys =
        List.of(List.of("A; B|C\\", "1"), List.of("x", "2"), List.of("", "3"));
    assertThat(RecordKeys.of(RecordKeys.text(keys)))
        .containsExactly(List.of("A; B|C\\", "1"), List.of("x", "2"), List.of("", "3"));
  }
}
