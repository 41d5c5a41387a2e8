package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanCheck;

/** Opens the destinations of a plan, in writing order. */
final class Targets {
  private final OpenedPlan opened;
  private final Plan plan;
  private final MadeRecords made;

  /** By destination, fills that are compiled already; null if they are not. */
  private final @Nullable List<List<CompiledFill>> known;

  private Targets(OpenedPlan opened, @Nullable List<List<CompiledFill>> known) {
    this.opened = opened;
    this.known = known;
    this.plan = opened.plan();
    this.made = new MadeRecords(opened);
  }

  static List<Target> open(OpenedPlan opened) {
    return new Targets(opened, null).all();
  }

  /**
   * Opens the destinations of a plan whose fills are compiled already.
   *
   * @param known the fills of each
   */
  static List<Target> open(OpenedPlan opened, List<List<CompiledFill>> known) {
    return new Targets(opened, known).all();
  }

  private List<Target> all() {
    List<Target> targets = new ArrayList<>();
    for (int i = 0; i < plan.destinations().size(); i++) {
      targets.add(target(i, targets));
    }
    for (Target target : targets) {
      for (int f : target.awaiting) {
        CompiledFill fill = target.fills.get(f);
        for (Target makes : targets) {
          if (made.by(makes.destination, fill.awaited())) {
            makes.index(fill.awaited());
            makes.isPointedAt(fill.pointsAt());
          }
        }
      }
    }
    return targets;
  }

  private Target target(int index, List<Target> before) {
    Destination destination = plan.destinations().get(index);
    TableInfo table = opened.table(destination);
    List<CompiledFill> fills =
        known == null ? opened.fills(destination, made::isMade) : known.get(index);
    return new Target(
        index,
        destination,
        table,
        fills,
        parent(destination, table, before),
        opened.selection(destination),
        opened.rules(destination),
        opened.among(destination));
  }

  private Target.@Nullable Parent parent(
      Destination destination, TableInfo table, List<Target> before) {
    if (destination.parent() == null) {
      return null;
    }
    Target target =
        before.stream()
            .filter(t -> t.label().equals(destination.parent().destination()))
            .findFirst()
            .orElseThrow();
    FieldInfo field = PlanCheck.parentField(destination, table, target.table);
    FieldInfo key = target.table.field(field.link().keyField());
    return new Target.Parent(target, field, table.fields().indexOf(field), key);
  }
}
