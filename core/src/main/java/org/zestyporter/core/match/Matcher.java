package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.database.Database;
import org.zestyporter.core.database.FieldInfo;
import org.zestyporter.core.database.TableInfo;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.Values;

/**
 * Finds the records that rows speak of.
 *
 * <p>Used in three steps: {@link #note} every row that could be written, {@link #look} once, then
 * {@link #match} row by row. Existing records are found in one pass over the key fields of the
 * table for each key, whatever its size; memory follows the distinct keys of the source.
 *
 * <pre>{@code
 * matcher.note(line, byField);      // for every row
 * matcher.look(database);           // once
 * Match match = matcher.match(line, byField);
 * }</pre>
 */
public final class Matcher {
  private final TableInfo table;
  private final List<PreparedKey> keys = new ArrayList<>();
  private final List<Map<String, Known>> known = new ArrayList<>();

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
        known.get(k).computeIfAbsent(prepared, p -> new Known(line)).lastLine = line;
      }
    }
  }

  /** Looks up all noted keys. */
  public void look(Database database) {
    for (int k = 0; k < keys.size(); k++) {
      if (!known.get(k).isEmpty()) {
        look(database, keys.get(k), known.get(k));
      }
    }
  }

  private void look(Database database, PreparedKey key, Map<String, Known> wanted) {
    List<FieldInfo> fields = new ArrayList<>(key.fields());
    fields.addAll(table.fields(table.primaryKey()));
    int parts = key.fields().size();
    List<FieldInfo> keyFields = table.fields(table.primaryKey());
    database.scan(
        table,
        fields,
        values -> {
          String prepared = key.of(Arrays.asList(values).subList(0, parts));
          Known found = prepared == null ? null : wanted.get(prepared);
          if (found != null) {
            List<List<Object>> records = new ArrayList<>(found.records);
            records.add(primaryKey(values, parts, keyFields));
            found.records = records;
          }
        });
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
