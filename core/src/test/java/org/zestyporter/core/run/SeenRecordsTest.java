package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.Lookups;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.ValueColumn;

class SeenRecordsTest {
  private static final FieldInfo ID = FieldInfo.of("id", FieldType.WHOLE);
  private static final FieldInfo NAME = FieldInfo.of("name", FieldType.TEXT);
  private static final FieldInfo SAILS = FieldInfo.of("sails", FieldType.BOOLEAN);
  private static final TableInfo BOATS =
      new TableInfo(null, "boat", null, List.of(ID, NAME, SAILS), List.of("id"), List.of());
  private static final TableInfo KEYLESS =
      new TableInfo(null, "log", null, List.of(ID, NAME, SAILS), List.of(), List.of());
  private static final int PIECE = 100;
  private static final int RECORDS = 250;
  private static final long ROOM = 1 << 20;

  private final Lookups through = mock(Lookups.class);

  private static Object value(FieldInfo field, int number) {
    if (field.equals(ID)) {
      return BigDecimal.valueOf(number * 3L);
    }
    return field.equals(NAME) ? number % 7 == 0 ? null : name(number) : number % 2 == 0;
  }

  private static String name(int number) {
    return "Boat " + number + ", which is laid up ashore for the whole winter";
  }

  /** Answers in pieces of a hundred records. */
  @BeforeEach
  void answer() {
    when(through.count(any())).thenReturn((long) RECORDS);
    doAnswer(
            call -> {
              Ask ask = call.getArgument(0);
              Consumer<ValueColumn[]> found = call.getArgument(1);
              for (int from = 0; from < RECORDS; from += PIECE) {
                int count = Math.min(PIECE, RECORDS - from);
                ValueColumn[] columns = new ValueColumn[ask.fields().size()];
                for (int f = 0; f < columns.length; f++) {
                  Object[] values = new Object[count];
                  for (int i = 0; i < count; i++) {
                    values[i] = value(ask.fields().get(f), from + i);
                  }
                  columns[f] = ValueColumn.of(values, null);
                }
                found.accept(columns);
              }
              return null;
            })
        .when(through)
        .look(any(), any());
    when(through.fetch(any(), any())).thenReturn(Records.none());
  }

  private SeenRecords seen(Predicate<TableInfo> kept, long room, AtomicLong left) {
    return new SeenRecords(through, kept, 100, room, left);
  }

  private static List<String> names(Lookups lookups, TableInfo table) {
    List<String> told = new ArrayList<>();
    lookups.look(
        Ask.all(table, List.of(NAME, ID)),
        found -> {
          for (int at = 0; at < found[0].rows(); at++) {
            told.add(found[0].value(at) + " " + found[1].value(at));
          }
        });
    return told;
  }

  private static List<Object> key(int number) {
    return List.of(ID.storage().canonical(BigDecimal.valueOf(number * 3L)));
  }

  @Test
  void recordsThatWereGoneThroughAreNotAskedForAgain() {
    try (SeenRecords seen = seen(BOATS::equals, ROOM, new AtomicLong(ROOM))) {
      assertThat(names(seen, BOATS)).hasSize(RECORDS).contains(name(8) + " 24", "null 21");
      List<List<Object>> keys =
          List.of(key(249), key(0), key(100), key(99), key(100), List.of(BigDecimal.ONE));
      Records found = seen.fetch(BOATS, keys);
      assertThat(found.values(key(249))).containsExactly(new BigDecimal("747"), name(249), false);
      assertThat(found.values(key(100))).containsExactly(new BigDecimal("300"), name(100), true);
      assertThat(found.values(key(99))).containsExactly(new BigDecimal("297"), name(99), false);
      assertThat(found.values(key(0))).containsExactly(new BigDecimal("0"), null, true);
      assertThat(found.values(List.of(BigDecimal.ONE))).isNull();
      assertThat(names(seen, BOATS)).hasSize(RECORDS).contains(name(8) + " 24");
    }
    verify(through, times(1)).look(any(), any());
    verify(through, never()).fetch(any(), any());
  }

  @Test
  void whatHasNoRoomIsAskedFor() {
    // the first is seen beforehand to need more, the second while it is read
    for (long room : new long[] {8_000, 20_000}) {
      try (SeenRecords seen = seen(BOATS::equals, room, new AtomicLong(ROOM))) {
        assertThat(names(seen, BOATS)).hasSize(RECORDS);
        assertThat(seen.fetch(BOATS, List.of(key(1)))).isSameAs(Records.none());
      }
    }
    verify(through, times(2)).fetch(any(), any());
  }

  /** For a few rows it takes longer to read a large table than to ask for their records. */
  @Test
  void aTableThatIsMuchLargerThanTheFileIsNotRead() {
    when(through.count(BOATS)).thenReturn(5_401L, 5_400L);
    try (SeenRecords seen = seen(BOATS::equals, Long.MAX_VALUE, new AtomicLong(Long.MAX_VALUE))) {
      names(seen, BOATS);
      assertThat(seen.hasSeen(BOATS)).isFalse();
      names(seen, BOATS);
      assertThat(seen.hasSeen(BOATS)).isTrue();
    }
  }

