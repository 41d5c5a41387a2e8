package org.zestyporter.core.run;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.source.SourceTable;

/** Which rows of a source go to destinations, kept while somebody edits a plan. */
final class KeptSelections {
  private static final int MOST = 50;

  private final SourceTable source;

  /** The ones that were asked for last at the end. */
  private final Map<RowsOf, KeptSelection> kept = new LinkedHashMap<>(16, 0.75f, true);

  /**
   * What decides which rows go to a destination.
   *
   * @param books the phrasebooks that its condition translates by
   * @param parent those of the destination whose records they belong to
   */
  record RowsOf(
      @Nullable String where,
      List<Phrasebook> books,
      Destination.@Nullable Split split,
      @Nullable RowsOf parent) {}

  KeptSelections(SourceTable source) {
    this.source = source;
  }

  synchronized KeptSelection of(OpenedPlan opened, Destination destination) {
    Destination above = opened.plan().parentOf(destination);
    KeptSelection parent = above == null ? null : of(opened, above);
    RowsOf of =
        new RowsOf(
            destination.where(),
            opened.booksOfCondition(destination),
            destination.split(),
            parent == null ? null : parent.of());
    KeptSelection known = kept.get(of);
    if (known != null) {
      return known;
    }
    KeptSelection selection =
        new KeptSelection(
            source,
            of,
            opened.selection(destination),
            opened.columnsThatSelect(destination),
            parent);
    kept.put(of, selection);
    if (kept.size() > MOST) {
      kept.remove(kept.keySet().iterator().next());
    }
    return selection;
  }
}
