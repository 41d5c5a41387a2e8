package org.zestyporter.core.match;

import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
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
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/**
 * Finds the records that rows speak of.
 *
 * <p>Used in three steps: {@link #note} every row in order, have the {@link #inquiries} answered,
 * then {@link #match} row by row, on any thread. Keys are held as hashes of 64 bits, eight bytes a
 * row; before anything follows from two of them being the same, the keys themselves are compared.
 *
 * <pre>{@code
 * matcher.note(byField, row);       // for every row
 * matcher.inquiries();              // once, and have them answered
 * Match match = matcher.match(index, byField, row);
 * }</pre>
 */
public final class Matcher {
  private static final int ASKED_BY_KEY = 100_000;

  private final TableInfo table;
  private final @Nullable RecordTest among;
  private final @Nullable FieldInfo latestBy;
  private final List<PreparedKey> keys = new ArrayList<>();
  private final List<Known> known = new ArrayList<>();

  /** What rows say; null if nobody asks whether they say the same. */
  private final @Nullable Sayings sayings;

  private final Hash hash = new Hash(new SecureRandom().nextLong());

  /** Where keys are written to be compared: rows may be matched by several threads. */
  private final ThreadLocal<Utf8> scratches = ThreadLocal.withInitial(() -> new Utf8(256));

  private final ThreadLocal<Utf8> others = ThreadLocal.withInitial(() -> new Utf8(256));

  /** What is known of the values of one key. */
  private static final class Known {
    private final KeyNotes notes = new KeyNotes();
    private final FoundRecords found;

    private final KeyDecisions decisions;

    /** What is near to rows; null if the fields of the key have to agree. */
    private final @Nullable NearRecords near;

    /** The latest of several records, by the place of their key. */
    private Map<Integer, List<Object>> latest = Map.of();

    /** The noted keys as values, while they are few enough to be asked for by key. */
    private @Nullable List<List<Object>> asked;

    private LongMap<Boolean> seen = new LongMap<>();

    Known(FoundRecords found, KeyDecisions decisions, @Nullable NearRecords near) {
      this.found = found;
      this.decisions = decisions;
      this.near = near;
      this.asked = near == null ? new ArrayList<>() : null;
    }
  }

  /**
   * The rows that have the same key.
   *
   * @param first index of the first
   * @param last index of the last; the same if there is but one
   * @param differ true if they say different things; known only where that is asked
   * @param keep what somebody has decided about them; null if nobody has
   */
  public record Repeats(int first, int last, boolean differ, Decision.@Nullable Act keep) {
    static Repeats none(int index) {
      return new Repeats(index, index, false, null);
    }

    Repeats keeping(Decision.Act kept) {
      return new Repeats(first, last, differ, kept);
    }
  }

  /**
   * What a row was found to speak of.
   *
   * @param key number of the match key that found it, from 1; 0 if none of them has a value
   * @param records primary keys of the records found
   * @param repeats the rows with the same key
   * @param act what somebody has decided about it; null if nobody has
   * @param nearness how near the records are; null if the key's values agree
   */
  public record Match(
      int key,
      List<List<Object>> records,
      Repeats repeats,
      Decision.@Nullable Act act,
      @Nullable String nearness) {
    public boolean repeated() {
      return repeats.first != repeats.last;
    }

    /** Index of the first row with the same key. */
    public int first() {
      return repeats.first;
    }

    /** Index of the last row with the same key. */
    public int last() {
      return repeats.last;
    }

    /** True if records were found that are only near. */
    public boolean isNear() {
      return nearness != null && !records.isEmpty();
    }

    /** True if it is certain which record is meant. */
    public boolean isOne() {
      return records.size() == 1 && (!isNear() || act == Decision.Act.TAKE);
    }
  }

  public Matcher(List<MatchKey> keys, TableInfo table) {
    this(keys, table, null, null, List.of(), List.of());
  }

  /**
   * @param among tells which records are looked for; null for all
   * @param latestBy the field whose highest value tells which of several records is meant; null if
   *     none does
   * @param decisions what somebody has said of certain rows
   * @param said fields by which rows with the same key are told to say different things; empty if
   *     nobody asks
   */
  public Matcher(
      List<MatchKey> keys,
      TableInfo table,
      @Nullable RecordTest among,
      @Nullable FieldInfo latestBy,
      List<Decision> decisions,
      List<FieldInfo> said) {
    this.sayings = said.isEmpty() ? null : new Sayings(said, table);
    this.table = table;
    this.among = among;
    this.latestBy = latestBy;
    for (MatchKey key : keys) {
      PreparedKey prepared = new PreparedKey(key.agreeingFirst(), table);
      List<FieldInfo> primary = table.fields(table.primaryKey());
      NearRecords near =
          key.isNear() ? new NearRecords(new NearParts(key.agreeingFirst(), table), primary) : null;
      KeyDecisions decided = new KeyDecisions(prepared, decisions);
      this.keys.add(prepared);
      this.known.add(new Known(new FoundRecords(primary), decided, near));
    }
  }

