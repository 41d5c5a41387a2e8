package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.Lookups;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.ValueColumn;

class KeptAnswersTest {
  private static final FieldInfo ID = FieldInfo.of("id", FieldType.WHOLE);
  private static final FieldInfo NAME = FieldInfo.of("name", FieldType.TEXT);
  private static final FieldInfo OTHER = FieldInfo.of("name_of_old", FieldType.TEXT);
  private static final TableInfo TABLE =
      new TableInfo(null, "boat", null, List.of(ID, NAME, OTHER), List.of("id"), List.of());
  private static final Clock NOW =
      Clock.fixed(Instant.parse("2026-11-27T09:00:00Z"), ZoneOffset.UTC);

  private final Lookups through = mock(Lookups.class);
  private Object[] names = {"Petrel", "Tern"};
  private Object[] ids = {BigDecimal.ONE, BigDecimal.TEN};

  @BeforeEach
  void answer() {
    doAnswer(
            call -> {
              Ask ask = call.getArgument(0);
              Consumer<ValueColumn[]> found = call.getArgument(1);
              ValueColumn[] columns =
                  ask.fields().stream()
                      .map(
                          f ->
                              f.equals(ID)
                                  ? ValueColumn.of(ids, null)
                                  : ValueColumn.of(names, null))
                      .toArray(ValueColumn[]::new);
              found.accept(columns);
              return null;
            })
        .when(through)
        .look(any(), any());
  }

  private static List<String> told(Lookups lookups, Ask ask) {
    List<String> told = new ArrayList<>();
    lookups.look(
        ask,
        found -> {
          for (int at = 0; at < found[0].rows(); at++) {
            StringBuilder row = new StringBuilder();
            for (ValueColumn column : found) {
              row.append(column.value(at)).append(' ');
            }
            told.add(row.toString().strip());
          }
        });
    return told;
  }

  @Test
  void whatWasAskedIsNotAskedAgain() {
    KeptAnswers kept = new KeptAnswers(through, NOW, Duration.ofMinutes(1), 10_000);
    Ask all = Ask.all(TABLE, List.of(NAME, ID));
    assertThat(told(kept, all)).containsExactly("Petrel 1", "Tern 10");
    assertThat(told(kept, Ask.all(TABLE, List.of(NAME, ID))))
        .containsExactly("Petrel 1", "Tern 10");
    // less of the same records
    assertThat(told(kept, Ask.all(TABLE, List.of(ID)))).containsExactly("1", "10");
    verify(through, times(1)).look(any(), any());
  }

  @Test
  void recordsByKeyAnswerOnlyTheSameQuestion() {
    KeptAnswers kept = new KeptAnswers(through, NOW, Duration.ofMinutes(1), 10_000);
    told(kept, Ask.keyed(TABLE, List.of(ID), List.of(NAME), List.of(List.of("Tern"))));
    told(kept, Ask.keyed(TABLE, List.of(ID), List.of(NAME), List.of(List.of("Tern"))));
    verify(through, times(1)).look(any(), any());
    told(kept, Ask.keyed(TABLE, List.of(ID), List.of(NAME), List.of(List.of("Petrel"))));
    told(kept, Ask.all(TABLE, List.of(ID)));
    verify(through, times(3)).look(any(), any());
  }

  /** A clock that goes on when it is told to, and answers that are asked anew when they are. */
  private final class Going {
    private final Clock clock = mock(Clock.class);
    private final List<Runnable> meanwhile = new ArrayList<>();
    private final KeptAnswers kept =
        new KeptAnswers(through, clock, Duration.ofMinutes(1), 10_000, meanwhile::add);

    void at(int seconds) {
      when(clock.instant()).thenReturn(NOW.instant().plusSeconds(seconds));
    }
  }

  @Test
  void whoGoesOnAskingNeedNotWait() {
    Going going = new Going();
    Ask all = Ask.all(TABLE, List.of(NAME, ID));
    for (int second : new int[] {0, 29, 31, 40}) {
      going.at(second);
      assertThat(told(going.kept, all)).hasSize(2);
    }
    verify(through, times(1)).look(any(), any());
    going.meanwhile.forEach(Runnable::run);
    assertThat(going.meanwhile).hasSize(1);
    verify(through, times(2)).look(any(), any());
    // it holds for as long again, and what follows from it since the first time
    going.at(99);
    assertThat(going.kept.since(all)).isEqualTo(NOW.instant());
    told(going.kept, all);
    verify(through, times(2)).look(any(), any());
    going.at(101);
    assertThat(going.kept.since(all)).isNull();
  }

