package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.Comparison;

/** Proposes the fields that identify a record. */
final class KeyDraft {
  private final SourceTable source;

  KeyDraft(SourceTable source) {
    this.source = source;
  }

  /**
   * A match key of fields that are filled and that no two records share.
   *
   * @param given fields that are filled otherwise than from a column of their own
   * @return null if there is none
   */
  @Nullable MatchKey of(TableInfo table, List<Pair> chosen, Set<String> given) {
    List<List<String>> candidates = new ArrayList<>(table.uniques());
    candidates.add(table.primaryKey());
    for (List<String> fields : candidates) {
      List<Pair> parts = chosen.stream().filter(p -> fields.contains(p.field().name())).toList();
      boolean all =
          fields.stream()
              .allMatch(
                  f ->
                      given.contains(f)
                          || parts.stream().anyMatch(p -> p.field().name().equals(f)));
      if (!fields.isEmpty() && all) {
        return key(
            fields,
            !parts.isEmpty() && parts.stream().allMatch(p -> p.field().type() == FieldType.TEXT),
            parts.stream().map(Pair::column).toList());
      }
    }
    return null;
  }

  /**
   * A key whose fields are compared as their values ask for: texts ignoring capitals and spaces,
   * codes what stands between their parts as well.
   *
   * @param text true if all of the fields are texts
   * @param columns those that fill them
   */
  MatchKey key(List<String> fields, boolean text, List<Integer> columns) {
    List<Comparison.Ignore> ignoring = new ArrayList<>();
    if (text) {
      ignoring.add(Comparison.Ignore.CASE);
      ignoring.add(Comparison.Ignore.SPACES);
      if (columns.stream().allMatch(c -> looksLikeCodes(source.distinct(c).tallies().keySet()))) {
        ignoring.add(Comparison.Ignore.PUNCTUATION);
      }
    }
    return new MatchKey(fields, ignoring);
  }

  private static boolean looksLikeCodes(Set<Cell> cells) {
    long codes =
        cells.stream()
            .filter(c -> c.text().length() <= 24 && c.text().indexOf('@') < 0)
            .filter(c -> c.text().chars().anyMatch(Character::isDigit))
            .count();
    return codes * 10 >= cells.size() * 8L;
  }
}
