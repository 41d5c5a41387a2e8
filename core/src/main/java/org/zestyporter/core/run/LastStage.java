package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;

/** Where rehearsal and run differ: what is done with the records to write. */
interface LastStage {

  /** True if anything is written at all. */
  boolean writes();

  /**
   * Writes records and gives their primary keys, null where there is none yet.
   *
   * @param inOrder true if a record may only be written once those before it are
   */
  List<List<Object>> write(TableInfo table, List<WriteSession.Change> changes, boolean inOrder);

  /** The records as the table now holds them; null if nothing was written. */
  @Nullable Records readBack(TableInfo table, Collection<List<Object>> keys);

  /** Writes nothing. */
  LastStage REHEARSAL =
      new LastStage() {
        @Override
        public boolean writes() {
          return false;
        }

        @Override
        public List<List<Object>> write(
            TableInfo table, List<WriteSession.Change> changes, boolean inOrder) {
          return new ArrayList<>(Collections.nCopies(changes.size(), null));
        }

        @Override
        public @Nullable Records readBack(TableInfo table, Collection<List<Object>> keys) {
          return null;
        }
      };

  /** Writes into a transaction. */
  static LastStage writing(WriteSession session) {
    return new LastStage() {
      @Override
      public boolean writes() {
        return true;
      }

      @Override
      public List<List<Object>> write(
          TableInfo table, List<WriteSession.Change> changes, boolean inOrder) {
        return session.write(table, changes, inOrder);
      }

      @Override
      public Records readBack(TableInfo table, Collection<List<Object>> keys) {
        return session.fetch(table, keys);
      }
    };
  }
}
