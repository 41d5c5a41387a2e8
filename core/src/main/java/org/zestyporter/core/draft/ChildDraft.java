package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Words;

/**
 * Proposes destinations for the columns that a destination leaves: tables that point at its table.
 *
 * <p>Columns whose titles begin alike are taken together, for they make a record of their own:
 * {@code Postal street} and {@code Postal town} beside {@code Seasonal street} and {@code Seasonal
 * town}. What their titles begin with may be the value of a choice, such as the kind of address.
 */
final class ChildDraft {
  /** Letters of a choice that may stand with another ending in titles. */
  private static final int STEM = 4;

  /** Columns that a child must have a field for, unless one is all that it needs. */
  private static final int COLUMNS_LEAST = 2;

  private final KnownRecords known;
  private final Application application;
  private final SourceTable source;
  private final PlanDraft drafts;
  private final Pairing pairing;

  ChildDraft(KnownRecords known, SourceTable source, PlanDraft drafts, Pairing pairing) {
    this.known = known;
    this.application = known.application();
    this.source = source;
    this.drafts = drafts;
    this.pairing = pairing;
  }

  /**
   * Tables that columns which are left may go to.
   *
   * @param used names of columns that are not left
   */
  List<ProposedTable> of(Destination parent, Set<String> used) {
    TableInfo above = application.table(parent.table());
    List<Integer> left = left(used);
    List<ProposedTable> children = new ArrayList<>();
    if (above.primaryKey().size() != 1 || left.isEmpty()) {
      return children;
    }
    Set<Integer> free = new HashSet<>(left);
    Map<Integer, CellList> lists = lists(left);
    List<Parted> ways = ways(lists);
    for (TableInfo table : TableRank.tables(application, TableRank.own(application))) {
      FieldInfo link = link(table, above);
      if (link == null || table.name().equals(above.name())) {
        continue;
      }
      for (int column : lists.keySet()) {
        if (!free.contains(column)) {
          continue;
        }
        List<Integer> single = free.stream().filter(c -> !lists.containsKey(c)).sorted().toList();
        ProposedTable child = null;
        for (Parted way : ways) {
          ProposedTable other =
              way.lists().containsKey(column)
                  ? ofList(parent, table, link, column, single, way)
                  : null;
          child = other != null && (child == null || other.score() > child.score()) ? other : child;
        }
        if (child != null) {
          children.add(child);
          child.evidence().forEach(e -> free.remove(source.columns().indexOf(e.column())));
        }
      }
      for (Map.Entry<String, List<PlanDraft.Title>> group : groups(left).entrySet()) {
        List<PlanDraft.Title> titles =
            group.getValue().stream().filter(t -> free.contains(t.column())).toList();
        ProposedTable child = child(parent, table, link, group.getKey(), titles);
        if (child != null) {
          children.add(child);
          child.evidence().forEach(e -> free.remove(source.columns().indexOf(e.column())));
        }
      }
    }
    return children;
  }

  private List<Integer> left(Set<String> used) {
    return IntStream.range(0, Math.min(PlanDraft.COLUMNS_DRAFTED, source.columns().size()))
        .filter(c -> !used.contains(source.columns().get(c)))
        .boxed()
        .toList();
  }

  /**
   * A table that somebody has chosen, filled from columns that are left as far as they fit. If it
   * points at the parent's by one field, its records belong to those.
   */
  ProposedTable chosen(Destination parent, TableInfo table, Set<String> used) {
    TableInfo above = application.table(parent.table());
    FieldInfo link = above.primaryKey().size() == 1 ? link(table, above) : null;
    if (link == null || table.name().equals(above.name())) {
      return drafts.draft(table);
    }
    List<PlanDraft.Title> titles =
        left(used).stream().map(c -> new PlanDraft.Title(c, source.columns().get(c))).toList();
    List<FieldInfo> open = open(table, link);
    return under(parent, table, link, "", new PairTable(pairing, table, open, titles).best());
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
    List<FieldInfo> open = open(table, link);
    List<Pair> chosen = new PairTable(pairing, table, open, titles).best();
    if (!chosen.isEmpty()) {
      Set<String> others = new HashSet<>(source.columns());
      titles.forEach(t -> others.remove(source.columns().get(t.column())));
      chosen.addAll(new Elimination(pairing, source, table).of(open, chosen, others));
    }
    long required = open.stream().filter(FieldInfo::required).count();
    boolean allRequired =
        required > 0
            && open.stream()
                .filter(FieldInfo::required)
                .allMatch(f -> chosen.stream().anyMatch(p -> p.field() == f));
    if (chosen.isEmpty() || chosen.size() < COLUMNS_LEAST && !allRequired) {
      return null;
    }
    return under(parent, table, link, word, chosen);
  }

