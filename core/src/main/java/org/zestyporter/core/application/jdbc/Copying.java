package org.zestyporter.core.application.jdbc;

import java.sql.SQLException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.NewRecords;

/** A way to insert records by columns, for one session. */
interface Copying {
  /** For databases that have none. */
  Copying NONE = records -> null;

  /**
   * Inserts records, which must give and leave the same as statements.
   *
   * @return their primary keys, in their order; null if they have to go by statements
   */
  @Nullable List<List<Object>> copy(NewRecords records) throws SQLException;

  /** Forgets what is known of tables, which others may change from now on. */
  default void forget() {}
}
