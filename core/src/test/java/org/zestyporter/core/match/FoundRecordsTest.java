package org.zestyporter.core.match;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.value.ValueColumn;

class FoundRecordsTest {

  private static ValueColumn column(Object value) {
    return ValueColumn.of(new Object[] {value}, null);
  }

  /** Compared with a plain map, with records that share a place and records that come twice. */
  @Test
  void recordsAreFoundByTheirPlace() {
    Random random = new Random(11);
    for (int round = 0; round < 50; round++) {
      FoundRecords found =
          new FoundRecords(
              List.of(FieldInfo.of("id", FieldType.WHOLE), FieldInfo.of("part", FieldType.TEXT)));
      Map<Integer, List<List<Object>>> plain = new HashMap<>();
      int size = 1 + random.nextInt(300);
      for (int i = 0; i < 300; i++) {
        int place = random.nextInt(size);
        List<Object> key = List.of(new BigDecimal(random.nextInt(40)), "p" + random.nextInt(2));
        found.add(place, new ValueColumn[] {null, column(key.get(0)), column(key.get(1))}, 1, 0);
        List<List<Object>> all = plain.computeIfAbsent(place, p -> new ArrayList<>());
        if (!all.contains(key)) {
          all.add(key);
        }
      }
      found.settle(size);
      for (int place = -1; place < size; place++) {
        assertThat(found.of(place))
            .containsExactlyInAnyOrderElementsOf(plain.getOrDefault(place, List.of()));
      }
      assertThat(found.isEmpty()).isFalse();
    }
  }

  /**
   * As where a key is a field of few values: the records are gone through once, not for each row.
   */
  @Test
  void aPlaceMayHaveVeryManyRecords() {
    FoundRecords found = new FoundRecords(List.of(FieldInfo.of("id", FieldType.WHOLE)));
    for (int i = 0; i < 200_000; i++) {
      found.add(i % 2, new ValueColumn[] {column(new BigDecimal(i))}, 0, 0);
    }
    found.settle(2);
    List<List<Object>> even = found.of(0);
    assertThat(even).hasSize(100_000).startsWith(List.of(new BigDecimal(0)));
    assertThat(even.get(99_999)).isEqualTo(List.of(new BigDecimal(199_998)));
    assertThat(found.of(0)).isSameAs(even);
    assertThat(found.of(1)).hasSize(100_000).doesNotContain(even.get(0));
  }

  /** More records than are gathered at a time, found in another order than that of their places. */
  @Test
  void manyRecordsAreFound() {
    FoundRecords found = new FoundRecords(List.of(FieldInfo.of("id", FieldType.WHOLE)));
    int count = 150_000;
    for (int i = 0; i < count; i++) {
      int place = (int) (i * 7_919L % count) * 2;
      found.add(place, new ValueColumn[] {column(new BigDecimal(place + 5))}, 0, 0);
    }
    found.settle(count * 2);
    for (int place = 0; place < count * 2; place++) {
      List<Object> key = List.of(new BigDecimal(place + 5));
      assertThat(found.of(place)).isEqualTo(place % 2 == 0 ? List.of(key) : List.of());
    }
  }
}
