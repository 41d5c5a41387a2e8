package org.zestyporter.core.application;

import java.util.Collection;
import java.util.List;
import java.util.function.Consumer;
import org.zestyporter.core.value.ValueColumn;

/** Answers what is asked about records. They are looked up in sets, never one by one. */
public interface Lookups {

  /**
   * Hands over what was asked for, and perhaps more, as a stream.
   *
   * @param found takes some records at a time, one column an asked field
   */
  void look(Ask ask, Consumer<ValueColumn[]> found);

  /**
   * The records of a set of primary keys, and perhaps more; keys without a record are left out.
   *
   * @param keys in the form in which keys are compared
   */
  Records fetch(TableInfo table, Collection<List<Object>> keys);

  /** Lets it be known that all records of a table will be gone through before long. */
  default void expect(TableInfo table) {}

  /**
   * True if {@link #fetch} gives the records of a table as they were when all of them were gone
   * through, without asking for them.
   */
  default boolean hasSeen(TableInfo table) {
    return false;
  }

  /** The same as {@link #fetch}, but as they are now. */
  default Records fetchNow(TableInfo table, Collection<List<Object>> keys) {
    return fetch(table, keys);
  }

  /** Number of records in a table. */
  long count(TableInfo table);
}
