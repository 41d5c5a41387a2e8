package org.zestyporter.core.preview;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.RecordKeys;

/**
 * A field that would tell apart records that a match key can't.
 *
 * @param key number of the key that finds several, from 1
 * @param field the field that would have to agree as well
 * @param settles how many of the rows looked at would speak of one record then
 * @param of how many were looked at
 */
public record KeyAdvice(int key, String field, long settles, long of) {
  private static final int MOST = 3;

  /**
   * The fields that would settle most, the best first.
   *
   * @param fields names of the fields that rows hold values of
   * @param rows rows that speak of several records
   * @param records these records, by their keys as in the ledger, as values of the table's fields
   */
  public static List<KeyAdvice> of(
      TableInfo table,
      List<MatchKey> keys,
      List<String> fields,
      List<LedgerEntry> rows,
      Map<String, Object[]> records) {
    List<KeyAdvice> advice = new ArrayList<>();
    for (int key = 1; key <= keys.size(); key++) {
      int number = key;
      List<LedgerEntry> found = rows.stream().filter(r -> r.matchedBy() == number).toList();
      for (int f = 0; f < fields.size() && !found.isEmpty(); f++) {
        FieldInfo field = table.find(fields.get(f));
        if (field != null && !keys.get(key - 1).fields().contains(field.name())) {
          int place = table.fields().indexOf(field);
          long settles = 0;
          for (LedgerEntry row : found) {
            settles += isSettled(row, f, field, place, records) ? 1 : 0;
          }
          if (settles > 0) {
            advice.add(new KeyAdvice(key, field.name(), settles, found.size()));
          }
        }
      }
    }
    advice.sort(Comparator.comparingLong(a -> -a.settles()));
    return advice.subList(0, Math.min(MOST, advice.size()));
  }

  private static boolean isSettled(
      LedgerEntry row, int f, FieldInfo field, int place, Map<String, Object[]> records) {
    String text = row.after().get(f);
    Object given = text == null ? null : read(field, text);
    if (given == null) {
      return false;
    }
    List<String> candidates = MatchSurvey.candidates(row);
    long same =
        candidates.stream()
            .map(records::get)
            .filter(r -> r != null && r[place] != null)
            .filter(r -> field.storage().same(given, r[place]))
            .count();
    // of very many not all are known
    return same == 1 && candidates.size() < RecordKeys.MOST;
  }

  private static @Nullable Object read(FieldInfo field, String text) {
    Object typed = field.type().read(text);
    return typed == null ? text : typed;
  }
}
