package org.zestyporter.core.application.jdbc;

import java.sql.SQLException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.TableInfo;

/**
 * Looks after links that a database keeps for the commit without being asked to do otherwise, while
 * it is known which records they are of.
 */
interface LinkCheck {
  /** For databases that check each link at once, or can be told to. */
  LinkCheck NONE = (table, keys, removed) -> null;

  /**
   * What is broken by records that were just written or removed.
   *
   * @param keys their primary keys
   * @return null if nothing is
   */
  @Nullable Breach broken(TableInfo table, List<List<Object>> keys, boolean removed)
      throws SQLException;
}