  /** A destination whose records belong to those of another. */
  private ProposedTable under(
      Destination parent, TableInfo table, FieldInfo link, String word, List<Pair> chosen) {
    List<FieldInfo> open = open(table, link);
    Map<FieldInfo, PlanDraft.Own> said = new HashMap<>();
    for (FieldInfo field : open) {
      PlanDraft.Own own = ofTheWord(field, word);
      boolean isOpen = field.required() && chosen.stream().noneMatch(p -> p.field() == field);
      own = own == null && isOpen ? ofATitle(field, chosen) : own;
      if (own != null) {
        said.put(field, own);
      }
    }
    Set<String> given = new HashSet<>(Set.of(link.name()));
    said.keySet().forEach(field -> given.add(field.name()));
    ProposedTable made = drafts.proposal(table, open, chosen, given, said::get);
    Destination destination =
        made.destination()
            .withName(word.isEmpty() ? null : word.toLowerCase(Locale.ROOT) + " " + table.name())
            .withParent(new Destination.Parent(parent.label(), null))
            .withWhere(anyFilled(chosen));
    // records that nothing tells apart can only be added
    if (destination.keys().isEmpty() && !table.primaryKey().isEmpty()) {
      destination = destination.withKeys(List.of(key(table, link, destination)));
    }
    return new ProposedTable(destination, made.evidence(), made.score());
  }

  /**
   * What tells the records of one parent apart where nothing has to be unique: their days, or what
   * each needs, or all that is filled. Without a key the same file once more would add them again.
   */
  private static MatchKey key(TableInfo table, FieldInfo link, Destination destination) {
    List<FieldInfo> filled =
        destination.fills().stream().map(fill -> table.field(fill.field())).toList();
    List<FieldInfo> days =
        filled.stream()
            .filter(f -> f.type() == FieldType.DATE || f.type() == FieldType.DATETIME)
            .toList();
    List<FieldInfo> needed = filled.stream().filter(FieldInfo::required).toList();
    List<FieldInfo> by = !days.isEmpty() ? days : !needed.isEmpty() ? needed : filled;
    return new MatchKey(
        Stream.concat(Stream.of(link), by.stream()).map(FieldInfo::name).toList(), List.of());
  }

  private static List<FieldInfo> open(TableInfo table, FieldInfo link) {
    return table.fillable().stream().filter(f -> !f.equals(link)).toList();
  }

  /**
   * A way in which the cells of columns are parted.
   *
   * @param pairing judges the single values
   */
  private record Parted(Map<Integer, CellList> lists, Pairing pairing) {}

  /** The ways in which lists may be parted, the likeliest first. */
  private List<Parted> ways(Map<Integer, CellList> lists) {
    List<Parted> ways = new ArrayList<>();
    ways.add(new Parted(lists, new Pairing(known, source, List.of(), lists)));
    Map<Integer, CellList> others = new LinkedHashMap<>();
    lists.forEach(
        (column, list) -> {
          CellList other = list.withoutDoubtful(source.distinct(column));
          if (other != null) {
            others.put(column, other);
          }
        });
    if (!others.isEmpty()) {
      ways.add(new Parted(others, new Pairing(known, source, List.of(), others)));
    }
    return ways;
  }

  /** Those of some columns whose cells hold several values. */
  private Map<Integer, CellList> lists(List<Integer> columns) {
    Map<Integer, CellList> lists = new LinkedHashMap<>();
    for (int column : columns) {
      CellList list = CellList.of(source.distinct(column));
      if (list != null) {
        lists.put(column, list);
      }
    }
    return lists;
  }

