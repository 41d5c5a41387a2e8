package org.zestyporter.core.match;

import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.function.IntToLongFunction;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.Inquiry;
import org.zestyporter.core.fill.RecordTest;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.Hash;
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
  /** One for all, so that the hashes of a key are the same for whoever has it. */
  private static final Hash HASH = new Hash(new SecureRandom().nextLong());

  private final TableInfo table;
  private final @Nullable RecordTest among;
  private final @Nullable FieldInfo latestBy;
  private final List<KeyFinds> keys = new ArrayList<>();

  /** What rows say; null if nobody asks whether they say the same. */
  private final @Nullable Sayings sayings;

  /** Where keys are written to be compared: rows may be matched by several threads. */
  private final ThreadLocal<Utf8> scratches = ThreadLocal.withInitial(() -> new Utf8(256));

  private final Supplier<Utf8> ofThread = scratches::get;

  private final ThreadLocal<Utf8> others = ThreadLocal.withInitial(() -> new Utf8(256));

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
      this.keys.add(new KeyFinds(key, this.keys.size() + 1, table, decisions, HASH));
    }
  }

  /** True if there is no key, so that every row is a new record. */
  public boolean isEmpty() {
    return keys.isEmpty();
  }

  /** True if any key finds records that are only near. */
  public boolean isNear() {
    return keys.stream().anyMatch(KeyFinds::isNear);
  }

  /**
   * False if a key finds what is near, and the rows are too many to be compared with each other.
   *
   * @param key number of the match key, from 0
   */
  public boolean comparesRows(int key) {
    return keys.get(key).comparesRows();
  }

  /** Number of keys. */
  public int size() {
    return keys.size();
  }

  /** The keys of rows as hashes, by match key and row; 0 where a part is blank. */
  public record Hashes(long[][] byKey) {}

  /** The keys of all rows of a chunk, to be noted; on any thread. */
  public Hashes hashes(ValueColumn[] byField, int rows) {
    long[][] hashes = new long[keys.size()][rows];
    for (int k = 0; k < hashes.length; k++) {
      IntToLongFunction hash = hash(k, byField);
      for (int row = 0; row < rows; row++) {
        hashes[k][row] = hash.applyAsLong(row);
      }
    }
    return new Hashes(hashes);
  }

  /**
   * Tells the keys of rows as hashes, which are the same for every matcher that has the key; for
   * the thread that asks.
   *
   * @param key number of the match key, from 0
   * @return gives 0 where a part is blank
   */
  public IntToLongFunction hash(int key, ValueColumn[] byField) {
    KeyFinds finds = keys.get(key);
    Utf8 scratch = scratches.get();
    return row -> finds.hash(byField, row, scratch);
  }

  /**
   * Keys of rows as hashes, with their places among those that records were looked for, by which
   * {@link #match} finds these.
   *
   * @param places by match key and row; null for a key by which nothing was found
   */
  public record Placed(Hashes hashes, int @Nullable [][] places) {

    private int place(int key, int row) {
      return places[key] == null ? -1 : places[key][row];
    }
  }

  /**
   * The places of the keys of a chunk's rows, once the inquiries are answered; on any thread.
   *
   * @param first index of the first of the rows among the noted ones
   */
  public Placed placed(Hashes hashes, int first) {
    int[][] places = new int[keys.size()][];
    for (int k = 0; k < places.length; k++) {
      places[k] = keys.get(k).places(first, hashes.byKey[k]);
    }
    return new Placed(hashes, places);
  }

  /** Marks the rows for whose first key a record was found. */
  public void markFound(Placed placed, BitSet rows) {
    int[] places = placed.places[0];
    for (int row = 0; places != null && row < places.length; row++) {
      if (keys.get(0).isFound(places[row])) {
        rows.set(row);
      }
    }
  }

  /** The keys, as the plan says them. */
  public List<MatchKey> keys() {
    return keys.stream().map(KeyFinds::said).toList();
  }

  /** Names of the fields by which rows with the same key are compared; none if nobody asks. */
  public List<String> said() {
    return sayings == null ? List.of() : sayings.fields();
  }

  /** What was noted of the rows of a source by a key, and found for them; see {@link #know}. */
  public static final class Known {
    private static final int RECORD_WEIGHT = 16;

    final KeyNotes notes;
    final FoundRecords found;

    Known(KeyNotes notes, FoundRecords found) {
      this.notes = notes;
      this.found = found;
    }

    /** The same where it is not known whether rows with the same key say the same. */
    public Known uncompared() {
      return notes.hasRepeats() ? new Known(notes.uncompared(), found) : this;
    }

    /** True if any rows have a key in common. */
    public boolean hasRepeats() {
      return notes.hasRepeats();
    }

    /** About how many bytes it takes. */
    public long weight() {
      return notes.weight() + (long) RECORD_WEIGHT * found.size();
    }

    /** The same of what is told of rows with the same key. */
    public long weightOfRepeats() {
      return notes.weightOfRepeats();
    }
  }

  /**
   * What is known by a key, once all was noted and answered.
   *
   * @param key number of the match key, from 0
   */
  public Known known(int key) {
    return keys.get(key).known();
  }

  /**
   * Takes what is known by a key from another matcher of the same table: of the same rows, none of
   * which differs in what is asked, and of the same records. Nothing is noted by it after this.
   *
   * @param key number of the match key, from 0
   * @param isCompared true if it holds whether rows with the same key say the same in the same
   *     fields; false if they are still to be compared
   */
  public void know(int key, Known known, boolean isCompared) {
    keys.get(key).know(known, isCompared);
  }

  /**
   * True if a key is known from before.
   *
   * @param key number of the match key, from 0
   */
  public boolean isKnown(int key) {
    return keys.get(key).isKnown();
  }

  /**
   * True if the records of a key were told by {@link #all}: not if they are known from before, or
   * were asked for by their keys.
   */
  public boolean asksForAll(int key) {
    return keys.get(key).asksForAll();
  }

  /**
   * What is asked for a key if the rows have many.
   *
   * @param key number of the match key, from 0
   * @return null if what it finds is only near
   */
  public @Nullable Ask all(int key) {
    return keys.get(key).isNear() ? null : keys.get(key).all(among);
  }

  /**
   * Notes the keys of the next row.
   *
   * @param hashes of its chunk
   * @param byField the columns of the table's fields; null for a row that can't be written
   */
  public void note(Hashes hashes, ValueColumn @Nullable [] byField, int row) {
    for (int k = 0; k < keys.size(); k++) {
      KeyFinds finds = keys.get(k);
      noteNear(finds, finds.noted(), hashes, byField, row);
      finds.note(byField == null ? 0 : hashes.byKey[k][row], byField, row);
    }
  }

  /** Notes what a row says that others may be near to, if the key asks for it. */
  private void noteNear(
      KeyFinds finds,
      int index,
      @Nullable Hashes hashes,
      ValueColumn @Nullable [] byField,
      int row) {
    if (byField != null && finds.isNear()) {
      long[] own = exact(hashes, byField, row);
      finds.noteNear(index, own, byField, row, scratches.get());
    }
  }

  /**
   * The keys of a row by which it may be known to be the same as another, as hashes.
   *
   * @param hashes of its chunk; null if it has not been hashed
   */
  private long[] exact(@Nullable Hashes hashes, ValueColumn[] byField, int row) {
    long[] own = new long[keys.size()];
    for (int k = 0; k < own.length; k++) {
      if (!keys.get(k).isNear()) {
        own[k] =
            hashes == null ? keys.get(k).hash(byField, row, scratches.get()) : hashes.byKey[k][row];
      }
    }
    return own;
  }

  /**
   * Notes the keys of the rows of a chunk, all at once; {@link #asksByValue} after the last.
   *
   * @param out true for rows that are not noted
   */
  public void note(Hashes hashes, boolean[] out) {
    for (int k = 0; k < keys.size(); k++) {
      if (!keys.get(k).isKnown()) {
        keys.get(k).note(hashes.byKey[k], out);
      }
    }
  }

  /** True if any rows have a key in common. */
  public boolean hasRepeats() {
    return keys.stream().anyMatch(KeyFinds::hasRepeats);
  }

  /**
   * True if all records of the table will be asked for where so many rows have keys that differ.
   */
  public boolean willAskForAll(long rows) {
    return keys.stream().anyMatch(key -> key.willAskForAll(rows));
  }

  /** True if all rows that were noted all at once have to be {@link #ask gone through} again. */
  public boolean asksByValue() {
    boolean asks = false;
    for (KeyFinds finds : keys) {
      asks |= finds.asksByValue();
    }
    return asks;
  }

  /**
   * Asks for the records that a row speaks of, which has been noted.
   *
   * @param index the row's index among the noted rows
   */
  public void ask(int index, Hashes hashes, ValueColumn[] byField, int row) {
    for (int k = 0; k < keys.size(); k++) {
      noteNear(keys.get(k), index, hashes, byField, row);
      keys.get(k).ask(hashes.byKey[k][row], byField, row);
    }
  }

  /** The same for a row whose chunk has not been hashed. */
  public void note(ValueColumn @Nullable [] byField, int row) {
    Utf8 scratch = scratches.get();
    for (KeyFinds finds : keys) {
      noteNear(finds, finds.noted(), null, byField, row);
      finds.note(byField == null ? 0 : finds.hash(byField, row, scratch), byField, row);
    }
  }

  /** True if rows with the same key have to be compared, once the inquiries were asked for. */
  public boolean comparesRepeats() {
    return sayings != null && keys.stream().anyMatch(KeyFinds::isToCompare);
  }

  /**
   * Adds the keys of a record to others, as hashes.
   *
   * @param columns of the table's fields
   */
  public void addHashes(ValueColumn[] columns, int at, KeyHashes hashes) {
    for (KeyFinds finds : keys) {
      hashes.add(finds.hash(columns, at, scratches.get()));
    }
  }

  /** True if somebody has decided something about the values of a row's keys. */
  public boolean isDecided(ValueColumn[] byField, int row) {
    return keys.stream().anyMatch(k -> k.isDecided(byField, row));
  }

  /**
   * True if other rows have a key of this row, once the inquiries were asked for, and it is not
   * known yet that they say different things.
   *
   * @param hashes of its chunk; null if it has not been hashed
   */
  public boolean mayDiffer(@Nullable Hashes hashes, ValueColumn[] byField, int row) {
    Utf8 scratch = scratches.get();
    for (int k = 0; k < keys.size(); k++) {
      KeyFinds finds = keys.get(k);
      boolean isAlone = hashes != null && !finds.isRepeated(hashes.byKey[k][row]);
      KeyNotes.Repeat repeat = isAlone ? null : repeat(finds, byField, row, scratch);
      if (repeat != null && !repeat.differ()) {
        return true;
      }
    }
    return false;
  }

  private static KeyNotes.@Nullable Repeat repeat(
      KeyFinds finds, ValueColumn[] byField, int row, Utf8 scratch) {
    boolean any = finds.isToCompare() && finds.key.ofRow(byField, row, scratch);
    return any ? finds.repeat(scratch) : null;
  }

  /**
   * Compares a row with those that have the same key, if there are any; rows come as they were
   * noted.
   */
  public void compare(ValueColumn[] byField, int row) {
    for (KeyFinds finds : keys) {
      KeyNotes.Repeat repeat = repeat(finds, byField, row, scratches.get());
      if (repeat != null && !repeat.differ()) {
        Utf8 said = others.get();
        sayings.write(byField, row, said);
        repeat.says(HASH.of(said.array(), said.size()));
      }
    }
  }

  /**
   * What has to be known of the table's records: those that have one of the noted keys. Nothing is
   * noted after this.
   */
  public List<Inquiry> inquiries() {
    List<Inquiry> inquiries = new ArrayList<>();
    for (KeyFinds finds : keys) {
      if (!finds.isKnown() && finds.settle()) {
        inquiries.add(finds.inquiry(among, ofThread));
      }
    }
    return inquiries;
  }

  /**
   * What has to be known besides, once the {@link #inquiries} are answered: which of several
   * records of the same key is the latest.
   */
  public List<Inquiry> further() {
    List<Inquiry> inquiries = new ArrayList<>();
    for (KeyFinds finds : keys) {
      Inquiry inquiry = latestBy == null ? null : finds.latest(latestBy);
      if (inquiry != null) {
        inquiries.add(inquiry);
      }
    }
    return inquiries;
  }

  /** True if a field is compared by any key more loosely than by its type. */
  public boolean loosens(FieldInfo field) {
    return keys.stream().anyMatch(k -> k.key.loosens(field));
  }

  /**
   * True if a value of a field is the one that the record has, as the plan compares it: by the key
   * that found the record if the field is part of it, else by the field's own type.
   *
   * @param key number of the match key that found the record, from 1; 0 if none did
   */
  public boolean same(int key, FieldInfo field, Object given, Object held) {
    boolean own = field.storage().same(given, held);
    boolean loose = !own && key > 0 && keys.get(key - 1).key.loosens(field);
    return own || loose && keys.get(key - 1).key.same(field, given, held);
  }

  /**
   * The records that a row speaks of, by the first key that finds any.
   *
   * @param index the row's index among the noted rows
   */
  public Match match(int index, ValueColumn[] byField, int row) {
    return match(index, null, byField, row);
  }

  /**
   * The same for a row whose chunk has been hashed.
   *
   * @param placed of its chunk; null if it has not been
   */
  public Match match(int index, @Nullable Placed placed, ValueColumn[] byField, int row) {
    Match first = null;
    Match like = null;
    Decision.Act act = null;
    for (int k = 0; k < keys.size(); k++) {
      KeyFinds finds = keys.get(k);
      long hashed =
          placed == null ? finds.hash(byField, row, scratches.get()) : placed.hashes.byKey[k][row];
      if (hashed == 0) {
        continue;
      }
      Match match;
      if (finds.isNear()) {
        long[] own = exact(placed == null ? null : placed.hashes, byField, row);
        match = finds.near(index, byField, row, own, scratches.get());
        like = like == null || match.isNear() && !like.isNear() ? match : like;
      } else {
        int place = placed == null ? finds.place(hashed) : placed.place(k, row);
        match = finds.match(index, byField, row, hashed, place, ofThread);
        first = first == null ? match : first;
      }
      if (!match.records().isEmpty() || match.isLeftOut()) {
        return match;
      }
      act = act == null ? match.act() : act;
    }
    return Match.ofNone(index, first, like, act);
  }

  /**
   * Throws if a record that was found by a row's key has another key after all.
   *
   * @param records columns of the table's fields
   * @param at place of the record in them
   */
  public void verify(int key, ValueColumn[] byField, int row, ValueColumn[] records, int at) {
    if (keys.get(key - 1).isNear()) {
      return;
    }
    PreparedKey by = keys.get(key - 1).key;
    Utf8 scratch = scratches.get();
    Utf8 other = others.get();
    if (by.ofRow(byField, row, scratch)
        && by.ofRow(records, at, other)
        && !java.util.Arrays.equals(
            scratch.array(), 0, scratch.size(), other.array(), 0, other.size())) {
      throw KeyFinds.collision();
    }
  }

  /** The hash of a record's first key; 0 if a part of it is blank. */
  public long hash(Object[] byField) {
    Utf8 scratch = scratches.get();
    return keys.get(0).key.ofRecord(byField, scratch) ? keys.get(0).hashed(scratch) : 0;
  }

  /** The hash of a row's first key; 0 if a part of it is blank. */
  public long hash(ValueColumn[] byField, int row) {
    Utf8 scratch = scratches.get();
    return keys.get(0).key.ofRow(byField, row, scratch) ? keys.get(0).hashed(scratch) : 0;
  }

  /** True if any noted row holds the first key that has this hash. */
  public boolean isNoted(long hashed) {
    return keys.get(0).isNoted(hashed);
  }

  /** True if several noted rows hold the first key that has this hash. */
  public boolean isRepeated(long hashed) {
    return keys.get(0).isRepeated(hashed);
  }

  /** The records that hold the first key that has this hash. */
  public List<List<Object>> records(long hashed) {
    return keys.get(0).records(hashed);
  }

  /** True if any record was found for any key. */
  public boolean findsAny() {
    return keys.stream().anyMatch(KeyFinds::findsAny);
  }

  /** The values of the first key in a row, for messages. */
  public String describe(Object[] byField) {
    List<String> parts = new ArrayList<>();
    for (FieldInfo field : keys.get(0).key.fields()) {
      parts.add(String.valueOf(Values.text(byField[table.fields().indexOf(field)])));
    }
    return String.join(", ", parts);
  }
}
