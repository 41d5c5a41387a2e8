package org.zestyporter.core.application;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.value.ColumnMaker;

class RecordsTest {

  private static Records records(TableInfo table, Object[]... values) {
    ColumnMaker[] columns = new ColumnMaker[table.fields().size()];
    for (int f = 0; f < columns.length; f++) {
      columns[f] = new ColumnMaker();
      for (Object[] record : values) {
        columns[f].put(record[f]);
      }
    }
    return Records.of(table, columns);
  }

  private static TableInfo table(FieldType key, String... keys) {
    return new TableInfo(
        null,
        "boat",
        null,
        List.of(
            FieldInfo.of("name", FieldType.TEXT),
            FieldInfo.of("id", key),
            FieldInfo.of("part", FieldType.TEXT)),
        List.of(keys),
        List.of());
  }

  private static BigDecimal n(String number) {
    return new BigDecimal(number);
  }

  @Test
  void recordsAreFoundByANumber() {
    Records found =
        records(
            table(FieldType.WHOLE, "id"),
            new Object[] {"Heron", n("7"), null},
            new Object[] {"Tern", n("0"), "b"},
            new Object[] {null, n("-3"), "c"});
    assertThat(found.count()).isEqualTo(3);
    assertThat(found.values(List.of(n("7")))).containsExactly("Heron", n("7"), null);
    assertThat(found.at(List.of(n("0")))).isEqualTo(1);
    assertThat(found.at(List.of(n("-3")))).isEqualTo(2);
    assertThat(found.at(List.of(n("3")))).isNegative();
    assertThat(found.at(List.of(n("1e40")))).isNegative();
    assertThat(found.at(List.of(n("0.7")))).isNegative();
    assertThat(found.at(List.of("7"))).isNegative();
    assertThat(found.values(List.of(n("3")))).isNull();
  }

  @Test
  void recordsAreFoundBySeveralFieldsAndByLongNumbers() {
    String longest = "123456789012345678901234567890";
    Records found =
        records(
            table(FieldType.WHOLE, "id", "part"),
            new Object[] {"Heron", n("7"), "a"},
            new Object[] {"Tern", n(longest), "a"});
    assertThat(found.at(List.of(n("7"), "a"))).isZero();
    assertThat(found.at(List.of(n("7"), "b"))).isNegative();
    assertThat(found.at(List.of(n(longest), "a"))).isEqualTo(1);

    Records one = records(table(FieldType.WHOLE, "id"), new Object[] {"Tern", n(longest), null});
    assertThat(one.at(List.of(n(longest)))).isZero();
    assertThat(Records.none().count()).isZero();
  }
}
