package org.zestyporter.core.match;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.sql.SQLException;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.Comparison.Ignore;
import org.zestyporter.core.value.ValueColumn;

class MatcherTest {

  private static TableInfo table(Databases.Fresh on) throws SQLException {
    on.execute(
        "CREATE TABLE stay (boat VARCHAR(10) NOT NULL, nr INTEGER NOT NULL, berth VARCHAR(10),"
            + " PRIMARY KEY (boat, nr))",
        "INSERT INTO stay VALUES ('QH-1', 1, 'A-01'), ('QH-1', 2, 'A-02'), ('qh 1', 1, 'B-01'),"
            + " ('QH-2', 1, NULL)");
    return on.database().table("stay");
  }

  private static Object[] row(String boat, Integer nr, String berth) {
    return new Object[] {boat, nr == null ? null : BigDecimal.valueOf(nr), berth};
  }

  /** The columns of a chunk that holds a single row. */
  private static ValueColumn[] columns(Object[] row) {
    return java.util.Arrays.stream(row)
        .map(v -> ValueColumn.of(new Object[] {v}, null))
        .toArray(ValueColumn[]::new);
  }

  private static Match match(Matcher matcher, int index, Object[] row) {
    return matcher.match(index, columns(row), 0);
  }

  private static Matcher look(
      Databases.Fresh on, TableInfo table, List<MatchKey> keys, Object[]... rows) {
    Matcher matcher = new Matcher(keys, table);
    for (int i = 0; i < rows.length; i++) {
      matcher.note(columns(rows[i]), 0);
    }
    matcher
        .inquiries()
        .forEach(
            i -> {
              on.database().look(i.ask(), i.learn());
              i.answered().run();
            });
    return matcher;
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void severalFieldsMakeOneKey(Databases.Fresh on) throws SQLException {
    try (on) {
      TableInfo table = table(on);
      MatchKey key = new MatchKey(List.of("boat", "nr"), List.of());
      Object[] second = row("QH-1", 2, null);
      Matcher matcher = look(on, table, List.of(key), second, row("QH-1", 3, null));
      Match match = match(matcher, 0, second);
      assertThat(match.key()).isEqualTo(1);
      assertThat(match.records()).containsExactly(List.of("QH-1", new BigDecimal("2")));
      assertThat(match(matcher, 1, row("QH-1", 3, null)).records()).isEmpty();
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void looseComparisonMayFindSeveral(Databases.Fresh on) throws SQLException {
    try (on) {
      TableInfo table = table(on);
      MatchKey key =
          new MatchKey(
              List.of("boat", "nr"), List.of(Ignore.CASE, Ignore.SPACES, Ignore.PUNCTUATION));
      Object[] first = row("qh1", 1, null);
      Matcher matcher = look(on, table, List.of(key), first);
      assertThat(match(matcher, 0, first).records()).hasSize(2);
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void partsDoNotRunTogether(Databases.Fresh on) throws SQLException {
    try (on) {
      TableInfo table = table(on);
      MatchKey key = new MatchKey(List.of("boat", "berth"), List.of());
      Object[] one = row("ab", 1, "c");
      Object[] other = row("a", 1, "bc");
      Matcher matcher = look(on, table, List.of(key), one, other);
      assertThat(match(matcher, 0, one).repeated()).isFalse();
      assertThat(match(matcher, 1, other).repeated()).isFalse();
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void blankPartIsNoKeyAndBlankRecordsAreNotFound(Databases.Fresh on) throws SQLException {
    try (on) {
      TableInfo table = table(on);
      MatchKey key = new MatchKey(List.of("berth"), List.of());
      Object[] blank = row("QH-2", 1, null);
      Matcher matcher = look(on, table, List.of(key), blank, row("x", 1, "A-01"));
      assertThat(match(matcher, 0, blank).key()).isZero();
      assertThat(match(matcher, 1, row("x", 1, "A-01")).records()).hasSize(1);
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void repeatsKnowTheirFirstAndLastRow(Databases.Fresh on) throws SQLException {
    try (on) {
      TableInfo table = table(on);
      MatchKey key = new MatchKey(List.of("boat"), List.of(Ignore.CASE));
      Matcher matcher =
          look(
              on,
              table,
              List.of(key),
              row("QH-9", 1, null),
              row("x", 1, null),
              row("qh-9", 2, null));
      Match match = match(matcher, 0, row("QH-9", 1, null));
      assertThat(match.first()).isZero();
      assertThat(match.last()).isEqualTo(2);
      assertThat(match.repeated()).isTrue();
      assertThat(match(matcher, 1, row("x", 1, null)).repeated()).isFalse();
    }
  }
}
