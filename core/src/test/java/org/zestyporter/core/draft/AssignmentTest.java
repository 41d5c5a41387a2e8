package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.Seeds;

class AssignmentTest {
  @Test
  void theSumCountsAndNotTheBestPair() {
    // the best pair alone (90) would leave the second row without a column
    assertThat(Assignment.best(new int[][] {{90, 80}, {85, 0}})).containsExactly(1, 0);
    assertThat(Assignment.best(new int[][] {{90, 80}, {5, 0}})).containsExactly(0, -1);
    assertThat(Assignment.best(new int[][] {{0, 0}, {0, 7}})).containsExactly(-1, 1);
    assertThat(Assignment.best(new int[][] {{3}, {9}, {4}})).containsExactly(-1, 0, -1);
    assertThat(Assignment.best(new int[0][0])).isEmpty();
  }

  @Provide
  Arbitrary<int[][]> scores() {
    return Arbitraries.integers()
        .between(1, 5)
        .flatMap(
            columns ->
                Arbitraries.integers()
                    .between(0, 20)
                    .array(int[].class)
                    .ofSize(columns)
                    .array(int[][].class)
                    .ofMinSize(1)
                    .ofMaxSize(5));
  }

  @Property(tries = 300 * Seeds.MORE, seed = Seeds.SEED)
  void nothingIsBetter(@ForAll("scores") int[][] scores) {
    int[] assigned = Assignment.best(scores);
    int sum = 0;
    boolean[] taken = new boolean[scores[0].length];
    for (int row = 0; row < scores.length; row++) {
      if (assigned[row] >= 0) {
        assertThat(taken[assigned[row]]).isFalse();
        taken[assigned[row]] = true;
        assertThat(scores[row][assigned[row]]).isPositive();
        sum += scores[row][assigned[row]];
      }
    }
    assertThat(sum)
        .as(Arrays.deepToString(scores))
        .isEqualTo(most(scores, 0, new boolean[taken.length]));
  }

  private static int most(int[][] scores, int row, boolean[] taken) {
    if (row == scores.length) {
      return 0;
    }
    int most = most(scores, row + 1, taken);
    for (int c = 0; c < taken.length; c++) {
      if (!taken[c] && scores[row][c] > 0) {
        taken[c] = true;
        most = Math.max(most, scores[row][c] + most(scores, row + 1, taken));
        taken[c] = false;
      }
    }
    return most;
  }
}
