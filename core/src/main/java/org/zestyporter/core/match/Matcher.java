package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.Inquiry;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.Values;

/**
 * Finds the records that rows speak of.
 *
 * <p>Used in three steps: {@link #note} every row that could be written, have the {@link
 * #inquiries} answered, then {@link #match} row by row. Existing records are found in one pass over
 * the key fields of the table for each key, whatever its size; memory follows the distinct keys of
 * the source.
 *
 * <pre>{@code
 * matcher.note(line, byField);      // for every row
 * matcher.inquiries();              // once, and have them answered
 * Match match = matcher.match(line, byField);
 * }</pre>
 */
public final class Matcher {
  private static final int ASKED_BY_KEY = 100_000;

  private final TableInfo table;
  private final List<PreparedKey> keys = new ArrayList<>();
  private final List<Map<String, Known>> known = new ArrayList<>();

  /** The noted keys as values, as long as they are few enough to be asked for by key. */
  private final List<List<List<Object>>> asked = new ArrayList<>();

  /** What is known of one key value. */
  private static final class Known {
    private final long firstLine;
    private long lastLine;
    private List<List<Object>> records = List.of();

    Known(long line) {
      firstLine = line;
      lastLine = line;
    }
  }

  /**
   * What a row was found to speak of.
   *
   * @param key number of the match key that found it, from 1; 0 if none of them has a value
   * @param records primary keys of the records found
   * @param firstLine the first line of the source with the same key
   * @param lastLine the last line of the source with the same key
   */
  public record Match(int key, List<List<Object>> records, long firstLine, long lastLine) {
    public boolean repeated() {
      return firstLine != lastLine;
    }
  }

  public Matcher(List<MatchKey> keys, TableInfo table) {
    this.table = table;
    for (MatchKey key : keys) {
      this.keys.add(new PreparedKey(key, table));
      this.known.add(new HashMap<>());
      this.asked.add(new ArrayList<>());
    }
  }

  /** True if there is no key, so that every row is a new record. */
  public boolean isEmpty() {
    return keys.isEmpty();
  }

  /** Notes the keys of a row that could be written; rows come in the order of their lines. */
  public void note(long line, Object[] byField) {
    for (int k = 0; k < keys.size(); k++) {
      String prepared = keys.get(k).ofRow(byField);
      if (prepared != null) {
        Known found = known.get(k).get(prepared);
        if (found == null) {
          found = new Known(line);
          known.get(k).put(prepared, found);
          if (asked.get(k).size() <= ASKED_BY_KEY) {
            asked.get(k).add(keys.get(k).values(byField));
          }
        }
        found.lastLine = line;
      }
    }
  }

  /** What has to be known of the table's records: those that have one of the noted keys. */
  public List<Inquiry> inquiries() {
    List<Inquiry> inquiries = new ArrayList<>();
    for (int k = 0; k < keys.size(); k++) {
      if (!known.get(k).isEmpty()) {
        inquiries.add(inquiry(keys.get(k), known.get(k), asked.get(k)));
      }
    }
    return inquiries;
  }

  private Inquiry inquiry(PreparedKey key, Map<String, Known> wanted, List<List<Object>> values) {
    List<FieldInfo> fields = new ArrayList<>(key.fields());
    List<FieldInfo> keyFields = table.fields(table.primaryKey());
    fields.addAll(keyFields);
    int parts = key.fields().size();
    boolean byKey = !key.isLoose() && values.size() <= ASKED_BY_KEY;
    Ask ask = byKey ? Ask.keyed(table, fields, key.fields(), values) : Ask.all(table, fields);
    return new Inquiry(
        ask,
        found -> {
          String prepared = key.of(Arrays.asList(found).subList(0, parts));
          Known one = prepared == null ? null : wanted.get(prepared);
          if (one != null) {
            List<Object> record = primaryKey(found, parts, keyFields);
            if (!one.records.contains(record)) {
              List<List<Object>> records = new ArrayList<>(one.records);
              records.add(record);
              one.records = records;
            }
          }
        },
        () -> {});
  }

  private static List<Object> primaryKey(Object[] values, int from, List<FieldInfo> keyFields) {
    List<Object> key = new ArrayList<>(keyFields.size());
    for (int i = 0; i < keyFields.size(); i++) {
      key.add(keyFields.get(i).storage().canonical(values[from + i]));
    }
    return List.copyOf(key);
  }

  /**
   * True if a value of a field is the one that the record has, as the plan compares it: by the key
   * that found the record if the field is part of it, else by the field's own type.
   *
   * @param key number of the match key that found the record, from 1; 0 if none did
   */
  public boolean same(int key, FieldInfo field, Object given, Object held) {
    boolean own = field.storage().same(given, held);
    boolean loose = !own && key > 0 && keys.get(key - 1).loosens(field);
    return own || loose && keys.get(key - 1).same(field, given, held);
  }

  /** The records that a row speaks of, by the first key that finds any. */
  public Match match(long line, Object[] byField) {
    Match first = null;
    for (int k = 0; k < keys.size(); k++) {
      String prepared = keys.get(k).ofRow(byField);
      Known found = prepared == null ? null : known.get(k).get(prepared);
      if (found == null) {
        continue;
      }
      Match match = new Match(k + 1, found.records, found.firstLine, found.lastLine);
      if (!found.records.isEmpty()) {
        return match;
      }
      first = first == null ? match : first;
    }
    return first == null ? new Match(0, List.of(), line, line) : first;
  }

  /** The form in which a row is compared by the first key; null if a part of it is blank. */
  public String prepared(Object[] byField) {
    return keys.get(0).ofRow(byField);
  }

  /** The values of the first key in a row, for messages. */
  public String describe(Object[] byField) {
    List<String> parts = new ArrayList<>();
    for (FieldInfo field : keys.get(0).fields()) {
      parts.add(String.valueOf(Values.text(byField[table.fields().indexOf(field)])));
    }
    return String.join(", ", parts);
  }
}
