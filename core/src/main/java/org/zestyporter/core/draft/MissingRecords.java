package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
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
      filled.add(more.isEmpty() ? fill : withMore(fill, pair, more));
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

  private Fill withMore(Fill fill, Pair pair, List<Pair> more) {
    TableInfo other = linked(pair);
    Origin.Linked linked = (Origin.Linked) fill.origin();
    Pair sure = sure(other, linked.link(), pair, more);
    List<Fill> create =
        Stream.concat(
                linked.link().create().stream(),
                more.stream().filter(p -> p != sure).map(p -> drafts.of(other, p)))
            .toList();
    return sure == null
        ? fill.withOrigin(new Origin.Linked(linked.from(), linked.link().withCreate(create)))
        : by(other, fill, sure, create);
  }

  /**
   * What tells records apart for sure, where none is known by what they are called, which several
   * may be: a column without blanks for a field that is unique. Null if there is none.
   */
  private @Nullable Pair sure(TableInfo other, Origin.Link link, Pair pair, List<Pair> more) {
    boolean isKnown = pair.link().found() > 0 || !link.also().isEmpty();
    boolean isSure = link.together().stream().anyMatch(f -> other.field(f).unique());
    boolean isMade =
        link.with().isEmpty()
            || link.together().stream()
                .allMatch(f -> link.create().stream().anyMatch(c -> c.field().equals(f)));
    return isKnown || isSure || !isMade
        ? null
        : more.stream()
            .filter(p -> p.field().unique() && source.profiles().get(p.column()).blank() == 0)
            .findFirst()
            .orElse(null);
  }

  /** The link looked up by another column; the one that it had says what records are called. */
  private Fill by(TableInfo other, Fill fill, Pair sure, List<Fill> create) {
    Origin.Linked linked = (Origin.Linked) fill.origin();
    List<Fill> all = new ArrayList<>(create);
    if (linked.link().with().isEmpty()) {
      Fill called = Fill.of(linked.link().by(), linked.from()).withSteps(fill.steps());
      all.add(other.field(linked.link().by()).required() ? called.rejectBlank() : called);
    }
    Fill own = drafts.of(other, sure);
    Origin.Link link =
        new Origin.Link(sure.field().name(), null, List.of(), linked.link().whenMissing(), all);
    return fill.withOrigin(Origin.linked(own.origin().column(), link)).withSteps(own.steps());
  }
}
