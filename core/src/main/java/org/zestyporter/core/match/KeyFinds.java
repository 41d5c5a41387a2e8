package org.zestyporter.core.match;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.Inquiry;
import org.zestyporter.core.fill.RecordTest;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Hash;
import org.zestyporter.core.value.LongMap;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.SideBySide;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;

/** One match key: which rows hold which of its values, and the records that were found for them. */
final class KeyFinds {
  private static final int ASKED_BY_KEY = 100_000;

  /** Records that one thread learns at a time. */
  private static final int LEARNT_BY_EACH = 1_000;

  final PreparedKey key;
  private final MatchKey said;
  private final int number;
  private final TableInfo table;
  private final Hash hash;
  private KeyNotes notes = new KeyNotes();
  private FoundRecords found;

  /** True if all this is known from before, so that nothing has to be noted or asked. */
  private boolean isKnown;

  /** The same of whether rows with the same key say the same. */
  private boolean isCompared;

  private boolean asksForAll;

  private final KeyDecisions decisions;

  /** What is near to rows; null if the fields of the key have to agree. */
  private final @Nullable NearRecords near;

  private final @Nullable NearRows nearRows;

  /** The latest of several records, by the place of their key. */
  private Map<Integer, List<Object>> latest = Map.of();

  /** The noted keys as values, while they are few enough to be asked for by key. */
  private @Nullable List<List<Object>> asked;

  private LongMap<Boolean> seen = new LongMap<>();

  /**
   * @param number among the keys, from 1
   */
  KeyFinds(MatchKey said, int number, TableInfo table, List<Decision> decisions, Hash hash) {
    MatchKey ordered = said.agreeingFirst();
    List<FieldInfo> primary = table.fields(table.primaryKey());
    this.key = new PreparedKey(ordered, table);
    this.said = said;
    this.number = number;
    this.table = table;
    this.hash = hash;
    this.found = new FoundRecords(primary);
    this.decisions = new KeyDecisions(key, ordered.isNear(), decisions);
    NearParts parts = ordered.isNear() ? new NearParts(ordered, table) : null;
    this.near = parts == null ? null : new NearRecords(parts, primary);
    this.nearRows = parts == null ? null : new NearRows(parts);
    this.asked = near == null ? new ArrayList<>() : null;
  }

  /** True if what it finds is only near. */
  boolean isNear() {
    return near != null;
  }

  /** The key as the plan says it. */
  MatchKey said() {
    return said;
  }

  boolean isKnown() {
    return isKnown;
  }

  /** True if rows have a key in common, of which it is not known whether they say the same. */
  boolean isToCompare() {
    return !isCompared && hasRepeats();
  }

  /** True if all records will be asked for where so many rows have keys that differ. */
  boolean willAskForAll(long rows) {
    return key.isLoose() || near != null || rows > ASKED_BY_KEY;
  }

  /** True if all records were asked for, not only those of the noted keys. */
  boolean asksForAll() {
    return asksForAll;
  }

  /** What is known of it once all was noted and answered. */
  Matcher.Known known() {
    return new Matcher.Known(notes, found);
  }

  /** Takes what is known of the same key of the same rows. */
  void know(Matcher.Known known, boolean isCompared) {
    this.isCompared = isCompared;
    notes = known.notes;
    found = known.found;
    isKnown = true;
  }

  /** The key of a row as a hash; 0 if a part is blank. */
  long hash(ValueColumn[] byField, int row, Utf8 scratch) {
    return key.ofRow(byField, row, scratch) ? hash(scratch) : 0;
  }

  /**
   * Notes the key of the next row.
   *
   * @param hashed 0 for a row without a key, or one that can't be written
   */
  void note(long hashed, ValueColumn @Nullable [] byField, int row) {
    notes.note(hashed);
    ask(hashed, byField, row);
  }

  /** Nothing is noted after this; true if anything has been. */
  boolean settle() {
    notes.settle();
    if (nearRows != null) {
      nearRows.settle();
    }
    seen = new LongMap<>();
    return !notes.isEmpty();
  }

  /** Number of rows whose keys were noted. */
  int noted() {
    return notes.size();
  }

  /** Notes the keys of some rows, whose values are {@link #ask asked} for later. */
  void note(long[] hashes, boolean[] out) {
    notes.note(hashes, out);
  }

