package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Destination;

/**
 * Proposes tables whose records those of a destination belong to, for the columns that it leaves: a
 * list of deliveries often says who delivered, with all that is known of them.
 */
final class LinkedDraft {
  /** Columns that such a table must have a field for, unless it needs only one. */
  private static final int COLUMNS_LEAST = 2;

  private final Application application;
  private final PlanDraft drafts;

  LinkedDraft(Application application, PlanDraft drafts) {
    this.application = application;
    this.drafts = drafts;
  }

  /**
   * Tables that a destination links to by fields that nothing fills, and that take columns which
   * are left. Each has a key, since its records come with many rows.
   *
   * @param used names of columns that are not left
   */
  List<ProposedTable> of(Destination child, Set<String> used) {
    TableInfo table = application.table(child.table());
    List<ProposedTable> all = new ArrayList<>();
    for (FieldInfo link : table.fields()) {
      if (link.link() != null
          && !isFilled(child, link)
          && all.stream().noneMatch(p -> isOf(p, link))) {
        ProposedTable above = of(child, application.table(link.link().table()), used);
        if (above != null && takesEnough(above)) {
          all.add(above);
        }
      }
    }
    return all;
  }

  /**
   * A table that somebody has chosen, filled from columns that are left; null if the destination
   * links to it by no field that is open, or by several, or nothing tells its records apart.
   */
  @Nullable ProposedTable of(Destination child, TableInfo above, Set<String> used) {
    List<FieldInfo> links = application.table(child.table()).linksTo(above);
    if (links.size() != 1
        || above.primaryKey().isEmpty()
        || above.name().equals(child.table())
        || child.parent() != null
        || isFilled(child, links.get(0))) {
      return null;
    }
    ProposedTable drafted = drafts.draft(above, used);
    return drafted.destination().keys().isEmpty()
        ? null
        : new ProposedTable(
            drafted.destination().withDistinct(true), drafted.evidence(), drafted.score());
  }

  private static boolean isFilled(Destination destination, FieldInfo field) {
    return destination.fills().stream().anyMatch(f -> f.field().equalsIgnoreCase(field.name()));
  }

  private static boolean isOf(ProposedTable proposed, FieldInfo link) {
    return proposed.destination().table().equals(link.link().table());
  }

  private boolean takesEnough(ProposedTable above) {
    long sure =
        above.evidence().stream()
            .filter(e -> e.column() != null && e.sure() != Certainty.GUESS)
            .count();
    List<FieldInfo> required =
        application.table(above.destination().table()).fillable().stream()
            .filter(FieldInfo::required)
            .toList();
    boolean isWhole = required.stream().allMatch(f -> isFilled(above.destination(), f));
    return sure >= COLUMNS_LEAST || sure > 0 && !required.isEmpty() && isWhole;
  }
}
