package org.zestyporter.core.match;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.Spelling;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

class NearRowsTest {
  private static final TableInfo TABLE =
      new TableInfo(
          null,
          "film",
          null,
          List.of(
              FieldInfo.of("title", FieldType.TEXT), FieldInfo.of("minutes", FieldType.DECIMAL)),
          List.of("title"),
          List.of());
  private static final MatchKey TITLE =
      new MatchKey(List.of("title"), List.of(), null, Map.of("title", "spelling"));
  private static final long[] NO_KEY = {0};

  private final Utf8 scratch = new Utf8(64);

  private ValueColumn[] film(String title, Integer minutes) {
    return new ValueColumn[] {
      ValueColumn.of(new Object[] {title}, null),
      ValueColumn.of(new Object[] {minutes == null ? null : new BigDecimal(minutes)}, null)
    };
  }

  private NearRows.Near before(NearRows rows, int row, String title, long... own) {
    return rows.before(row, own.length == 0 ? NO_KEY : own, film(title, null), 0, scratch);
  }

  @Test
  void everyEarlierRowThatIsNearIsFoundAndNoLaterOne() {
    Random random = new Random(Long.getLong("porter.seed", 5));
    String[] words = {"nacht", "macht", "acht", "yacht", "der", "die", "wacht am rhein", "rhein"};
    List<String> titles = new ArrayList<>();
    for (int i = 0; i < 60; i++) {
      titles.add(words[random.nextInt(words.length)] + ' ' + words[random.nextInt(words.length)]);
    }
    NearRows rows = new NearRows(new NearParts(TITLE, TABLE));
    for (int i = 0; i < titles.size(); i++) {
      // rows that can't be written are not noted, so that indexes have gaps
      rows.add(i * 3, NO_KEY, film(titles.get(i), null), 0, scratch);
    }
    rows.settle();
    for (int i = 0; i < titles.size(); i++) {
      Spelling own = Spelling.of(titles.get(i));
      List<Integer> expected = new ArrayList<>();
      for (int other = 0; other < i; other++) {
        if (Spelling.slips(own, Spelling.of(titles.get(other))) >= 0) {
          expected.add(other * 3);
        }
      }
      List<Integer> found = before(rows, i * 3, titles.get(i)).rows();
      assertThat(found).as(titles.get(i)).hasSize(Math.min(8, expected.size()));
      assertThat(expected).containsAll(found);
    }
  }

  @Test
  void theMostAlikeComesFirstAndOfEqualOnesTheFirst() {
    NearRows rows = new NearRows(new NearParts(TITLE, TABLE));
    rows.add(0, NO_KEY, film("The old lighthouses", null), 0, scratch);
    rows.add(1, NO_KEY, film("The old lighthouse", null), 0, scratch);
    rows.add(2, NO_KEY, film("Lighthouse, the old", null), 0, scratch);
    rows.add(3, NO_KEY, film(null, null), 0, scratch);
    rows.settle();
    NearRows.Near near = before(rows, 4, "The Old Lighthouse");
    assertThat(near.rows()).containsExactly(1, 2, 0);
    assertThat(near.told()).isEqualTo("title The old lighthouse");
    assertThat(before(rows, 0, "The Old Lighthouse").rows()).isEmpty();
  }

  @Test
  void rowsThatShareAnotherKeyAreKnownToBeOne() {
    NearRows rows = new NearRows(new NearParts(TITLE, TABLE));
    rows.add(0, new long[] {7, 0}, film("Tide", null), 0, scratch);
    rows.add(1, new long[] {0, 0}, film("Tide", null), 0, scratch);
    rows.settle();
    assertThat(before(rows, 2, "Tide", 7, 0).rows()).containsExactly(1);
    assertThat(before(rows, 2, "Tide", 8, 0).rows()).containsExactly(0, 1);
  }

  @Test
  void distancesAreKeptAmongRowsToo() {
    MatchKey minutes =
        new MatchKey(List.of("title", "minutes"), List.of(), null, Map.of("minutes", "5"));
    NearRows rows = new NearRows(new NearParts(minutes.agreeingFirst(), TABLE));
    rows.add(0, NO_KEY, film("Tide", 90), 0, scratch);
    rows.add(1, NO_KEY, film("Ebb", 90), 0, scratch);
    rows.settle();
    assertThat(rows.before(2, NO_KEY, film("Tide", 95), 0, scratch).rows()).containsExactly(0);
    assertThat(rows.before(2, NO_KEY, film("Tide", 96), 0, scratch).rows()).isEmpty();
  }

  @Test
  void tooManyAreNotCompared() {
    NearRows rows = new NearRows(new NearParts(TITLE, TABLE), 2);
    for (int row = 0; row < 3; row++) {
      rows.add(row, NO_KEY, film("Tide", null), 0, scratch);
    }
    rows.settle();
    assertThat(rows.areCompared()).isFalse();
    assertThat(before(rows, 2, "Tide").rows()).isEmpty();
  }
}
