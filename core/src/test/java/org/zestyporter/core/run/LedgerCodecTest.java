package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.ByteBuffer;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.zip.Deflater;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.value.ColumnCodec;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

class LedgerCodecTest {
  private static final LedgerLayout LAYOUT =
      new LedgerLayout(
          1, "x", "thing", List.of("id", "a", "b"), List.of("a", "b"), List.of(1, 2), List.of(0));

  private static Object value(Random random, int kind) {
    return switch (kind) {
      case 0 -> "text " + random.nextInt(5) + "é☃😀";
      case 1 -> new BigDecimal(random.nextInt(2_000_000) - 1_000_000).movePointLeft(3);
      case 2 -> LocalDate.ofEpochDay(random.nextInt(40_000) - 10_000);
      case 3 -> LocalDateTime.of(2026, 1, 1, 0, 0).plusSeconds(random.nextInt(99_999_999));
      case 4 -> LocalTime.ofSecondOfDay(random.nextInt(86_400));
      case 5 -> random.nextBoolean();
      case 6 -> OffsetDateTime.of(2026, 1, 1, 1, 2, 3, random.nextInt(999), ZoneOffset.UTC);
      case 7 -> new BigDecimal("1e" + random.nextInt(30));
      default -> value(random, random.nextInt(8));
    };
  }

  @SuppressWarnings("unchecked")
  private static LedgerChunk chunk(Random random, int size, int kind) {
    long line = 1;
    LedgerChunk made =
        new LedgerChunk(
            LAYOUT,
            random.nextInt(1_000_000),
            new long[size],
            IntStream.range(0, size).map(i -> i / 2).toArray(),
            random.nextBoolean() ? null : IntStream.range(0, size).map(i -> i % 2).toArray(),
            new byte[size],
            new byte[size],
            new List[size],
            new ValueColumn[2],
            new BitSet(),
            new ValueColumn[3],
            new BitSet(),
            new ValueColumn[3],
            new int[size][],
            new List[size]);
    for (int f = 0; f < 2; f++) {
      Object[] values = new Object[size];
      for (int i = 0; i < size; i++) {
        values[i] = random.nextInt(9) == 0 ? null : value(random, kind);
      }
      made.after()[f] = ValueColumn.of(values, null);
    }
    ColumnMaker[] before = {new ColumnMaker(), new ColumnMaker(), new ColumnMaker()};
    ColumnMaker[] left = {new ColumnMaker(), new ColumnMaker(), new ColumnMaker()};
    for (int i = 0; i < size; i++) {
      line += 1 + random.nextInt(3);
      made.lines()[i] = line;
      made.outcomes()[i] = (byte) random.nextInt(Outcome.values().length);
      made.matchedBy()[i] = (byte) random.nextInt(3);
      if (random.nextBoolean()) {
        made.keys()[i] = List.of(new BigDecimal(random.nextInt(100)), value(random, kind));
        Object same = random.nextBoolean() ? made.after()[0].value(i) : value(random, kind);
        made.stood().set(i);
        before[0].put(value(random, kind));
        before[1].put(same);
        before[2].put(random.nextInt(5) == 0 ? null : value(random, kind));
        made.changed()[i] = new int[] {1};
      } else {
        Arrays.stream(before).forEach(ColumnMaker::blank);
      }
      boolean isWritten = random.nextInt(3) > 0;
      made.written().set(i, isWritten);
      for (int f = 0; f < 3; f++) {
        Object usual = f == 0 ? null : made.after()[f - 1].value(i);
        left[f].put(!isWritten ? null : random.nextInt(3) == 0 ? value(random, kind) : usual);
      }
      if (random.nextInt(4) == 0) {
        made.notes()[i] =
            List.of(
                new LedgerEntry.Note(ProblemCode.TAKEN, null, "ü", "why", true, false),
                new LedgerEntry.Note(ProblemCode.CHECK, "a", null, "", false, true));
      }
    }
    Arrays.setAll(made.before(), f -> before[f].column());
    Arrays.setAll(made.left(), f -> left[f].column());
    return made;
  }

  @ParameterizedTest
  @ValueSource(ints = {0, 1, 2, 3, 4, 5, 6, 7, 8})
  void everythingComesBackWithItsType(int kind) {
    for (int seed = 0; seed < 20; seed++) {
      LedgerChunk chunk = chunk(new Random(seed), 1 + seed * 7, kind);
      byte[] packed = LedgerCodec.encode(chunk);
      assertThat(LedgerCodec.isOurs(packed)).isTrue();
      LedgerChunk read = LedgerCodec.decode(packed, LAYOUT);
      assertThat(read.entries()).isEqualTo(List.copyOf(chunk.entries()));
      assertThat(Arrays.asList(read.keys())).isEqualTo(Arrays.asList(chunk.keys()));
      assertThat(read.stood()).isEqualTo(chunk.stood());
      assertThat(read.written()).isEqualTo(chunk.written());
      assertSame(chunk.stood(), read.before(), chunk.before());
      assertSame(chunk.written(), read.left(), chunk.left());
      LedgerChunk rows = LedgerCodec.decodeRows(packed, LAYOUT);
      assertThat(rows.outcomes()).isEqualTo(chunk.outcomes());
      assertThat(rows.lines()).isEqualTo(chunk.lines());
      assertThat(rows.notes()).isEqualTo(chunk.notes());
      assertThat(rows.changed()).isDeepEqualTo(chunk.changed());
      assertThat(rows.left()).isEmpty();
      for (int f = 0; f < 2; f++) {
        for (int i = 0; i < chunk.size(); i++) {
          assertThat(read.after()[f].value(i)).isEqualTo(chunk.after()[f].value(i));
          assertThat(rows.after()[f].value(i)).isEqualTo(chunk.after()[f].value(i));
        }
      }
    }
  }

