package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class ColumnMakerTest {

  private static Object any(Random random, int kind) {
    return switch (kind) {
      case 0 -> new BigDecimal(random.nextInt(9_999)).movePointLeft(2);
      case 1 -> "wörd " + random.nextInt(9);
      case 2 -> LocalDate.ofEpochDay(random.nextInt(40_000));
      case 3 -> LocalDateTime.of(2026, 1, 1, 0, 0).plusSeconds(random.nextInt(9_999));
      case 4 -> LocalTime.of(random.nextInt(24), 5);
      case 5 -> new BigDecimal("1e" + (random.nextInt(30) - 3));
      case 6 -> "half \ud800";
      default -> random.nextBoolean();
    };
  }

  /** What was put in comes out, whatever kinds follow one another and wherever blanks stand. */
  @Test
  void everyValueComesBack() {
    Random random = new Random(3);
    for (int round = 0; round < 400; round++) {
      int kinds = 1 + random.nextInt(3);
      int first = random.nextInt(8);
      List<Object> values = new ArrayList<>();
      ColumnMaker maker = new ColumnMaker();
      int size = random.nextInt(200);
      for (int i = 0; i < size; i++) {
        boolean blank = random.nextInt(4) == 0 || i < size / 3 && round % 5 == 0;
        Object value = blank ? null : any(random, (first + random.nextInt(kinds)) % 8);
        values.add(value);
        if (value instanceof String text && random.nextBoolean() && text.startsWith("w")) {
          byte[] bytes = ("__" + text + "__").getBytes(StandardCharsets.UTF_8);
          maker.text(bytes, 2, bytes.length - 2);
        } else if (value instanceof LocalDate day && random.nextBoolean()) {
          maker.date(day.toEpochDay());
        } else if (value instanceof BigDecimal n && n.scale() == 2 && random.nextBoolean()) {
          maker.number(n.unscaledValue().longValueExact(), 2);
        } else {
          maker.put(value);
        }
      }
      ValueColumn column = maker.column();
      assertThat(maker.count()).isEqualTo(size);
      assertThat(column.rows()).isEqualTo(size);
      for (int i = 0; i < size; i++) {
        assertThat(column.value(i)).as("round %d, value %d", round, i).isEqualTo(values.get(i));
        assertThat(column.isBlank(i)).isEqualTo(values.get(i) == null);
      }
    }
  }

  /** Columns of one kind, of several kinds and of nothing but blanks are joined, coded ones too. */
  @Test
  void joinedColumnsHoldTheirRowsOneAfterTheOther() {
    Random random = new Random(5);
    for (int round = 0; round < 400; round++) {
      int kinds = 1 + random.nextInt(2);
      int first = random.nextInt(8);
      List<Object> values = new ArrayList<>();
      List<ValueColumn> columns = new ArrayList<>();
      for (int c = 1 + random.nextInt(4); c > 0; c--) {
        ColumnMaker maker = new ColumnMaker();
        int blanks = random.nextInt(4);
        for (int i = random.nextInt(30); i >= 0; i--) {
          boolean blank = random.nextInt(3) < blanks;
          maker.put(blank ? null : any(random, (first + random.nextInt(kinds)) % 8));
        }
        int[] rows = IntStream.range(0, maker.count()).map(i -> random.nextInt(i + 1)).toArray();
        ValueColumn column = maker.column();
        columns.add(random.nextInt(4) == 0 ? column.pick(rows) : column);
        for (int row = 0; row < column.rows(); row++) {
          values.add(columns.get(columns.size() - 1).value(row));
        }
      }
      ValueColumn joined = ValueColumn.joined(columns);
      assertThat(joined.rows()).isEqualTo(values.size());
      for (int i = 0; i < values.size(); i++) {
        assertThat(joined.value(i)).as("round %d, value %d", round, i).isEqualTo(values.get(i));
      }
    }
  }

  @Test
  void aColumnOfOneKindIsNarrow() {
    ColumnMaker maker = new ColumnMaker();
    maker.blank();
    maker.number(975, 2);
    maker.put(new BigDecimal("12.50"));
    assertThat(maker.column().form()).isEqualTo(ValueColumn.Form.NUMBER);
    assertThat(maker.column().scale()).isEqualTo(2);
    maker.put(new BigDecimal("1.5"));
    assertThat(maker.column().value(3)).isEqualTo(new BigDecimal("1.5"));
    assertThat(maker.column().value(1)).isEqualTo(new BigDecimal("9.75"));
  }

  @Test
  void rowsOfTwoColumnsAreEqualAsTheirValuesAre() {
    Random random = new Random(4);
    for (int round = 0; round < 200; round++) {
      int kind = random.nextInt(8);
      int other = random.nextInt(4) == 0 ? random.nextInt(8) : kind;
      Object[] left = new Object[50];
      Object[] right = new Object[50];
      for (int i = 0; i < 50; i++) {
        left[i] = random.nextInt(5) == 0 ? null : any(random, kind);
        right[i] = random.nextInt(3) == 0 ? left[i] : any(random, other);
        right[i] = random.nextInt(5) == 0 ? null : right[i];
      }
      ValueColumn a = ValueColumn.of(left, null);
      ValueColumn b = ValueColumn.of(right, null);
      int[] picked = random.ints(30, 0, 50).toArray();
      ValueColumn some = b.pick(picked);
      for (int i = 0; i < 30; i++) {
        int row = random.nextInt(50);
        assertThat(a.isEqual(row, some, i))
            .isEqualTo(java.util.Objects.equals(left[row], right[picked[i]]));
        assertThat(some.value(i)).isEqualTo(right[picked[i]]);
      }
    }
  }
}