  /** True if there is no key, so that every row is a new record. */
  public boolean isEmpty() {
    return keys.isEmpty();
  }

  /** True if any key finds records that are only near. */
  public boolean isNear() {
    return known.stream().anyMatch(k -> k.near != null);
  }

  /** Number of keys. */
  public int size() {
    return keys.size();
  }

  /**
   * Notes the keys of the next row.
   *
   * @param byField the columns of the table's fields; null for a row that can't be written
   */
  public void note(ValueColumn @Nullable [] byField, int row) {
    Utf8 scratch = scratches.get();
    for (int k = 0; k < keys.size(); k++) {
      PreparedKey key = keys.get(k);
      Known one = known.get(k);
      if (byField == null || !key.ofRow(byField, row, scratch)) {
        one.notes.note(0);
        continue;
      }
      long hashed = hash.of(scratch.array(), scratch.size());
      one.notes.note(hashed);
      if (one.asked != null && !key.isLoose() && one.seen.get(hashed) == null) {
        one.seen.put(hashed, true);
        List<Object> values = key.values(byField, row);
        if (!values.isEmpty()) {
          one.asked.add(values);
        }
        if (one.asked.size() > ASKED_BY_KEY) {
          one.asked = null;
          one.seen = new LongMap<>();
        }
      }
    }
  }

  /** True if rows with the same key have to be compared, once the inquiries were asked for. */
  public boolean comparesRepeats() {
    return sayings != null && known.stream().anyMatch(k -> k.notes.hasRepeats());
  }

  /**
   * Compares a row with those that have the same key, if there are any; rows come as they were
   * noted.
   *
   * @param byField null for a row that can't be written
   */
  public void compare(ValueColumn @Nullable [] byField, int row) {
    Utf8 scratch = scratches.get();
    for (int k = 0; byField != null && k < keys.size(); k++) {
      if (keys.get(k).ofRow(byField, row, scratch)) {
        KeyNotes.Repeat repeat =
            known.get(k).notes.repeat(hash.of(scratch.array(), scratch.size()));
        if (repeat != null) {
          Utf8 said = others.get();
          sayings.write(byField, row, said);
          repeat.says(hash.of(said.array(), said.size()));
        }
      }
    }
  }

  /**
   * What has to be known of the table's records: those that have one of the noted keys. Nothing is
   * noted after this.
   */
  public List<Inquiry> inquiries() {
    List<Inquiry> inquiries = new ArrayList<>();
    for (int k = 0; k < keys.size(); k++) {
      Known one = known.get(k);
      one.notes.settle();
      one.seen = new LongMap<>();
      if (!one.notes.isEmpty()) {
        inquiries.add(inquiry(keys.get(k), one));
      }
    }
    return inquiries;
  }

  private Inquiry inquiry(PreparedKey key, Known one) {
    List<FieldInfo> fields = new ArrayList<>(key.fields());
    fields.addAll(table.fields(table.primaryKey()));
    int parts = key.fields().size();
    int tested = fields.size();
    if (among != null) {
      fields.addAll(among.fields());
    }
    Ask ask =
        key.isLoose() || one.asked == null
            ? Ask.all(table, fields)
            : Ask.keyed(table, fields, key.fields(), one.asked);
    return new Inquiry(
        ask,
        found -> {
          Utf8 scratch = scratches.get();
          for (int at = 0; at < found[0].rows(); at++) {
            if (!isAmong(found, tested, at)) {
              continue;
            }
            if (one.near != null) {
              one.near.add(found, parts, at, scratch);
            } else if (key.ofParts(found, at, scratch)) {
              long hashed = hash.of(scratch.array(), scratch.size());
              int place = one.notes.distinct().place(hashed);
              if (place >= 0) {
                one.found.add(place, found, parts, at);
              }
            }
          }
        },
        () -> {
          one.asked = null;
          if (one.near != null) {
            one.near.settle();
          }
          one.found.settle(one.notes.distinct().size());
        });
  }

  /** True if a record is one of those that are looked for. */
  private boolean isAmong(ValueColumn[] found, int from, int at) {
    if (among == null) {
      return true;
    }
    Object[] values = new Object[found.length - from];
    for (int i = 0; i < values.length; i++) {
      values[i] = found[from + i].value(at);
    }
    return among.holds(values);
  }

