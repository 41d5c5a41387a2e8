package org.zestyporter.core.draft;

import java.util.Arrays;

/**
 * Pairs rows with columns so that the sum of their scores is the highest there is (the Hungarian
 * method with potentials, in O(rows² × columns)).
 */
final class Assignment {
  private Assignment() {}

  /**
   * The best pairs.
   *
   * @param scores a score for each row and column; 0 or less for pairs that may not be made
   * @return the column of each row, -1 for none
   */
  static int[] best(int[][] scores) {
    int rows = scores.length;
    int real = rows == 0 ? 0 : scores[0].length;
    // each row may also stay alone, in a column of its own with score 0
    int columns = real + rows;
    long[] rowPotential = new long[rows + 1];
    long[] columnPotential = new long[columns + 1];
    int[] rowOf = new int[columns + 1];
    int[] way = new int[columns + 1];
    for (int row = 1; row <= rows; row++) {
      rowOf[0] = row;
      int column = 0;
      long[] least = new long[columns + 1];
      Arrays.fill(least, Long.MAX_VALUE);
      boolean[] used = new boolean[columns + 1];
      do {
        used[column] = true;
        int at = rowOf[column];
        int next = 0;
        long delta = Long.MAX_VALUE;
        for (int c = 1; c <= columns; c++) {
          if (used[c]) {
            continue;
          }
          long cost = cost(scores, real, at - 1, c - 1) - rowPotential[at] - columnPotential[c];
          if (cost < least[c]) {
            least[c] = cost;
            way[c] = column;
          }
          if (least[c] < delta) {
            delta = least[c];
            next = c;
          }
        }
        for (int c = 0; c <= columns; c++) {
          if (used[c]) {
            rowPotential[rowOf[c]] += delta;
            columnPotential[c] -= delta;
          } else {
            least[c] -= delta;
          }
        }
        column = next;
      } while (rowOf[column] != 0);
      while (column != 0) {
        int before = way[column];
        rowOf[column] = rowOf[before];
        column = before;
      }
    }
    int[] assigned = new int[rows];
    Arrays.fill(assigned, -1);
    for (int c = 1; c <= real; c++) {
      if (rowOf[c] > 0 && scores[rowOf[c] - 1][c - 1] > 0) {
        assigned[rowOf[c] - 1] = c - 1;
      }
    }
    return assigned;
  }

  private static long cost(int[][] scores, int real, int row, int column) {
    if (column >= real) {
      return 0;
    }
    int score = scores[row][column];
    return score > 0 ? -score : 1_000_000;
  }
}
