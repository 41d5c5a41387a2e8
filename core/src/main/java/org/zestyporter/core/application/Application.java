package org.zestyporter.core.application;

import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.PorterException;

/**
 * A business application: its tables, look-ups in them, and sessions that write.
 *
 * <p>A record's key is the list of its primary key values. Safe for use by several threads.
 *
 * <pre>{@code
 * TableInfo vessel = marina.table("vessel");
 * marina.look(Ask.all(vessel, vessel.fields(List.of("registration"))), values -> …);
 * }</pre>
 */
public interface Application extends Lookups {

  /**
   * Names of all tables: those of the connection's own schema, then those of others with their
   * schema before them, each in alphabetical order.
   */
  List<String> tableNames();

  /** Names of the tables in the connection's own schema, in alphabetical order. */
  List<String> ownTableNames();

  /**
   * A table with its fields, ignoring capitals in the name. It is read once; {@link #forget} makes
   * the next call read it again.
   *
   * @throws PorterException if there is no such table, with code {@code no-such-table}
   */
  TableInfo table(String name);

  /**
   * The same application with links that it does not declare itself; as far as they can be ones.
   */
  Application with(List<ToldLink> links);

  /** Makes tables known together, which takes less time than one by one. */
  default void read(Collection<String> names) {
    // they are read as they are asked for
  }

  /** Drops what is known of the tables. */
  void forget();

  /**
   * The statement that would make an index by which records of these fields' values are found
   * without reading the whole table; null if there is one, or if none is known to help.
   */
  default @Nullable String missingIndex(TableInfo table, List<FieldInfo> by) {
    return null;
  }

  @Override
  default long count(TableInfo table) {
    return count(table, null);
  }

  /** Number of records that {@link #page} would show for a search. */
  long count(TableInfo table, @Nullable String search);

  /**
   * A page of records in the order of the primary key.
   *
   * @param search shows only records in which a text field holds this, ignoring capitals; null for
   *     all
   */
  List<Object[]> page(TableInfo table, @Nullable String search, long offset, int limit);

  Abilities abilities();

  /** The same application for one purpose, whose look-ups and writing {@link #cancel} ends. */
  Application stoppable();

  /** Ends all that is going, and lets nothing begin. */
  void cancel();

  /** Opens a session for writing; what it writes is taken back unless committed. */
  default WriteSession begin() {
    return begin("another run");
  }

  /**
   * The same.
   *
   * @param name what those are told who wait for it, such as “Run 2026-0007”
   */
  WriteSession begin(String name);

  /** What became of a session by its {@link WriteSession#mark}; null if nobody can tell. */
  @Nullable Settled settled(String mark);
}