  @Test
  void allThatAreOpenShareTheirRoomAndGiveItBack() {
    AtomicLong left = new AtomicLong(40_000);
    try (SeenRecords first = seen(BOATS::equals, ROOM, left)) {
      names(first, BOATS);
      assertThat(first.fetch(BOATS, List.of(key(1))).values(key(1))).contains(name(1));
      try (SeenRecords second = seen(BOATS::equals, ROOM, left)) {
        assertThat(names(second, BOATS)).hasSize(RECORDS);
        assertThat(second.fetch(BOATS, List.of(key(1)))).isSameAs(Records.none());
      }
    }
    try (SeenRecords third = seen(BOATS::equals, ROOM, left)) {
      names(third, BOATS);
      assertThat(third.fetch(BOATS, List.of(key(1))).values(key(1))).contains(name(1));
    }
    assertThat(left).hasValue(40_000);
  }

  @Test
  void recordsThatMayHoldFilesAreNotReadAsAWhole() {
    FieldInfo photo = ID.withStorage(Storage.of(Storage.Kind.BINARY)).withName("photo");
    TableInfo table =
        new TableInfo(null, "boat", null, List.of(ID, photo), List.of("id"), List.of());
    try (SeenRecords seen = seen(t -> true, ROOM, new AtomicLong(ROOM))) {
      seen.look(Ask.all(table, List.of(ID)), found -> {});
    }
    verify(through).look(eq(Ask.all(table, List.of(ID))), any());
  }

  @Test
  void otherTablesAndSomeRecordsAreAskedForAsEver() {
    try (SeenRecords seen = seen(t -> true, ROOM, new AtomicLong(ROOM))) {
      names(seen, KEYLESS);
      seen.fetch(KEYLESS, List.of(key(1)));
      seen.look(Ask.keyed(BOATS, List.of(NAME), List.of(ID), List.of(key(1))), found -> {});
      seen.fetch(BOATS, List.of(key(1)));
    }
    try (SeenRecords seen = seen(t -> false, ROOM, new AtomicLong(ROOM))) {
      names(seen, BOATS);
      seen.fetch(BOATS, List.of(key(1)));
    }
    verify(through, times(3)).fetch(any(), any());
  }

  /** What will be asked for is read while nobody waits; who asks meanwhile waits for it. */
  @Test
  void recordsThatAreExpectedAreReadByTheTimeTheyAreAskedFor() {
    try (SeenRecords seen = seen(BOATS::equals, ROOM, new AtomicLong(ROOM))) {
      seen.expect(BOATS);
      assertThat(seen.hasSeen(BOATS)).isTrue();
      assertThat(seen.hasSeen(KEYLESS)).isFalse();
      assertThat(names(seen, BOATS)).hasSize(RECORDS);
      assertThat(seen.fetch(BOATS, List.of(key(5))).values(key(5))).contains(name(5));
      // as it is now, it is only told by who keeps it
      when(through.fetchNow(any(), any())).thenReturn(Records.none());
      assertThat(seen.fetchNow(BOATS, List.of(key(5))).count()).isZero();
    }
    verify(through, times(1)).look(any(), any());
    verify(through, never()).fetch(any(), any());
  }

  @Test
  void whyExpectedRecordsCouldNotBeReadIsToldToWhoAsks() {
    doThrow(ErrorCode.DATABASE_SLOW.error("It took too long.")).when(through).look(any(), any());
    try (SeenRecords seen = seen(BOATS::equals, ROOM, new AtomicLong(ROOM))) {
      seen.expect(BOATS);
      assertThatThrownBy(() -> names(seen, BOATS)).hasMessageContaining("It took too long.");
    }
  }

  /** Nobody may use the connection as long as something is read from it. */
  @Test
  void whatIsBeingReadEndsBeforeItIsClosed() throws InterruptedException {
    AtomicLong left = new AtomicLong(ROOM);
    AtomicBoolean isReading = new AtomicBoolean();
    CountDownLatch begun = new CountDownLatch(1);
    ValueColumn[] piece = {
      ValueColumn.of(new Object[] {BigDecimal.ONE}, null),
      ValueColumn.of(new Object[] {"Anna"}, null),
      ValueColumn.of(new Object[] {true}, null)
    };
    doAnswer(
            call -> {
              Consumer<ValueColumn[]> found = call.getArgument(1);
              isReading.set(true);
              try {
                begun.countDown();
                for (int i = 0; i < 100_000; i++) {
                  found.accept(piece);
                  Thread.sleep(1);
                }
              } finally {
                isReading.set(false);
              }
              return null;
            })
        .when(through)
        .look(any(), any());
    try (SeenRecords seen = seen(BOATS::equals, ROOM, left)) {
      seen.expect(BOATS);
      begun.await();
      assertThat(isReading).isTrue();
    }
    assertThat(isReading).isFalse();
    assertThat(left).hasValue(ROOM);
  }
}