  private static void assertSame(BitSet entries, ValueColumn[] read, ValueColumn[] made) {
    for (int i = entries.nextSetBit(0); i >= 0; i = entries.nextSetBit(i + 1)) {
      for (int f = 0; f < made.length; f++) {
        assertThat(read[f].value(i)).isEqualTo(made[f].value(i));
      }
    }
  }

  @Test
  void repeatedValuesAndWhatIsNotThereTakeHardlyAnyRoom() {
    int size = 4_096;
    Object[] same = new Object[size];
    Arrays.setAll(same, i -> "the same text " + i % 3);
    LedgerChunk empty = chunk(new Random(1), size, 0);
    Arrays.fill(empty.outcomes(), (byte) 0);
    Arrays.fill(empty.matchedBy(), (byte) 0);
    Arrays.fill(empty.keys(), null);
    empty.stood().clear();
    empty.written().clear();
    Arrays.fill(empty.changed(), null);
    Arrays.fill(empty.notes(), null);
    Arrays.setAll(empty.lines(), i -> i + 2);
    empty.after()[0] = ValueColumn.of(same, null);
    empty.after()[1] = ValueColumn.of(same, null);
    assertThat(LedgerCodec.encode(empty).length).isLessThan(size);
  }

  @Test
  void recordsLeftAsTheyWereGivenAreToldAsSuchHoweverThatIsKnown() {
    LedgerChunk same = chunk(new Random(5), 500, 0);
    same.stood().clear();
    Arrays.fill(same.changed(), null);
    same.written().set(0, 500);
    LedgerChunk equal = chunk(new Random(5), 500, 0);
    equal.stood().clear();
    Arrays.fill(equal.changed(), null);
    equal.written().set(0, 500);
    for (int f = 1; f < 3; f++) {
      ValueColumn given = same.after()[f - 1];
      Object[] values = new Object[500];
      Arrays.setAll(values, given::value);
      same.left()[f] = given;
      equal.left()[f] = ValueColumn.of(values, null);
    }
    equal.left()[0] = same.left()[0];
    byte[] packed = LedgerCodec.encode(same);
    assertThat(packed).isEqualTo(LedgerCodec.encode(equal));
    LedgerChunk read = LedgerCodec.decode(packed, LAYOUT);
    assertSame(same.written(), read.left(), same.left());
  }

  @Test
  void aLedgerThatWasPackedAsBeforeIsRead() {
    LedgerChunk chunk = chunk(new Random(7), 300, 8);
    byte[] packed = LedgerCodec.encode(chunk);
    int length = ByteBuffer.wrap(packed).getInt(1);
    byte[] plain = Packing.unpack(packed, 5, length);
    Deflater deflater = new Deflater(3, true);
    deflater.setInput(plain);
    deflater.finish();
    byte[] old = new byte[length * 2];
    ByteBuffer.wrap(old).put((byte) 2).putInt(length);
    int size = 5 + deflater.deflate(old, 5, old.length - 5);
    byte[] before = Arrays.copyOf(old, size);
    assertThat(LedgerCodec.isOurs(before)).isTrue();
    assertThat(LedgerCodec.holdsLeft(before)).isTrue();
    LedgerChunk read = LedgerCodec.decode(before, LAYOUT);
    assertThat(read.entries()).isEqualTo(List.copyOf(chunk.entries()));
    assertSame(chunk.written(), read.left(), chunk.left());
  }

  @Test
  void theLargestNumbersComeBack() {
    long most = 999_999_999_999_999_999L;
    for (long[] longs :
        new long[][] {
          {most, -most, 0, 1, -1},
          {5, 5, 5},
          {ValueColumn.BLANK, most},
          {1L << 33, 1, (1L << 32) + 7}
        }) {
      Utf8 out = new Utf8(8);
      ColumnCodec.write(ValueColumn.numbers(longs, 2, null), out);
      ValueColumn read =
          ColumnCodec.read(
              new ColumnCodec.Input(Arrays.copyOf(out.array(), out.size())), longs.length);
      for (int i = 0; i < longs.length; i++) {
        assertThat(read.number(i)).isEqualTo(longs[i]);
      }
    }
  }
}