  @Test
  void whatIsPartOfSeveralAnswersIsToldByTheSameEachTime() {
    Going going = new Going();
    going.at(0);
    told(going.kept, Ask.all(TABLE, List.of(NAME, ID)));
    going.at(5);
    told(going.kept, Ask.all(TABLE, List.of(ID, NAME, OTHER)));
    for (int i = 0; i < 3; i++) {
      told(going.kept, Ask.all(TABLE, List.of(ID)));
      assertThat(going.kept.since(Ask.all(TABLE, List.of(ID)))).isEqualTo(NOW.instant());
    }
    verify(through, times(2)).look(any(), any());
  }

  @Test
  void whatIsKnownInPartsIsPutTogether() {
    Going going = new Going();
    Ask both = Ask.all(TABLE, List.of(NAME, OTHER, ID));
    going.at(0);
    told(going.kept, Ask.all(TABLE, List.of(NAME, ID)));
    going.at(5);
    told(going.kept, Ask.all(TABLE, List.of(ID, OTHER)));
    assertThat(told(going.kept, both)).containsExactly("Petrel Petrel 1", "Tern Tern 10");
    verify(through, times(2)).look(any(), any());
    // it changes when any part of it does, and is too old when any part of it is
    assertThat(going.kept.since(both)).isEqualTo(NOW.instant().plusSeconds(5));
    going.at(61);
    assertThat(going.kept.since(both)).isNull();
  }

  @Test
  void whatTellsOfOtherRecordsIsNotPutTogether() {
    Going going = new Going();
    going.at(0);
    told(going.kept, Ask.all(TABLE, List.of(NAME, ID)));
    ids = new Object[] {BigDecimal.ONE, BigDecimal.valueOf(2)};
    told(going.kept, Ask.all(TABLE, List.of(OTHER, ID)));
    assertThat(told(going.kept, Ask.all(TABLE, List.of(NAME, OTHER))))
        .containsExactly("Petrel Petrel", "Tern Tern");
    verify(through, times(3)).look(any(), any());
  }

  @Test
  void whatHasChangedMeanwhileIsToldNextTime() {
    Going going = new Going();
    Ask all = Ask.all(TABLE, List.of(NAME, ID));
    going.at(0);
    told(going.kept, all);
    names = new Object[] {"Petrel", "Skua"};
    going.at(31);
    assertThat(told(going.kept, all)).containsExactly("Petrel 1", "Tern 10");
    going.meanwhile.forEach(Runnable::run);
    assertThat(told(going.kept, all)).containsExactly("Petrel 1", "Skua 10");
    assertThat(going.kept.since(all)).isEqualTo(NOW.instant().plusSeconds(31));
  }

  @Test
  void whatCannotBeAskedAnewIsToldToWhoAsksNext() {
    Going going = new Going();
    Ask all = Ask.all(TABLE, List.of(NAME, ID));
    going.at(0);
    told(going.kept, all);
    going.at(31);
    told(going.kept, all);
    doThrow(ErrorCode.DATABASE_PORT.error("gone")).when(through).look(any(), any());
    going.meanwhile.forEach(Runnable::run);
    assertThat(told(going.kept, all)).hasSize(2);
    going.at(61);
    assertThatThrownBy(() -> told(going.kept, all)).hasMessageContaining("gone");
  }

  @Test
  void whatTakesTooMuchRoomIsNotKept() {
    KeptAnswers kept = new KeptAnswers(through, NOW, Duration.ofMinutes(1), 100);
    Ask all = Ask.all(TABLE, List.of(NAME, ID));
    assertThat(told(kept, all)).hasSize(2);
    assertThat(told(kept, all)).hasSize(2);
    verify(through, times(2)).look(any(), any());
  }

  @Test
  void theOldestGivesWayToTheNewest() {
    KeptAnswers kept = new KeptAnswers(through, NOW, Duration.ofMinutes(1), 400);
    Ask names = Ask.all(TABLE, List.of(NAME));
    for (int i = 0; i < 20; i++) {
      told(kept, Ask.keyed(TABLE, List.of(ID), List.of(NAME), List.of(List.of("boat " + i))));
    }
    told(kept, names);
    told(kept, names);
    verify(through, times(21)).look(any(), any());
    told(kept, Ask.keyed(TABLE, List.of(ID), List.of(NAME), List.of(List.of("boat 0"))));
    verify(through, times(22)).look(any(), any());
  }
}
