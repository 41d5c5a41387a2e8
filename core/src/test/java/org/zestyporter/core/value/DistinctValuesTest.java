package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class DistinctValuesTest {
  private static final int CHUNK = 4_096;
  private static final int CHUNKS = 40;

  /** Counts columns of values that are all distinct, each of a length, column by column. */
  private static List<DistinctValues> counted(int[] lengths, int[] order) {
    List<DistinctValues> columns =
        IntStream.range(0, lengths.length).mapToObj(c -> new DistinctValues()).toList();
    DistinctValues.Budget budget = new DistinctValues.Budget();
    for (int chunk = 0; chunk < CHUNKS; chunk++) {
      budget.share(columns);
      for (int c : order) {
        for (int r = 0; r < CHUNK; r++) {
          String text = "x".repeat(lengths[c]) + (chunk * CHUNK + r);
          columns.get(c).add(Cell.text(text), 1, r);
        }
      }
    }
    return columns;
  }

  /** Columns are counted by several threads; which one comes first must make no difference. */
  @Test
  void whatIsKeptDependsOnTheColumnsAndNotOnTheirTurns() {
    int[] lengths = {5, 40, 90};
    List<DistinctValues> one = counted(lengths, new int[] {0, 1, 2});
    List<DistinctValues> other = counted(lengths, new int[] {2, 0, 1});
    for (int c = 0; c < lengths.length; c++) {
      DistinctValues a = one.get(c);
      assertThat(a.tallies()).hasSameSizeAs(other.get(c).tallies());
      assertThat(a.tallies().size() + a.beyond()).isEqualTo((long) CHUNK * CHUNKS);
    }
    assertThat(one.get(0).tallies()).hasSizeGreaterThan(40_000);
    assertThat(one.get(2).tallies()).hasSizeBetween(10_000, 60_000);
  }

  @Test
  void noColumnKeepsMoreThanTheLimit() {
    DistinctValues alone = counted(new int[] {1}, new int[] {0}).get(0);
    assertThat(alone.tallies()).hasSize(DistinctValues.LIMIT);
    assertThat(alone.beyond()).isEqualTo(CHUNK * CHUNKS - DistinctValues.LIMIT);
  }

  @Test
  void cellsOfAnotherKindAreOtherValues() {
    DistinctValues values = new DistinctValues();
    values.add(Cell.text("7"), 2, 5);
    values.add(new Cell(Cell.Kind.NUMBER, "7"), 1, 6);
    values.add(Cell.BLANK, 3, 7);
    values.add(Cell.text("7"), 1, 8);
    assertThat(values.tallies()).hasSize(2);
    assertThat(values.tallies().get(Cell.text("7")).rows()).isEqualTo(3);
    assertThat(values.tallies().get(Cell.text("7")).line()).isEqualTo(5);
    assertThat(values.blank()).isEqualTo(3);
  }
}
