package org.zestyporter.server.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.draft.ProposedTable;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.preview.StageTable;
import org.zestyporter.core.source.Rows;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.server.web.Asked;

/** Offers what a plan could do besides: other columns for its fields, and other tables. */
@Component
class PlanOffers {
  private static final int SAMPLES = 4;

  private final FillCache cache;
  private final Drafting drafting;

  PlanOffers(FillCache cache, Drafting drafting) {
    this.cache = cache;
    this.drafting = drafting;
  }

  /** Columns that could feed a field, each with how many of its values the field could take. */
  List<PlanViews.Offer> offers(
      PlanService.Opened opened, String name, @Nullable String wanted, String who) {
    TableInfo table = opened.table();
    FieldInfo field = table.field(name);
    if (!field.isFillable()) {
      return List.of();
    }
    List<PlanViews.Offer> offers = new ArrayList<>();
    Set<String> used =
        opened.destination().fills().stream()
            .map(f -> f.origin().column())
            .filter(Objects::nonNull)
            .collect(Collectors.toSet());
    Rows rows = cache.rows(opened, who);
    PlanDraft draft = drafting.draft(opened.database(), opened.rows());
    for (PlanDraft.Offer offer :
        wanted == null
            ? draft.offers(table, field, used)
            : List.of(draft.offer(table, field, wanted))) {
      CompiledFill fill = cache.fill(opened, offer.fill(), who).fill();
      StageTable stages = StageTable.of(fill, rows, 0, 1);
      int column = opened.rows().columns().indexOf(offer.column());
      offers.add(
          new PlanViews.Offer(
              offer.column(),
              offer.fill(),
              offer.because(),
              opened.rows().profiles().get(column).samples().stream()
                  .map(ColumnProfile.ValueCount::text)
                  .limit(SAMPLES)
                  .toList(),
              rows.rowCount() - stages.troubledRows(),
              rows.rowCount()));
    }
    return offers;
  }

  /** How many rows of a column each field of a linked table knows. */
  List<PlanDraft.Lookup> lookups(PlanService.Opened opened, String field, String column) {
    TableInfo table = opened.table();
    return drafting
        .draft(opened.database(), opened.rows())
        .lookups(table.field(field), column, opened.destination().split());
  }

  /** Tables that could be filled besides, above or below any of those that are. */
  List<PlanViews.FurtherTable> further(PlanService.Opened opened) {
    PlanDraft draft = drafting.draft(opened.database(), opened.rows());
    List<PlanViews.FurtherTable> all = new ArrayList<>();
    Set<String> filled =
        opened.plan().destinations().stream().map(Destination::table).collect(Collectors.toSet());
    for (Destination each : opened.plan().destinations()) {
      draft.above(each, used(opened)).stream()
          .filter(t -> !filled.contains(t.destination().table()))
          .forEach(t -> all.add(named(opened, t, each)));
      draft.children(each, used(opened)).forEach(t -> all.add(named(opened, t, null)));
    }
    return all;
  }

  /** A table that could be filled besides, above or below the first of those for which it fits. */
  PlanViews.FurtherTable further(PlanService.Opened opened, String name) {
    TableInfo table = opened.database().table(Asked.text("The name of a table", name, 200));
    PlanDraft draft = drafting.draft(opened.database(), opened.rows());
    List<Destination> all = opened.plan().destinations();
    List<ProposedTable> ways =
        all.stream().map(d -> draft.further(table, d, used(opened))).toList();
    for (ProposedTable way : ways) {
      if (way.destination().parent() != null) {
        return named(opened, way, null);
      }
    }
    for (Destination each : all) {
      ProposedTable above = draft.above(table, each, used(opened));
      if (above != null) {
        return named(opened, above, each);
      }
    }
    return named(opened, ways.get(0), null);
  }

  private static Set<String> used(PlanService.Opened opened) {
    Set<String> used = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    opened.plan().destinations().stream().flatMap(Destination::columnsRead).forEach(used::add);
    return used;
  }

  /** A proposal under a name that none of the plan's destinations has. */
  private static PlanViews.FurtherTable named(
      PlanService.Opened opened, ProposedTable proposed, @Nullable Destination above) {
    Destination named = Drafting.named(proposed.destination(), opened.plan().destinations());
    String below = above == null ? null : above.label();
    return new PlanViews.FurtherTable(named, proposed.evidence(), below);
  }
}
