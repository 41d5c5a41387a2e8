package org.zestyporter.core.source.cache;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.source.reading.CellFormat;

/** Counts in which formats the cells of columns are shown. */
final class FormatCounts {
  /** Longer codes, and further ones of a column, are passed over. */
  private static final int LONGEST = 200;

  private static final int MOST = 50;

  /** Twice a column: for numbers, then for moments. */
  private final List<Map<String, int[]>> counts = new ArrayList<>();

  void count(int column, boolean moment, String code) {
    int at = 2 * column + (moment ? 1 : 0);
    while (counts.size() <= at) {
      counts.add(null);
    }
    Map<String, int[]> known = counts.get(at);
    if (known == null) {
      known = new HashMap<>();
      counts.set(at, known);
    }
    int[] count = known.get(code);
    if (count != null) {
      count[0]++;
    } else if (known.size() < MOST && code.length() <= LONGEST) {
      known.put(code, new int[] {1});
    }
  }

  /** The commonest format of each column's numbers, and of its moments. */
  List<CellFormat> commonest() {
    List<CellFormat> all = new ArrayList<>();
    for (int at = 0; at < counts.size(); at++) {
      String commonest = null;
      int most = 0;
      for (Map.Entry<String, int[]> one :
          counts.get(at) == null
              ? List.<Map.Entry<String, int[]>>of()
              : counts.get(at).entrySet()) {
        int count = one.getValue()[0];
        boolean first = commonest == null || one.getKey().compareTo(commonest) < 0;
        if (count > most || count == most && first) {
          commonest = one.getKey();
          most = count;
        }
      }
      if (commonest != null) {
        all.add(new CellFormat(at / 2, at % 2 == 1, commonest));
      }
    }
    return all;
  }
}