  /**
   * What has to be known besides, once the {@link #inquiries} are answered: which of several
   * records of the same key is the latest.
   */
  public List<Inquiry> further() {
    List<Inquiry> inquiries = new ArrayList<>();
    for (Known one : known) {
      if (latestBy != null) {
        Latest latest = new Latest(table, latestBy, one.found);
        if (!latest.isEmpty()) {
          inquiries.add(latest.inquiry(places -> one.latest = places));
        }
      }
    }
    return inquiries;
  }

  /** True if a field is compared by any key more loosely than by its type. */
  public boolean loosens(FieldInfo field) {
    return keys.stream().anyMatch(k -> k.loosens(field));
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

  /**
   * The records that a row speaks of, by the first key that finds any.
   *
   * @param index the row's index among the noted rows
   */
  public Match match(int index, ValueColumn[] byField, int row) {
    Utf8 scratch = scratches.get();
    Match first = null;
    for (int k = 0; k < keys.size(); k++) {
      if (!keys.get(k).ofRow(byField, row, scratch)) {
        continue;
      }
      Match match =
          known.get(k).decisions.applied(found(k, index, byField, row, scratch), byField, row);
      if (!match.records().isEmpty() || match.act() != null && match.act() != Decision.Act.OTHER) {
        return match;
      }
      first = first == null || first.act() == null && match.act() != null ? match : first;
    }
    return first == null ? new Match(0, List.of(), Repeats.none(index), null, null) : first;
  }

  private Match found(int k, int index, ValueColumn[] byField, int row, Utf8 scratch) {
    Known one = known.get(k);
    if (one.near != null) {
      // nor are rows of the file one record because they are near to each other
      NearRecords.Near near = one.near.of(byField, row, scratch);
      return new Match(k + 1, near.records(), Repeats.none(index), null, near.told());
    }
    long hashed = hash.of(scratch.array(), scratch.size());
    KeyNotes.Repeat repeat = one.notes.repeat(hashed);
    if (repeat != null && !repeat.isSame(scratch.array(), scratch.size())) {
      throw collision();
    }
    Repeats repeats =
        repeat == null
            ? Repeats.none(index)
            : new Repeats(repeat.first(), repeat.last(), repeat.differ(), null);
    int place = one.notes.distinct().place(hashed);
    List<Object> latest = one.latest.get(place);
    return new Match(
        k + 1, latest == null ? one.found.of(place) : List.of(latest), repeats, null, null);
  }

  private static PorterException collision() {
    return ErrorCode.INTERNAL.error(
        "Two different keys of the file were taken for the same while looking for"
            + " repeats, which happens once in millions of files.");
  }

  /**
   * Throws if a record that was found by a row's key has another key after all.
   *
   * @param records columns of the table's fields
   * @param at place of the record in them
   */
  public void verify(int key, ValueColumn[] byField, int row, ValueColumn[] records, int at) {
    if (known.get(key - 1).near != null) {
      return;
    }
    PreparedKey by = keys.get(key - 1);
    Utf8 scratch = scratches.get();
    Utf8 other = others.get();
    if (by.ofRow(byField, row, scratch)
        && by.ofRow(records, at, other)
        && !java.util.Arrays.equals(
            scratch.array(), 0, scratch.size(), other.array(), 0, other.size())) {
      throw collision();
    }
  }

  /** The hash of a record's first key; 0 if a part of it is blank. */
  public long hash(Object[] byField) {
    Utf8 scratch = scratches.get();
    return keys.get(0).ofRecord(byField, scratch) ? hashed(scratch) : 0;
  }

  /** The hash of a row's first key; 0 if a part of it is blank. */
  public long hash(ValueColumn[] byField, int row) {
    Utf8 scratch = scratches.get();
    return keys.get(0).ofRow(byField, row, scratch) ? hashed(scratch) : 0;
  }

  private long hashed(Utf8 scratch) {
    long hashed = hash.of(scratch.array(), scratch.size());
    KeyNotes.Repeat repeat = known.get(0).notes.repeat(hashed);
    if (repeat != null && !repeat.isSame(scratch.array(), scratch.size())) {
      throw collision();
    }
    return hashed;
  }

  /** True if any noted row holds the first key that has this hash. */
  public boolean isNoted(long hashed) {
    return known.get(0).notes.distinct().place(hashed) >= 0;
  }

  /** True if several noted rows hold the first key that has this hash. */
  public boolean isRepeated(long hashed) {
    return known.get(0).notes.repeat(hashed) != null;
  }

  /** The records that hold the first key that has this hash. */
  public List<List<Object>> records(long hashed) {
    return known.get(0).found.of(known.get(0).notes.distinct().place(hashed));
  }

  /** True if any record was found for any key. */
  public boolean findsAny() {
    return known.stream().anyMatch(k -> !k.found.isEmpty() || k.near != null && !k.near.isEmpty());
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