  /** True if the values of the keys have to be known besides, once all are noted. */
  boolean asksByValue() {
    notes.settle();
    if (notes.distinct().size() > ASKED_BY_KEY) {
      asked = null;
    }
    return near != null || asked != null && !key.isLoose() && !isKnown;
  }

  /**
   * Notes what a row says that others may be near to.
   *
   * @param index its index among the noted rows
   * @param own its keys as hashes
   */
  void noteNear(int index, long[] own, ValueColumn[] byField, int row, Utf8 scratch) {
    nearRows.add(index, own, byField, row, scratch);
  }

  /** False if rows are too many to be compared with each other. */
  boolean comparesRows() {
    return nearRows == null || nearRows.areCompared();
  }

  /** Asks for the key of a row. */
  void ask(long hashed, ValueColumn[] byField, int row) {
    if (hashed == 0 || asked == null || key.isLoose() || seen.get(hashed) != null) {
      return;
    }
    seen.put(hashed, true);
    List<Object> values = key.values(byField, row);
    if (!values.isEmpty()) {
      asked.add(values);
    }
    if (asked.size() > ASKED_BY_KEY) {
      asked = null;
      seen = new LongMap<>();
    }
  }

  boolean hasRepeats() {
    return notes.hasRepeats();
  }

  /** The rows that hold a written key, if several do; null if not. */
  KeyNotes.@Nullable Repeat repeat(Utf8 written) {
    return notes.repeat(hash(written));
  }

  /**
   * What has to be known of the table's records: those that have one of the noted keys, or may be
   * near.
   *
   * @param scratches gives each thread a place to write keys to
   */
  Inquiry inquiry(@Nullable RecordTest among, Supplier<Utf8> scratches) {
    int parts = key.fields().size();
    int tested = parts + table.primaryKey().size();
    List<FieldInfo> fields = fields(among);
    asksForAll = key.isLoose() || asked == null;
    Ask ask = asksForAll ? Ask.all(table, fields) : Ask.keyed(table, fields, key.fields(), asked);
    return new Inquiry(
        ask,
        records -> learn(records, parts, among, tested, scratches),
        () -> {
          asked = null;
          if (near != null) {
            near.settle();
          }
          found.settle(notes.distinct().size());
        });
  }

  private List<FieldInfo> fields(@Nullable RecordTest among) {
    List<FieldInfo> fields = new ArrayList<>(key.fields());
    fields.addAll(table.fields(table.primaryKey()));
    if (among != null) {
      fields.addAll(among.fields());
    }
    return fields;
  }

  /** What is asked if the rows have many keys. */
  Ask all(@Nullable RecordTest among) {
    return Ask.all(table, fields(among));
  }

  private void learn(
      ValueColumn[] records,
      int parts,
      @Nullable RecordTest among,
      int tested,
      Supplier<Utf8> scratches) {
    int count = records[0].rows();
    if (near != null) {
      Utf8 scratch = scratches.get();
      for (int at = 0; at < count; at++) {
        if (among == null || isAmong(among, records, tested, at)) {
          near.add(records, parts, at, scratch);
        }
      }
      return;
    }
    int[][] places = new int[(count + LEARNT_BY_EACH - 1) / LEARNT_BY_EACH][];
    SideBySide.go(
        places.length,
        1,
        (from, to) -> {
          Utf8 scratch = scratches.get();
          for (int i = from; i < to; i++) {
            int first = i * LEARNT_BY_EACH;
            long[] hashes = new long[Math.min(LEARNT_BY_EACH, count - first)];
            for (int r = 0; r < hashes.length; r++) {
              boolean is = among == null || isAmong(among, records, tested, first + r);
              hashes[r] = is && key.ofParts(records, first + r, scratch) ? hash(scratch) : 0;
            }
            places[i] = notes.places(hashes);
          }
        });
    for (int at = 0; at < count; at++) {
      int place = places[at / LEARNT_BY_EACH][at % LEARNT_BY_EACH];
      if (place >= 0) {
        found.add(place, records, parts, at);
      }
    }
  }

  private long hash(Utf8 written) {
    return hash.of(written.array(), written.size());
  }

