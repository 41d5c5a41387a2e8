package org.zestyporter.core.application;

import java.math.BigDecimal;
import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.PorterException;

/**
 * Writes records in sets. Its look-ups see what it has written. Not for use by several threads.
 *
 * <p>Nothing of it stands before {@link #commit}; closing takes back what was not committed.
 */
public interface WriteSession extends Lookups, AutoCloseable {

  /**
   * A record to write.
   *
   * @param line line of the row it comes from, for messages
   * @param key primary key of the record to update; null to insert
   * @param fields indexes of the fields to write among the table's fields
   * @param values one value a field to write
   */
  record Change(long line, @Nullable List<Object> key, List<Integer> fields, List<Object> values) {}

  /**
   * A record to take away.
   *
   * @param line line of the row that it is told by, for messages
   * @param key its primary key
   */
  record Removal(long line, List<Object> key) {}

  /**
   * A record that the application refused.
   *
   * @param line line of the row it comes from
   * @param table what plans call its table; null if it is not known which
   * @param field the field, or fields, that it is about; null if that was not told
   * @param value the value that it is about; null if that was not told
   * @param reason in words, without a full stop
   */
  record Refusal(
      long line,
      @Nullable String table,
      @Nullable String field,
      @Nullable String value,
      String reason) {

    /** A refusal of which no more is known than the reason. */
    public Refusal(long line, String reason) {
      this(line, null, null, null, reason);
    }

    /** All that is known, in words. */
    public String told() {
      String about =
          field == null ? "" : value == null ? field + ": " : field + " “" + value + "”: ";
      return about + reason;
    }
  }

  /** The application refused a record. */
  final class RefusedException extends RuntimeException {
    private static final long serialVersionUID = 1L;
    private final transient Refusal refusal;

    public RefusedException(Refusal refusal, @Nullable Throwable cause) {
      super(refusal.told(), cause);
      this.refusal = refusal;
    }

    /** One of the refused records; if it was sent alone, it is that one. */
    public Refusal refusal() {
      return refusal;
    }
  }

  /** A place in a session to which it can go back. */
  interface Place {
    /** Takes back what was written since. */
    void goBack();

    /** Forgets the place; what was written stays for now. */
    void forget();
  }

  /**
   * Claims tables until the end of the session, so that no other run, of this process or of another
   * where the application can tell, writes into them meanwhile.
   *
   * @param written tables that records are written into
   * @param lookedUp tables that links are looked up in
   * @return false if another run has one of them; nothing is claimed then
   */
  boolean claim(Collection<TableInfo> written, Collection<TableInfo> lookedUp);

  /** The name of the session that has what could not be claimed; null if nothing was wanted. */
  @Nullable String behind();

  /**
   * Inserts and updates records.
   *
   * @param inOrder true if a record may only be written once those before it are
   * @return the primary key of each record, in the order of {@code changes}
   * @throws RefusedException if the application refuses any of them; it names one. Then all that
   *     can be done is to go back to a {@link #place}, or to close the session
   * @throws PorterException if the application is lost
   */
  List<List<Object>> write(TableInfo table, List<Change> changes, boolean inOrder);

  /**
   * Inserts records by columns, in whatever order.
   *
   * @return the primary key of each, in the order of the records
   * @throws RefusedException as {@link #write} does
   */
  List<List<Object>> insert(NewRecords records);

  /**
   * True if what is written into a table stands there as it was given, since nothing of the
   * application's own acts on its records. What was left to the application is not known by it.
   *
   * @param given the fields that values are given for
   */
  boolean keeps(TableInfo table, Collection<FieldInfo> given);

  /**
   * Some fields of records, as {@link #fetch(TableInfo, Collection)}.
   *
   * @param fields with those of the primary key among them; the columns of others are blank
   */
  Records fetch(TableInfo table, Collection<FieldInfo> fields, Collection<List<Object>> keys);

  /**
   * What the application says of some records.
   *
   * @param records how many of them are there
   * @param sums by number field, what their values add up to; blanks count as nothing
   */
  record Totals(long records, List<BigDecimal> sums) {}

  /**
   * Counts and adds up records by their primary keys.
   *
   * @param keys in the form in which keys are compared
   */
  Totals totals(TableInfo table, List<FieldInfo> numbers, Collection<List<Object>> keys);

  /** Notes how things stand now. */
  Place place();

  /**
   * Takes records away.
   *
   * @throws RefusedException as {@link #write} does
   */
  void remove(TableInfo table, List<Removal> removals);

  /**
   * What tells this session from all others, even after a crash of either side; null if the
   * application has nothing of the kind.
   */
  @Nullable String mark();

  /**
   * Has the application say what it would say only when committing.
   *
   * @throws PorterException with code {@code database-refused} if it refuses what was written
   */
  void check();

  /**
   * Makes everything that was written lasting.
   *
   * @throws PorterException with code {@code database-refused} if the application refuses all of it
   *     together
   * @throws PorterException with code {@code unsure} if the connection broke meanwhile, so that
   *     nobody can tell from here whether it is
   */
  void commit();

  /** Takes back what was not committed, and gives back what was claimed. */
  @Override
  void close();
}