  /**
   * One record for each of the values in a column's cells, where a table has a field for them
   * beside its link, and needs no other, or what it needs stands in columns that are left.
   *
   * @param single columns that are left and hold one value a cell
   * @param way how the column's cells are parted
   */
  private @Nullable ProposedTable ofList(
      Destination parent,
      TableInfo table,
      FieldInfo link,
      int column,
      List<Integer> single,
      Parted way) {
    CellList list = way.lists().get(column);
    List<FieldInfo> open = open(table, link);
    List<PlanDraft.Title> titles =
        Stream.concat(Stream.of(column), single.stream())
            .map(c -> new PlanDraft.Title(c, source.columns().get(c)))
            .toList();
    List<Pair> chosen =
        new PairTable(way.pairing(), table, open, titles)
            .best().stream().filter(p -> p.sure() != Certainty.GUESS).toList();
    Pair ofList = chosen.stream().filter(p -> p.column() == column).findFirst().orElse(null);
    if (ofList == null
        || open.stream()
            .anyMatch(f -> f.required() && chosen.stream().noneMatch(p -> p.field() == f))
        || !list.sure() && !isBetter(ofList, pairing)) {
      return null;
    }
    ProposedTable made =
        new PlanDraft(known, source, way.pairing())
            .proposal(table, open, chosen, Set.of(link.name()), field -> null);
    Destination destination =
        made.destination()
            .withParent(new Destination.Parent(parent.label(), null))
            .withSplit(new Destination.Split(source.columns().get(column), list.at()));
    String parted = ", parted at " + list.signs();
    List<ProposedTable.FillEvidence> evidence =
        made.evidence().stream()
            .map(
                e ->
                    e.column().equals(destination.split().column())
                        ? new ProposedTable.FillEvidence(
                            e.field(), e.column(), e.because() + parted, e.sure())
                        : e)
            .toList();
    return new ProposedTable(destination, evidence, made.score());
  }

  /** True if more of a column's values are found when its cells are parted. */
  private static boolean isBetter(Pair parts, Pairing whole) {
    if (parts.link() == null) {
      return false;
    }
    PlanDraft.Lookup before =
        whole.links().lookups(parts.field(), parts.column()).stream()
            .filter(l -> l.field().equals(parts.link().field()))
            .findFirst()
            .orElse(null);
    double share =
        before == null || before.rows() == 0 ? 0 : (double) before.found() / before.rows();
    return parts.link().share() > share;
  }

  private static PlanDraft.@Nullable Own ofTheWord(FieldInfo field, String word) {
    String choice = choice(field, word);
    return choice == null
        ? null
        : new PlanDraft.Own(
            Fill.of(field.name(), Origin.fixed(choice)), "the titles begin with “" + word + "”", 0);
  }

  /** The only choice of a field that the titles of its table's columns say: Home address. */
  private PlanDraft.@Nullable Own ofATitle(FieldInfo field, List<Pair> chosen) {
    Map<String, String> said = new LinkedHashMap<>();
    for (Pair pair : chosen) {
      String title = source.columns().get(pair.column());
      for (String choice : field.choices() == null ? List.<String>of() : field.choices()) {
        if (Words.split(title).stream().anyMatch(word -> isSaid(choice, word))) {
          said.putIfAbsent(choice, title);
        }
      }
    }
    if (said.size() != 1) {
      return null;
    }
    Map.Entry<String, String> only = said.entrySet().iterator().next();
    return new PlanDraft.Own(
        Fill.of(field.name(), Origin.fixed(only.getKey())).withGuess(true),
        "the title “" + only.getValue() + "” says so",
        0);
  }

  /** True if a word is a choice, also with another ending. */
  private static boolean isSaid(String choice, String word) {
    List<String> words = Words.split(choice);
    return words.size() == 1
        && (word.equals(words.get(0))
            || words.get(0).length() >= STEM && Likeness.hasEnding(word, words.get(0)));
  }

  /** The choice of a field that a word means; null if there is none. */
  private static @Nullable String choice(FieldInfo field, String word) {
    return field.choices() == null
        ? null
        : field.choices().stream().filter(word::equalsIgnoreCase).findFirst().orElse(null);
  }

  /** A row makes a child only if something is said of it. */
  private @Nullable String anyFilled(List<Pair> chosen) {
    if (chosen.isEmpty()) {
      return null;
    }
    List<String> filled =
        chosen.stream()
            .map(p -> Formula.quote(source.columns().get(p.column())) + "<>\"\"")
            .toList();
    return filled.size() == 1 ? filled.get(0) : "OR(" + String.join("; ", filled) + ")";
  }
}
