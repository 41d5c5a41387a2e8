package org.zestyporter.core.match;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.Comparison.Ignore;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Spelling;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

class NearRecordsTest {
  private static final TableInfo TABLE =
      new TableInfo(
          null,
          "singer",
          null,
          List.of(
              FieldInfo.of("id", FieldType.WHOLE),
              FieldInfo.of("name", FieldType.TEXT),
              FieldInfo.of("town", FieldType.TEXT),
              FieldInfo.of("height", FieldType.DECIMAL),
              FieldInfo.of("born", FieldType.DATE)),
          List.of("id"),
          List.of());
  private static final String LETTERS = "aeilnorst";

  private final Utf8 scratch = new Utf8(64);

  private static ValueColumn[] columns(Object... values) {
    return java.util.Arrays.stream(values)
        .map(v -> ValueColumn.of(new Object[] {v}, null))
        .toArray(ValueColumn[]::new);
  }

  private NearRecords records(MatchKey key, List<Object[]> records) {
    MatchKey ordered = key.agreeingFirst();
    NearRecords near = new NearRecords(new NearParts(ordered, TABLE), TABLE.fields(List.of("id")));
    for (Object[] record : records) {
      List<Object> parts = new ArrayList<>();
      TABLE.fields(ordered.fields()).forEach(f -> parts.add(record[TABLE.fields().indexOf(f)]));
      parts.add(record[0]);
      near.add(columns(parts.toArray()), ordered.fields().size(), 0, scratch);
    }
    near.settle();
    return near;
  }

  private Set<Object> found(NearRecords near, Object... row) {
    Set<Object> ids = new HashSet<>();
    near.of(columns(row), 0, scratch).records().forEach(key -> ids.add(key.get(0)));
    return ids;
  }

  private static String name(Random random) {
    StringBuilder name = new StringBuilder();
    for (int length = 2 + random.nextInt(10); name.length() < length; ) {
      name.append(LETTERS.charAt(random.nextInt(random.nextBoolean() ? 3 : LETTERS.length())));
      if (random.nextInt(9) == 0) {
        name.append(' ');
      }
    }
    return name.toString();
  }

  private static String withSlips(String name, Random random) {
    StringBuilder other = new StringBuilder(name);
    for (int slips = random.nextInt(4); slips > 0; slips--) {
      int at = random.nextInt(other.length());
      char letter = LETTERS.charAt(random.nextInt(LETTERS.length()));
      switch (random.nextInt(3)) {
        case 0 -> other.insert(at, letter);
        case 1 -> other.setCharAt(at, letter);
        default -> other.deleteCharAt(at).append(other.isEmpty() ? "x" : "");
      }
    }
    return other.toString();
  }

  /** Nothing that is near is passed over because of how it is looked for. */
  @Test
  void whateverIsNearIsFoundAndNothingElse() {
    Random random = new Random(Long.getLong("porter.seed", 11));
    MatchKey key = new MatchKey(List.of("name"), List.of(), null, Map.of("name", "spelling"));
    for (int round = 0; round < 300; round++) {
      String name = name(random);
      List<Object[]> singers = new ArrayList<>();
      Set<Object> expected = new HashSet<>();
      for (int id = 0; id < 8; id++) {
        String held = withSlips(name, random);
        singers.add(new Object[] {BigDecimal.valueOf(id), held, null, null, null});
        if (Spelling.slips(Spelling.of(name), Spelling.of(held)) >= 0) {
          expected.add(BigDecimal.valueOf(id));
        }
      }
      assertThat(found(records(key, singers), null, name, null, null, null))
          .as("%s among %s", name, singers.stream().map(s -> s[1]).toList())
          .isEqualTo(expected);
    }
  }

  private static Object[] singer(int id, String name, String town, String height, String born) {
    return new Object[] {
      BigDecimal.valueOf(id),
      name,
      town,
      height == null ? null : new BigDecimal(height),
      born == null ? null : LocalDate.parse(born)
    };
  }

  @Test
  void aDistanceIsKeptToTheLastDigitAndOtherFieldsHaveToAgree() {
    MatchKey key =
        new MatchKey(
            List.of("height", "town", "born"),
            List.of(Ignore.CASE),
            null,
            Map.of("height", "0.1", "born", "30"));
    NearRecords near =
        records(
            key,
            List.of(
                singer(1, null, "Kiel", "1.7", "1980-01-01"),
                singer(2, null, "Kiel", "1.9", "1980-01-31"),
                singer(3, null, "Kiel", "1.91", "1980-01-01"),
                singer(4, null, "Ulm", "1.8", "1980-01-01"),
                singer(5, null, "KIEL", "1.8", "1980-02-01"),
                singer(6, null, "Kiel", null, "1980-01-01"),
                singer(7, null, "Kiel", "-1.8", "1980-01-01")));
    assertThat(found(near, singer(0, null, "kiel", "1.8", "1980-01-01")))
        .containsExactlyInAnyOrder(new BigDecimal(1), new BigDecimal(2));
    assertThat(found(near, singer(0, null, "kiel", "1.8", "1980-01-02")))
        .containsExactlyInAnyOrder(new BigDecimal(1), new BigDecimal(2), new BigDecimal(5));
    assertThat(found(near, singer(0, null, "kiel", null, "1980-01-02"))).isEmpty();
  }

  @Test
  void tooManyRecordsAreRefusedInWords() {
    MatchKey key = new MatchKey(List.of("name"), List.of(), null, Map.of("name", "spelling"));
    NearRecords near = new NearRecords(new NearParts(key, TABLE), TABLE.fields(List.of("id")), 2);
    near.add(columns("Anna", BigDecimal.ONE), 1, 0, scratch);
    near.add(columns(null, BigDecimal.ONE), 1, 0, scratch);
    near.add(columns("Berta", BigDecimal.valueOf(2)), 1, 0, scratch);
    assertThatThrownBy(() -> near.add(columns("Carla", BigDecimal.TEN), 1, 0, scratch))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining("among 2 at most")
        .hasMessageContaining("Look only among some of them");
  }

  @Test
  void theMostAlikeComeFirstAndAreTold() {
    MatchKey key = new MatchKey(List.of("name"), List.of(), null, Map.of("name", "spelling"));
    List<Object[]> singers = new ArrayList<>();
    for (int id = 1; id <= 12; id++) {
      singers.add(singer(id, "Anna Lindquist", null, null, null));
    }
    singers.add(singer(13, "Lindqvist Anna", null, null, null));
    NearRecords.Near near =
        records(key, singers).of(columns(null, "Anna Lindqvist", null, null, null), 0, scratch);
    assertThat(near.records()).hasSize(8);
    assertThat(near.records().get(0)).containsExactly(new BigDecimal(13));
    assertThat(near.told()).isEqualTo("much like 13 records, most like 13: name Lindqvist Anna");
  }
}
