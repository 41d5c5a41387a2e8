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

  /** Compared with a plain map, with records that share a hash and records that come twice. */
  @Test
  void recordsAreFoundByTheirHash() {
    Random random = new Random(11);
    for (int round = 0; round < 50; round++) {
      FoundRecords found =
          new FoundRecords(
              List.of(FieldInfo.of("id", FieldType.WHOLE), FieldInfo.of("part", FieldType.TEXT)));
      Map<Long, List<List<Object>>> plain = new HashMap<>();
      int hashes = 1 + random.nextInt(300);
      for (int i = 0; i < 300; i++) {
        long hashed = 1 + random.nextInt(hashes);
        List<Object> key = List.of(new BigDecimal(random.nextInt(40)), "p" + random.nextInt(2));
        found.add(hashed, new ValueColumn[] {null, column(key.get(0)), column(key.get(1))}, 1, 0);
        List<List<Object>> all = plain.computeIfAbsent(hashed, h -> new ArrayList<>());
        if (!all.contains(key)) {
          all.add(key);
        }
      }
      found.settle();
      for (long hashed = 1; hashed <= hashes; hashed++) {
        assertThat(found.of(hashed))
            .containsExactlyInAnyOrderElementsOf(plain.getOrDefault(hashed, List.of()));
      }
      assertThat(found.isEmpty()).isFalse();
    }
  }
}