  /** True if a record is one of those that are looked for. */
  private static boolean isAmong(RecordTest among, ValueColumn[] records, int from, int at) {
    Object[] values = new Object[records.length - from];
    for (int i = 0; i < values.length; i++) {
      values[i] = records[from + i].value(at);
    }
    return among.holds(values);
  }

  /** What has to be known besides to tell the latest of several records; null if nothing has. */
  @Nullable Inquiry latest(FieldInfo by) {
    Latest search = new Latest(table, by, found);
    return search.isEmpty() ? null : search.inquiry(places -> latest = places);
  }

  /**
   * What a row speaks of.
   *
   * @param index the row's index among the noted rows
   * @param hashed its key
   * @param place of its key, as {@link #place} or {@link #places} tell it
   * @param scratches gives each thread a place to write keys to
   */
  Match match(
      int index, ValueColumn[] byField, int row, long hashed, int place, Supplier<Utf8> scratches) {
    return decisions.applied(found(index, byField, row, hashed, place, scratches), byField, row);
  }

  /**
   * The same of a key that finds what is near.
   *
   * @param own the row's keys as hashes, as {@link #noteNear} takes them
   */
  Match near(int index, ValueColumn[] byField, int row, long[] own, Utf8 scratch) {
    return decisions.applied(found(index, byField, row, own, scratch), byField, row);
  }

  /**
   * The place of a key among those for which records were looked for; under 0 if none was found.
   */
  int place(long hashed) {
    return found.isEmpty() ? -1 : notes.distinct().place(hashed);
  }

  /**
   * The same for the keys of some rows; null if no record was found at all.
   *
   * @param first index of the first of them among the noted rows
   */
  int @Nullable [] places(int first, long[] hashes) {
    return found.isEmpty() ? null : notes.places(first, hashes);
  }

  /** True if a record was found for the key at a place. */
  boolean isFound(int place) {
    return found.has(place);
  }

  private Match found(
      int index, ValueColumn[] byField, int row, long hashed, int place, Supplier<Utf8> scratches) {
    KeyNotes.Repeat repeat = notes.repeat(hashed);
    Match.Repeats repeats = Match.Repeats.none(index);
    if (repeat != null) {
      Utf8 scratch = scratches.get();
      key.ofRow(byField, row, scratch);
      requireSame(repeat, scratch);
      repeats = new Match.Repeats(repeat.first(), repeat.last(), repeat.differ(), null);
    }
    List<Object> last = latest.get(place);
    return new Match(number, last == null ? found.of(place) : List.of(last), repeats);
  }

  private Match found(int index, ValueColumn[] byField, int row, long[] own, Utf8 scratch) {
    // nor are rows of the file one record because they are near to each other
    Match.Repeats alone = Match.Repeats.none(index);
    NearRecords.Near like = near.of(byField, row, scratch);
    if (!like.records().isEmpty()) {
      return new Match(number, like.records(), List.of(), alone, null, like.told());
    }
    NearRows.Near rows = nearRows.before(index, own, byField, row, scratch);
    return new Match(number, List.of(), rows.rows(), alone, null, rows.told());
  }

  private static void requireSame(KeyNotes.Repeat repeat, Utf8 written) {
    if (!repeat.isSame(written.array(), written.size())) {
      throw collision();
    }
  }

  /** The hash of a written key. */
  long hashed(Utf8 written) {
    long hashed = hash(written);
    KeyNotes.Repeat repeat = notes.repeat(hashed);
    if (repeat != null) {
      requireSame(repeat, written);
    }
    return hashed;
  }

  static PorterException collision() {
    return ErrorCode.INTERNAL.error(
        "Two different keys of the file were taken for the same while looking for"
            + " repeats, which happens once in millions of files.");
  }

  /** True if somebody has decided something about a row's key. */
  boolean isDecided(ValueColumn[] byField, int row) {
    return decisions.speaksOf(byField, row);
  }

  /** True if any noted row holds the key that has this hash. */
  boolean isNoted(long hashed) {
    return notes.distinct().place(hashed) >= 0;
  }

  /** True if several noted rows hold it. */
  boolean isRepeated(long hashed) {
    return notes.repeat(hashed) != null;
  }

  /** The records that hold it. */
  List<List<Object>> records(long hashed) {
    return found.of(place(hashed));
  }

  /** True if any record was found. */
  boolean findsAny() {
    return !found.isEmpty() || near != null && !near.isEmpty();
  }
}
