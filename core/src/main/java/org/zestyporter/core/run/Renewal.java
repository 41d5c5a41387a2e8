package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import org.zestyporter.core.application.Lookups;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.value.ColumnMaker;
import org.zestyporter.core.value.ValueColumn;

/**
 * Has records asked for again that were seen some time before, where rows may change them: somebody
 * else may have done so by now.
 */
final class Renewal {
  private final Target target;
  private final Differences differences;

  Renewal(Target target) {
    this.target = target;
    this.differences = new Differences(target);
  }

  /** Has the records of a chunk's rows as they are now, where these may change them. */
  void renew(TargetRows rows, Lookups lookups) {
    BitSet changing = changing(rows);
    if (changing.isEmpty()) {
      return;
    }
    List<List<Object>> keys = new ArrayList<>();
    changing.stream().forEach(r -> keys.add(key(rows, r)));
    Records now = lookups.fetchNow(target.table, keys);
    ColumnMaker[] makers = new ColumnMaker[rows.byField.length];
    Arrays.setAll(makers, f -> new ColumnMaker());
    int count = 0;
    for (; count < now.count(); count++) {
      add(now, count, makers);
    }
    for (int r = 0; r < rows.foundAt.length; r++) {
      if (changing.get(r)) {
        rows.foundAt[r] = now.at(key(rows, r));
      } else if (rows.foundAt[r] >= 0) {
        add(rows.found, rows.foundAt[r], makers);
        rows.foundAt[r] = count++;
      }
    }
    ValueColumn[] columns =
        Arrays.stream(makers).map(ColumnMaker::column).toArray(ValueColumn[]::new);
    rows.found = Records.of(columns, count);
  }

  /** The rows that may change the records that they found. */
  private BitSet changing(TargetRows rows) {
    BitSet changing = new BitSet();
    Policies.OnMatch policy = target.destination.policies().onMatch();
    boolean mayBe = policy != Policies.OnMatch.SKIP && policy != Policies.OnMatch.REJECT;
    for (int r = 0; mayBe && r < rows.count(); r++) {
      int at = rows.foundAt[r];
      // values of rows with the same key may be merged
      changing.set(
          r,
          at >= 0
              && (rows.matches[r].repeated()
                  || differences.mayChange(rows, r, at, rows.matches[r].key())));
    }
    return changing;
  }

  private static List<Object> key(TargetRows rows, int r) {
    return rows.matches[r].records().get(0);
  }

  private static void add(Records from, int at, ColumnMaker[] makers) {
    for (int f = 0; f < makers.length; f++) {
      makers[f].put(from.columns()[f], at);
    }
  }
}
