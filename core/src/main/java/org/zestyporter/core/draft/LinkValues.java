package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.Words;

/** Tells which field of a linked table holds a column's values. */
final class LinkValues {
  static final List<Comparison.Ignore> IGNORED =
      List.of(Comparison.Ignore.CASE, Comparison.Ignore.SPACES);

  /** For codes that are written with other signs, or without any. */
  private static final List<Comparison.Ignore> SIGNS_TOO =
      List.of(Comparison.Ignore.CASE, Comparison.Ignore.SPACES, Comparison.Ignore.PUNCTUATION);

  static final Comparison COMPARISON = Comparison.ignoring(IGNORED);

  /** For names that are written with accents on one side only. */
  private static final List<Comparison.Ignore> ACCENTS_TOO =
      List.of(Comparison.Ignore.CASE, Comparison.Ignore.SPACES, Comparison.Ignore.ACCENTS);

  /** How codes are compared, whatever signs they are written with. */
  static final Comparison OF_CODES = Comparison.ignoring(SIGNS_TOO);

  /** How alike words of titles and fields are that mean the same. */
  private static final double ALIKE = 0.8;

  /** So many of a column's values are asked for. */
  private static final int ASKED_FOR = 300;

  private final KnownRecords known;
  private final Application application;
  private final SourceTable source;
  private final HeldValues held;
  private final Map<Integer, CellList> lists;
  private final Map<Asked, Overlap> asked = new ConcurrentHashMap<>();
  private final Map<Integer, Compared> prepared = new ConcurrentHashMap<>();
  private final Map<Integer, WholeNames> inWords = new ConcurrentHashMap<>();
  private final Map<Loosely, Compared> inLoose = new ConcurrentHashMap<>();
  private final Map<LooselyHeld, Set<String>> heldLoosely = new ConcurrentHashMap<>();

  /** Names by their words, as they are written and without what stands before them. */
  private record WholeNames(Compared written, Compared bare) {}

  private record Asked(String table, String field, int column) {}

  private record Loosely(Loose how, int column) {}

  private record LooselyHeld(Loose how, String table, String field) {}

  /** How values are compared of which the usual comparison finds too few. */
  private enum Loose {
    ACCENTS(ACCENTS_TOO, Texts::withoutAccents),
    CODES(SIGNS_TOO, LinkValues::code);

    private final List<Comparison.Ignore> ignoring;

    /** Of a value that is prepared as usual. */
    private final UnaryOperator<String> prepare;

    Loose(List<Comparison.Ignore> ignoring, UnaryOperator<String> prepare) {
      this.ignoring = ignoring;
      this.prepare = prepare;
    }

    boolean isFor(FieldInfo field) {
      return field.type() == FieldType.TEXT && (this == ACCENTS || field.unique());
    }
  }

  /**
   * @param lists columns whose cells hold several values, each of which counts
   */
  LinkValues(KnownRecords known, SourceTable source, Map<Integer, CellList> lists) {
    this.known = known;
    this.application = known.application();
    this.source = source;
    this.held = new HeldValues(application);
    this.lists = lists;
  }

  /** The values of a column. */
  DistinctValues values(int column) {
    CellList list = lists.get(column);
    return list == null ? source.distinct(column) : list.parts();
  }

  /** The field of the linked table that holds most of a column's rows; null if none holds any. */
  Overlap best(FieldInfo link, int column) {
    return all(link, column).stream()
        .filter(o -> o.found() > 0)
        .reduce((a, b) -> b.weight() > a.weight() ? b : a)
        .orElse(null);
  }

  /** How many of a column's rows are keys of the linked table; null if none is. */
  @Nullable Overlap byKey(FieldInfo link, int column) {
    TableInfo table = application.table(link.link().table());
    FieldInfo key = table.find(link.link().keyField());
    if (key == null || !HeldValues.canAsk(key)) {
      return null;
    }
    Overlap overlap = asked(table, key, column);
    return overlap.found() == 0 ? null : overlap;
  }

  /** How many of a column's rows each field of the linked table knows that could name a record. */
  List<Overlap> all(FieldInfo link, int column) {
    TableInfo table = application.table(link.link().table());
    KnownRecords.Names names = known.names(table.name());
    List<FieldInfo> fields =
        table.fields().stream().filter(f -> names.values().containsKey(f.name())).toList();
    boolean anyCall = fields.stream().anyMatch(LinkValues::isCall);
    List<Overlap> all = new ArrayList<>();
    for (FieldInfo field : fields) {
      boolean ask = !names.whole() && field.unique() && field.type() == FieldType.TEXT;
      Overlap overlap =
          ask
              ? asked(table, field, column)
              : held(table, field, names.values().get(field.name()), column);
      all.add(anyCall && !isCall(field) ? overlap.ofNoCall() : overlap);
    }
    for (KnownRecords.People people : names.people()) {
      all.add(names.whole() ? people(people, column) : askedPeople(table, people.fields(), column));
    }
    if (!names.maybePeople().isEmpty() && holdsWholeNames(column)) {
      names.maybePeople().forEach(people -> all.add(people(people, column)));
    }
    return all;
  }

  /** How many rows are found, more loosely compared where that finds more. */
  private Overlap held(TableInfo table, FieldInfo field, Set<String> values, int column) {
    Overlap best = overlap(field.name(), values, prepared(column));
    for (Loose how : Loose.values()) {
      if (best.found() == best.rows() || !how.isFor(field)) {
        continue;
      }
      Set<String> there =
          heldLoosely.computeIfAbsent(
              new LooselyHeld(how, table.name(), field.name()),
              key -> values.stream().map(how.prepare).collect(Collectors.toSet()));
      Compared own =
          inLoose.computeIfAbsent(
              new Loosely(how, column), key -> prepared(column).more(how.prepare));
      long found = own.in(there);
      if (found > best.found()) {
        best = new Overlap(field.name(), List.of(), how.ignoring, found, own.rows(), true, false);
      }
    }
    return best;
  }

