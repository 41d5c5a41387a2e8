package org.zestyporter.core.undo;

import java.util.Comparator;
import java.util.List;
import java.util.function.Consumer;
import org.zestyporter.core.run.KeptLedger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerLayout;

/** What a run did, as its ledger tells it. */
public interface Past extends KeptLedger {

  /** The plan's name and the file's, for the books. */
  String plan();

  String source();

  /** The parts of the ledger, in the order in which the run wrote them. */
  @Override
  List<LedgerLayout> layouts();

  /**
   * Parts in the order in which a run writes them: linked records are there before the rows that
   * need them. An undo goes the other way.
   */
  static List<LedgerLayout> asWritten(List<LedgerLayout> parts, boolean undo) {
    Comparator<LedgerLayout> order =
        Comparator.comparing((LedgerLayout l) -> !l.isMade())
            .thenComparingInt(LedgerLayout::destination);
    return parts.stream().sorted(undo ? order.reversed() : order).toList();
  }

  /** Hands over the chunks of a part, the one that was written last first. */
  default void fromTheLast(LedgerLayout layout, Consumer<LedgerChunk> chunk) {
    for (int number = chunks(layout) - 1; number >= 0; number--) {
      chunk.accept(chunk(layout, number));
    }
  }

  /** True if it was an undo itself, which goes through each chunk from its end. */
  boolean isUndo();
}
