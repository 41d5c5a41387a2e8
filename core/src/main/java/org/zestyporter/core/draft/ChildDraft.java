package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Templates;
import org.zestyporter.core.source.SourceTable;

/**
 * Proposes destinations for the columns that a destination leaves: tables that point at its table.
 *
 * <p>Columns whose titles begin alike are taken together, for they make a record of their own:
 * {@code Postal street} and {@code Postal town} beside {@code Seasonal street} and {@code Seasonal
 * town}. What their titles begin with may be the value of a choice, such as the kind of address.
 */
final class ChildDraft {
  /** Columns that a child must have a field for, unless one is all that it needs. */
  private static final int COLUMNS_LEAST = 2;

  private final Application application;
  private final SourceTable source;
  private final PlanDraft drafts;
  private final KeyDraft keys;

  ChildDraft(Application application, SourceTable source, PlanDraft drafts, KeyDraft keys) {
    this.application = application;
    this.source = source;
    this.drafts = drafts;
    this.keys = keys;
  }

  List<ProposedTable> of(ProposedTable parent) {
    TableInfo above = application.table(parent.destination().table());
    Set<String> used = new HashSet<>();
    parent.evidence().forEach(e -> used.add(e.column()));
    for (Fill fill : parent.destination().fills()) {
      if (fill.origin() instanceof Origin.Joined joined && joined.template() != null) {
        used.addAll(Templates.columns(joined.template()));
      }
    }
    List<Integer> left =
        IntStream.range(0, source.columns().size())
            .filter(c -> !used.contains(source.columns().get(c)))
            .boxed()
            .toList();
    List<ProposedTable> children = new ArrayList<>();
    if (above.primaryKey().size() != 1 || left.isEmpty()) {
      return children;
    }
    Set<Integer> free = new HashSet<>(left);
    for (TableInfo table : TableRank.tables(application, TableRank.own(application))) {
      FieldInfo link = link(table, above);
      if (link == null || table.name().equals(above.name())) {
        continue;
      }
      for (Map.Entry<String, List<PlanDraft.Title>> group : groups(left).entrySet()) {
        List<PlanDraft.Title> titles =
            group.getValue().stream().filter(t -> free.contains(t.column())).toList();
        ProposedTable child = child(parent.destination(), table, link, group.getKey(), titles);
        if (child != null) {
          children.add(child);
          child.evidence().forEach(e -> free.remove(source.columns().indexOf(e.column())));
        }
      }
    }
    return children;
  }

  /** The only field of a table that points at another; null if there is not just one. */
  private static @Nullable FieldInfo link(TableInfo table, TableInfo above) {
    List<FieldInfo> links = table.linksTo(above);
    boolean toItsKey =
        links.size() == 1 && above.primaryKey().contains(links.get(0).link().keyField());
    return toItsKey ? links.get(0) : null;
  }

  /** Columns by the word that several of their titles begin with; the others by an empty one. */
  private Map<String, List<PlanDraft.Title>> groups(List<Integer> columns) {
    Map<String, Long> first =
        columns.stream()
            .map(this::firstWord)
            .collect(Collectors.groupingBy(w -> w, Collectors.counting()));
    Map<String, List<PlanDraft.Title>> groups = new LinkedHashMap<>();
    for (int column : columns) {
      String title = source.columns().get(column);
      String word = firstWord(column);
      boolean shared = !word.isEmpty() && first.get(word) >= COLUMNS_LEAST;
      groups
          .computeIfAbsent(shared ? word : "", w -> new ArrayList<>())
          .add(
              new PlanDraft.Title(
                  column, shared ? title.strip().substring(word.length()).strip() : title));
    }
    return groups;
  }

  /** The first of several words of a column's title; empty if it has only one. */
  private String firstWord(int column) {
    String title = source.columns().get(column).strip();
    int end = title.indexOf(' ');
    return end < 0 ? "" : title.substring(0, end);
  }

  private @Nullable ProposedTable child(
      Destination parent,
      TableInfo table,
      FieldInfo link,
      String word,
      List<PlanDraft.Title> titles) {
    List<FieldInfo> open =
        table.fields().stream()
            .filter(f -> !f.generated() && f.isFillable() && !f.equals(link))
            .toList();
    List<Pair> chosen = drafts.assign(table, open, titles);
    long required = open.stream().filter(FieldInfo::required).count();
    boolean allRequired =
        required > 0
            && open.stream()
                .filter(FieldInfo::required)
                .allMatch(f -> chosen.stream().anyMatch(p -> p.field() == f));
    if (chosen.isEmpty() || chosen.size() < COLUMNS_LEAST && !allRequired) {
      return null;
    }
    Set<String> given = new HashSet<>(Set.of(link.name()));
    open.stream().filter(f -> choice(f, word) != null).map(FieldInfo::name).forEach(given::add);
    ProposedTable made =
        drafts.proposal(
            table, open, chosen, keys.of(table, chosen, given), field -> ofTheWord(field, word));
    Destination destination =
        made.destination()
            .withName(word.isEmpty() ? null : word.toLowerCase(Locale.ROOT) + " " + table.name())
            .withParent(new Destination.Parent(parent.label(), null))
            .withWhere(anyFilled(chosen));
    return new ProposedTable(destination, made.evidence(), made.score());
  }

  private static PlanDraft.@Nullable Own ofTheWord(FieldInfo field, String word) {
    String choice = choice(field, word);
    return choice == null
        ? null
        : new PlanDraft.Own(
            Fill.of(field.name(), Origin.fixed(choice)), "the titles begin with “" + word + "”", 0);
  }

  /** The choice of a field that a word means; null if there is none. */
  private static @Nullable String choice(FieldInfo field, String word) {
    return field.choices() == null
        ? null
        : field.choices().stream().filter(word::equalsIgnoreCase).findFirst().orElse(null);
  }

  /** A row makes a child only if something is said of it. */
  private String anyFilled(List<Pair> chosen) {
    List<String> filled =
        chosen.stream()
            .map(p -> Formula.quote(source.columns().get(p.column())) + "<>\"\"")
            .toList();
    return filled.size() == 1 ? filled.get(0) : "OR(" + String.join("; ", filled) + ")";
  }
}
