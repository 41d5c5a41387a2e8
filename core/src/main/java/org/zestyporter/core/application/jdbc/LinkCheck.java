package org.zestyporter.core.application.jdbc;

import java.sql.SQLException;
import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;

/**
 * Looks after links that a database keeps for the commit without being asked to do otherwise, while
 * it is known which records they are of.
 */
interface LinkCheck {
  /** For databases that check each link at once, or can be told to. */
  LinkCheck NONE = new LinkCheck() {};

  /**
   * What is broken by records that were just written.
   *
   * @param fields those that were given
   * @param keys their primary keys
   * @return null if nothing is
   */
  default @Nullable Breach ofWritten(
      TableInfo table, Collection<FieldInfo> fields, List<List<Object>> keys) throws SQLException {
    return null;
  }

  /**
   * What is broken by records that were just removed.
   *
   * @param keys their primary keys
   * @return null if nothing is
   */
  default @Nullable Breach ofRemoved(TableInfo table, List<List<Object>> keys) throws SQLException {
    return null;
  }
}
