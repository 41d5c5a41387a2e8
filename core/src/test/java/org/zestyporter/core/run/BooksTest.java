package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.math.BigDecimal;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.value.ProblemCode;

/** Books that can fail to balance. */
class BooksTest {
  private static final List<String> FIELDS = List.of("name", "feet");

  private final Books books = new Books("boat");

  private void count(Outcome outcome, List<Integer> changed, LedgerEntry.Note... notes) {
    books.came(1);
    books.add(outcome);
    books.count(outcome, 2, List.of(notes));
    changed.forEach(f -> books.changed(FIELDS.get(f)));
  }

  private static LedgerEntry.Note note(String value, boolean softened) {
    return new LedgerEntry.Note(ProblemCode.NOT_A_NUMBER, "feet", value, "no number", softened);
  }

  @Test
  void balanceWhenEveryRowIsAccountedFor() {
    for (Outcome outcome : Outcome.values()) {
      // only an undo removes records, and keeps books of its own
      if (outcome != Outcome.REMOVED) {
        count(outcome, List.of());
      }
    }
    assertThat(books.balanced()).isTrue();
    books.came(1);
    assertThat(books.balanced()).as("a row too few").isFalse();
    books.add(Outcome.NEW);
    books.add(Outcome.NEW);
    assertThat(books.balanced()).as("a row too many").isFalse();
  }

  private static FieldInfo feet() {
    return FieldInfo.of("feet", FieldType.DECIMAL).withPrecision(6).withScale(2);
  }

  @Test
  void whatTheApplicationChangesHasItsPlaceInTheEquation() {
    books.total(feet(), new BigDecimal("9.50"), new BigDecimal("9.5"), false);
    books.total(feet(), new BigDecimal("9.50"), new BigDecimal("9.4"), false);
    assertThat(books.balanced()).isTrue();
    RunReport.ControlTotal total = books.controlTotals().get(0);
    assertThat(total.source()).isEqualByComparingTo("19");
    assertThat(total.altered()).isEqualByComparingTo("-0.1");
    assertThat(total.written()).isEqualByComparingTo("18.9");
  }

  @Test
  void doNotBalanceWhenARecordIsGone() {
    books.total(feet(), BigDecimal.ONE, null, true);
    assertThat(books.balanced()).isFalse();
  }

  /** What rejects a row's other record is told of the group only if it is the same for all. */
  @Test
  void recordsThatFollowOthersAreOneGroupWhateverRejectsThese() {
    followsFrom("rejected as owner is: no such day");
    followsFrom("rejected as owner is: no such day");
    assertThat(books.problems())
        .extracting("reason")
        .containsExactly("rejected as owner is: no such day");
    followsFrom("rejected as owner is: under 0");
    assertThat(books.problems())
        .extracting("rows", "reason")
        .containsExactly(tuple(3L, "rejected as owner is"));
  }

  private void followsFrom(String reason) {
    count(
        Outcome.REJECTED,
        List.of(),
        new LedgerEntry.Note(ProblemCode.PARENT, "owner_id", null, reason, false));
  }

  @Test
  void problemsAreGroupedByCauseMostFirst() {
    for (int i = 0; i < 3; i++) {
      count(Outcome.REJECTED, List.of(), note("tbc", false));
    }
    count(Outcome.REJECTED, List.of(), note("?", false));
    count(Outcome.NEW, List.of(), note("?", true));
    List<RunReport.ProblemGroup> groups = books.problems();
    assertThat(groups).hasSize(2);
    assertThat(groups.get(0).rows()).isEqualTo(4);
    assertThat(groups.get(0).values())
        .extracting(RunReport.Sample::value)
        .containsExactly("tbc", "?");
    assertThat(groups.get(0).values()).extracting(RunReport.Sample::rows).containsExactly(3L, 1L);
    assertThat(groups.get(1).softened()).isTrue();
  }

  @Test
  void reasonsOfSkipsAreNoProblems() {
    count(
        Outcome.SKIPPED,
        List.of(),
        new LedgerEntry.Note(ProblemCode.REPEATED, null, null, "line 9 repeats it", false));
    assertThat(books.problems()).isEmpty();
  }

  @Test
  void changedFieldsAreCounted() {
    count(Outcome.CHANGED, List.of(0, 1));
    count(Outcome.CHANGED, List.of(1));
    count(Outcome.UNCHANGED, List.of());
    assertThat(books.destination().fieldsChanged())
        .containsExactly(new RunReport.FieldCount("feet", 2), new RunReport.FieldCount("name", 1));
  }
}