  /** A value without its signs, if it has figures. */
  private static String code(String text) {
    boolean hasFigure = text.chars().anyMatch(Character::isDigit);
    return (hasFigure ? OF_CODES : COMPARISON).prepare(text);
  }

  /** The same of a large table, told by some of the column's values. */
  private Overlap askedPeople(TableInfo table, List<FieldInfo> fields, int column) {
    return asked.computeIfAbsent(
        new Asked(table.name(), fields.size() + " fields", column),
        key -> {
          List<String> some = HeldValues.some(values(column), ASKED_FOR);
          List<String> asked =
              Stream.concat(some.stream(), some.stream().map(Salutations::without))
                  .distinct()
                  .toList();
          Set<String> there =
              NameParts.areWhole(some) ? held.people(table, fields, asked) : Set.of();
          return people(fields, there, words(column, ASKED_FOR));
        });
  }

  /** How many of a column's rows hold the whole name of somebody in a table. */
  private Overlap people(KnownRecords.People people, int column) {
    return people(
        people.fields(),
        people.words(),
        inWords.computeIfAbsent(column, c -> words(c, Integer.MAX_VALUE)));
  }

  private static Overlap people(List<FieldInfo> fields, Set<String> people, WholeNames names) {
    long found = names.written.in(people);
    long bare = names.bare.in(people);
    return new Overlap(
        fields.get(0).name(),
        fields.stream().skip(1).map(FieldInfo::name).toList(),
        IGNORED,
        Math.max(found, bare),
        names.written.rows(),
        true,
        bare > found);
  }

  private WholeNames words(int column, int most) {
    return new WholeNames(
        Compared.of(values(column), most, COMPARISON::words),
        Compared.of(values(column), most, name -> COMPARISON.words(Salutations.without(name))));
  }

  /** The same of a large table, told by some of the column's values, which are asked for. */
  private Overlap asked(TableInfo table, FieldInfo field, int column) {
    return asked.computeIfAbsent(
        new Asked(table.name(), field.name(), column),
        key -> {
          List<String> some = HeldValues.some(values(column), ASKED_FOR);
          Set<String> there =
              held.of(table, field, some, source.locale(column).decimal(), COMPARISON::prepare);
          return overlap(field.name(), there, Compared.of(values(column), ASKED_FOR));
        });
  }

  /**
   * The field by which records of a linked table are called.
   *
   * @param most records that it may have
   * @return null if it has more of them, or no such field
   */
  @Nullable Overlap label(FieldInfo link, int column, int most) {
    KnownRecords.Names names = known.names(link.link().table());
    Map<String, Set<String>> values = names.values();
    TableInfo table = application.table(link.link().table());
    if (!names.people().isEmpty() && holdsWholeNames(column)) {
      KnownRecords.People people = names.people().get(0);
      return people.words().size() > most ? null : people(people, column);
    }
    FieldInfo label =
        table.fields().stream()
            .filter(f -> values.containsKey(f.name()))
            .min(Comparator.comparingInt(LinkValues::rank))
            .orElse(null);
    int held = label == null ? 0 : values.get(label.name()).size();
    return label == null || held > most ? null : new Overlap(label.name(), 0, held, true);
  }

  /**
   * The field that a column's title says beside what the link is called: Reader SSN.
   *
   * @param least how well the rest of the title has to agree with the link's name, 0 to 100
   * @return null if it says none by which records are told apart
   */
  @Nullable Overlap named(FieldInfo link, int column, int least) {
    List<String> title = Words.of(source.columns().get(column));
    Map<String, Set<String>> values = known.names(link.link().table()).values();
    return application.table(link.link().table()).fields().stream()
        .filter(f -> f.unique() && values.containsKey(f.name()))
        .filter(f -> says(title, Words.of(f.name()), Words.of(link.name()), least))
        .map(f -> new Overlap(f.name(), 0, values.get(f.name()).size(), true))
        .findFirst()
        .orElse(null);
  }

  /** True if all words of a field are among those of a title, and its others say another's name. */
  private static boolean says(
      List<String> title, List<String> field, List<String> other, int least) {
    List<String> others = new ArrayList<>(title);
    for (String word : field) {
      String said =
          others.stream().filter(w -> Words.alike(w, word) >= ALIKE).findFirst().orElse(null);
      if (said == null) {
        return false;
      }
      others.remove(said);
    }
    return !field.isEmpty() && Words.agreement(others, other) >= least;
  }

  private boolean holdsWholeNames(int column) {
    return NameParts.areWhole(HeldValues.some(values(column), ASKED_FOR));
  }

  /** What is unique names a record first, then what is called its name. */
  private static int rank(FieldInfo field) {
    return field.unique() ? 0 : Words.says(field.name(), "name") ? 1 : 2;
  }

  private static boolean isCall(FieldInfo field) {
    return rank(field) < 2;
  }

  static Overlap choices(List<String> choices, DistinctValues column) {
    Set<String> prepared = new HashSet<>();
    choices.forEach(c -> prepared.add(COMPARISON.prepare(c)));
    return overlap("", prepared, Compared.of(column, Integer.MAX_VALUE));
  }

  private Compared prepared(int column) {
    return prepared.computeIfAbsent(column, c -> Compared.of(values(c), Integer.MAX_VALUE));
  }

  private static Overlap overlap(String field, Set<String> values, Compared column) {
    return new Overlap(field, column.in(values), column.rows(), true);
  }
}
