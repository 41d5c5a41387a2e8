package org.zestyporter.core.run;

import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.NewRecords;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;

/**
 * Where rehearsal and run differ: what is done with the records to write.
 *
 * @param session writes them; null if nothing is written at all
 * @param stays true if what is written is to stay; false if the database only tries it
 */
record LastStage(@Nullable WriteSession session, boolean stays) {

  /** Writes nothing. */
  static final LastStage REHEARSAL = new LastStage(null, false);

  /** Writes into a transaction. */
  static LastStage writing(WriteSession session) {
    return new LastStage(session, true);
  }

  /** Writes into a transaction that is taken back, so that the database has its say. */
  static LastStage trying(WriteSession session) {
    return new LastStage(session, false);
  }

  /** True if anything is written at all. */
  boolean writes() {
    return session != null;
  }

  /** The session; only where something is written. */
  WriteSession open() {
    return java.util.Objects.requireNonNull(session);
  }

  /**
   * Writes records and gives their primary keys, null where there is none.
   *
   * @param inOrder true if a record may only be written once those before it are
   */
  List<List<Object>> write(TableInfo table, List<WriteSession.Change> changes, boolean inOrder) {
    return open().write(table, changes, inOrder);
  }

  /** Inserts records by columns and gives their primary keys. */
  List<List<Object>> insert(NewRecords records) {
    return open().insert(records);
  }

  /** The records as the table now holds them. */
  Records readBack(TableInfo table, Collection<List<Object>> keys) {
    return open().fetch(table, keys);
  }
}
