package org.zestyporter.core.application;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;

/** Answers what is asked about records. They are looked up in sets, never one by one. */
public interface Lookups {

  /**
   * Hands over what was asked for, and perhaps more, as a stream.
   *
   * @param found one array a record, in the order of the asked fields; valid during the call only
   */
  void look(Ask ask, Consumer<Object[]> found);

  /**
   * The records of a set of primary keys, by their keys; keys without a record are left out.
   *
   * @return values by the table's fields
   */
  Map<List<Object>, Object[]> fetch(TableInfo table, Collection<List<Object>> keys);
}
