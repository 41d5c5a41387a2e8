package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;

/**
 * All pairs that columns and fields could make. They are assigned as a whole: of all ways to pair
 * them the one with the highest sum is taken, without those of which nobody can be sure.
 */
final class PairTable {
  /** From here on values speak plainly. */
  private static final int PLAIN = 60;

  /** What a pair for which only values speak must be better by than any other. */
  private static final int MARGIN = 12;

  /** So many titles must be wrong before all are doubted. */
  private static final int LEAST_DENIED = 3;

  private static final int TITLES_JUDGED = 60;
  private static final int SAME_NAME = 80;

  private final Pairing pairing;
  private final TableInfo table;
  private final List<FieldInfo> fields;
  private final List<PlanDraft.Title> titles;
  private final Pair[][] pairs;

  PairTable(
      Pairing pairing, TableInfo table, List<FieldInfo> fields, List<PlanDraft.Title> titles) {
    this.pairing = pairing;
    this.table = table;
    this.fields = fields;
    this.titles = titles;
    this.pairs = new Pair[fields.size()][titles.size()];
    for (int f = 0; f < pairs.length; f++) {
      for (int t = 0; t < titles.size(); t++) {
        PlanDraft.Title title = titles.get(t);
        pairs[f][t] = pairing.of(table, fields.get(f), title.column(), title.words());
      }
    }
  }

  /** The pairs that are proposed. */
  List<Pair> best() {
    disbelieve();
    int[][] scores = new int[fields.size()][titles.size()];
    for (int f = 0; f < pairs.length; f++) {
      for (int t = 0; t < titles.size(); t++) {
        // of equals the one that stands first in the file
        scores[f][t] =
            pairs[f][t] == null ? 0 : pairs[f][t].score() * PlanDraft.COLUMNS_DRAFTED - t;
      }
    }
    int[] assigned = Assignment.best(scores);
    List<Pair> chosen = new ArrayList<>();
    for (int f = 0; f < assigned.length; f++) {
      if (assigned[f] >= 0 && !isDoubtful(f, assigned[f], assigned)) {
        chosen.add(pairs[f][assigned[f]]);
      }
    }
    return chosen;
  }

  /**
   * A title counts less where its values are none of the field's, but are plainly those of another
   * one. Where that is so of most titles, as where they stand one place beside their columns, the
   * others count less too, unless their values agree.
   */
  private void disbelieve() {
    int denied = 0;
    int borneOut = 0;
    for (int t = 0; t < titles.size(); t++) {
      int column = titles.get(t).column();
      int most = 0;
      for (FieldInfo field : fields) {
        most = Math.max(most, pairing.agreement(table, field, column).score());
      }
      boolean isDenied = false;
      boolean isBorneOut = false;
      for (int f = 0; f < pairs.length; f++) {
        if (pairs[f][t] == null || pairs[f][t].isOutside()) {
          isDenied |= isNamed(f, t);
        } else if (isByTitle(pairs[f][t])) {
          boolean isPlain = isOfAnother(fields.get(f), column, most);
          if (isPlain || pairing.isUnlike(table, fields.get(f), column)) {
            pairs[f][t] = pairs[f][t].withScore(pairs[f][t].score() / 2);
            isDenied |= isPlain;
          } else {
            isBorneOut |= agrees(f, column);
          }
        } else {
          isBorneOut |= pairs[f][t].link() != null;
        }
      }
      denied += isDenied && !isBorneOut ? 1 : 0;
      borneOut += isBorneOut ? 1 : 0;
    }
    if (denied >= LEAST_DENIED && denied > borneOut) {
      disbelieveAll();
    }
  }

  private void disbelieveAll() {
    for (int f = 0; f < pairs.length; f++) {
      for (int t = 0; t < titles.size(); t++) {
        if (pairs[f][t] != null && pairs[f][t].isOutside()) {
          pairs[f][t] = null;
        } else if (isByTitle(pairs[f][t]) && !agrees(f, titles.get(t).column())) {
          pairs[f][t] = byValuesAlone(f, t);
        }
      }
    }
  }

  /** What is left of a pair if its title is not believed; null if that is too little. */
  private @Nullable Pair byValuesAlone(int f, int t) {
    Pair pair = pairing.of(table, fields.get(f), titles.get(t).column(), "");
    return pair != null && pair.isByValues() ? pair : null;
  }

  private static boolean isByTitle(@Nullable Pair pair) {
    return pair != null && !pair.isByValues() && pair.remembered() == null && pair.link() == null;
  }

  /** True if a title says just what a field is called. */
  private boolean isNamed(int field, int title) {
    return titles.size() <= TITLES_JUDGED
        && Likeness.of(table, fields.get(field), titles.get(title).words()).score() >= SAME_NAME;
  }

  private boolean agrees(int field, int column) {
    return pairing.agreement(table, fields.get(field), column).score() >= Pairing.ENOUGH;
  }

  /** True if a column's values are far more like those of another field. */
  private boolean isOfAnother(FieldInfo field, int column, int most) {
    int own = pairing.agreement(table, field, column).score();
    return most >= PLAIN && own < most - 2 * MARGIN;
  }

  /** True if only values speak for a pair, and they speak nearly as well for another. */
  private boolean isDoubtful(int f, int t, int[] assigned) {
    Pair pair = pairs[f][t];
    if (!pair.isByValues()) {
      return false;
    }
    for (int other = 0; other < pairs[f].length; other++) {
      if (other != t && isNear(pairs[f][other], pair) && !isTaken(assigned, other, f)) {
        return true;
      }
    }
    for (int other = 0; other < pairs.length; other++) {
      if (other != f && isNear(pairs[other][t], pair) && !isSure(assigned, other)) {
        return true;
      }
    }
    return false;
  }

  private static boolean isNear(@Nullable Pair other, Pair pair) {
    return other != null && other.score() > pair.score() - MARGIN;
  }

  /** True if a column feeds another field for which more speaks than values. */
  private boolean isTaken(int[] assigned, int title, int but) {
    for (int f = 0; f < assigned.length; f++) {
      if (f != but && assigned[f] == title) {
        return !pairs[f][title].isByValues();
      }
    }
    return false;
  }

  private boolean isSure(int[] assigned, int f) {
    return assigned[f] >= 0 && !pairs[f][assigned[f]].isByValues();
  }
}
