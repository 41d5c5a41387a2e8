package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.source.SourceTable;

/**
 * How the records are filled that a link does not find, should somebody have them added: by columns
 * that the table itself has no field for, as the street beside a family's number has none among its
 * members.
 */
final class MissingRecords {
  private final Application application;
  private final SourceTable source;
  private final Pairing pairing;
  private final FillDraft drafts;

  MissingRecords(Application application, SourceTable source, Pairing pairing, FillDraft drafts) {
    this.application = application;
    this.source = source;
    this.pairing = pairing;
    this.drafts = drafts;
  }

  /**
   * The fills of a table, of which links say how a missing record is filled, where columns give all
   * that it needs.
   *
   * @param chosen columns and the fields that they feed
   * @param used further columns that feed something
   */
  List<Fill> filled(TableInfo table, List<Fill> fills, List<Pair> chosen, Set<String> used) {
    Set<String> taken = new HashSet<>(used);
    chosen.forEach(p -> taken.add(source.columns().get(p.column())));
    List<Fill> filled = new ArrayList<>();
    for (Fill fill : fills) {
      Pair pair =
          chosen.stream()
              .filter(p -> p.field().name().equals(fill.field()))
              .findFirst()
              .orElse(null);
      List<Pair> more = pair == null ? List.of() : more(table, fill, pair, taken);
      more.forEach(p -> taken.add(source.columns().get(p.column())));
      filled.add(more.isEmpty() ? fill : withMore(fill, linked(pair), more));
    }
    return filled;
  }

  private List<Pair> more(TableInfo table, Fill fill, Pair pair, Set<String> taken) {
    boolean anyMissing = pair.link() != null && pair.link().found() < pair.link().rows();
    if (!anyMissing
        || !(fill.origin() instanceof Origin.Linked linked)
        || pair.field().link().table().equalsIgnoreCase(table.name())) {
      return List.of();
    }
    TableInfo other = linked(pair);
    Set<String> given = new HashSet<>(linked.link().together());
    linked.link().create().forEach(f -> given.add(f.field()));
    List<FieldInfo> open =
        other.fillable().stream()
            .filter(f -> f.link() == null && !given.contains(f.name()))
            .toList();
    List<PlanDraft.Title> titles =
        PlanDraft.titles(source).stream().filter(t -> !taken.contains(t.words())).toList();
    if (open.isEmpty() || titles.isEmpty()) {
      return List.of();
    }
    List<Pair> pairs =
        new PairTable(pairing, other, open, titles)
            .best().stream().filter(p -> p.sure() != Certainty.GUESS && !p.isOutside()).toList();
    boolean isEnough =
        other.fields().stream()
            .filter(f -> f.required() && !given.contains(f.name()))
            .allMatch(f -> pairs.stream().anyMatch(p -> p.field() == f));
    return isEnough ? pairs : List.of();
  }

  private TableInfo linked(Pair pair) {
    return application.table(pair.field().link().table());
  }

  private Fill withMore(Fill fill, TableInfo other, List<Pair> more) {
    Origin.Linked linked = (Origin.Linked) fill.origin();
    List<Fill> create =
        Stream.concat(linked.link().create().stream(), more.stream().map(p -> drafts.of(other, p)))
            .toList();
    return fill.withOrigin(new Origin.Linked(linked.from(), linked.link().withCreate(create)));
  }
}
