package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.zestyporter.core.value.Comparison;

/**
 * How many rows of a column are found in a field.
 *
 * @param with further fields whose values stand beside it in the column's cells
 * @param ignoring what has to be ignored for it
 * @param isCall true if records are called by the field, false if it only says something of them,
 *     as the country says of a company
 * @param isAddressed true if what stands before people's names has to be left out for it
 */
record Overlap(
    String field,
    List<String> with,
    List<Comparison.Ignore> ignoring,
    long found,
    long rows,
    boolean isCall,
    boolean isAddressed) {
  Overlap(String field, long found, long rows, boolean isCall) {
    this(field, List.of(), LinkValues.IGNORED, found, rows, isCall, false);
  }

  double share() {
    return rows == 0 ? 0 : (double) found / rows;
  }

  Overlap ofNoCall() {
    return new Overlap(field, with, ignoring, found, rows, false, isAddressed);
  }

  /** The names of all fields that hold a part of the value. */
  String fields() {
    List<String> all = new ArrayList<>(List.of(field));
    all.addAll(with);
    String last = all.remove(all.size() - 1);
    return all.isEmpty() ? last : String.join(", ", all) + " and " + last;
  }

  /** In words. */
  String told() {
    return String.format(Locale.ROOT, "%,d of %,d values", found, rows);
  }

  /** The share, less where the field is none by which a record is called. */
  double weight() {
    return isCall ? share() : share() / 2;
  }
}
