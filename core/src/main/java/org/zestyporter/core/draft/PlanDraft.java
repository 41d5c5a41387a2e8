package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.IntStream;
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
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Words;

/**
 * Proposes how a file fills a table: which column feeds which field and by which steps, and which
 * fields identify a record. Each proposal says its evidence.
 */
public final class PlanDraft {
  private static final int TABLES_LOOKED_INTO = 4;

  /** Of very wide files only so many columns are compared with tables, and with fields. */
  private static final int COLUMNS_RANKED = 60;

  private static final int COLUMNS_OFFERED = 200;

  private static final int COLUMNS_DRAFTED = 500;

  /** Tables and columns whose values are compared to find the table, and how long at most. */
  private static final int TABLES_COMPARED = 60;

  private static final int COLUMNS_COMPARED = 30;
  private static final long LOOKING_NANOS = 800_000_000L;

  private static final Set<FieldType> ONLY_THEMSELVES =
      Set.of(FieldType.DATE, FieldType.DATETIME, FieldType.TIME, FieldType.BOOLEAN);

  private static final int MOST_OFFERS = 8;

  /** Below it nothing but that its values can be taken speaks for a column. */
  private static final int SLIGHT = 30;

  /** From here on values speak plainly. */
  private static final int PLAIN = 60;

  /** What a pair for which only values speak must be better by than any other. */
  private static final int MARGIN = 12;

  private final Application application;
  private final SourceTable source;
  private final Pairing pairing;
  private final FillDraft fills;
  private final KeyDraft keys;

  public PlanDraft(Application application, SourceTable source) {
    this(application, source, List.of());
  }

  /**
   * @param memory fills of earlier plans for the same table, the latest first
   */
  public PlanDraft(Application application, SourceTable source, List<Fill> memory) {
    this.application = application;
    this.source = source;
    this.pairing = new Pairing(application, source, memory);
    this.fills = new FillDraft(source);
    this.keys = new KeyDraft(source);
  }

  /**
   * A proposed destination.
   *
   * @param score how well the table fits; comparable between tables for the same file
   */
  public record Proposal(Destination destination, List<FillEvidence> evidence, int score) {
    /** Number of columns that go somewhere. */
    public long columnsUsed() {
      return evidence.stream().filter(e -> e.column() != null).count();
    }
  }

  /** Why a field is filled so. */
  public record FillEvidence(String field, @Nullable String column, String because) {}

  /** Proposals for the tables that fit best, best first. */
  public List<Proposal> rank() {
    long[] traits = traits();
    Map<TableInfo, Integer> scores = new IdentityHashMap<>();
    List<TableInfo> byName = new ArrayList<>(tables(application));
    byName.forEach(t -> scores.put(t, nameScore(t, traits)));
    byName.sort(Comparator.comparingInt(t -> -scores.get(t)));
    List<TableInfo> looked =
        new ArrayList<>(byName.subList(0, Math.min(TABLES_LOOKED_INTO, byName.size())));
    byValues(byName).stream()
        .limit(TABLES_LOOKED_INTO)
        .filter(t -> looked.stream().noneMatch(l -> l == t))
        .forEach(looked::add);
    return looked.stream()
        .map(this::draft)
        .sorted(Comparator.comparingInt((Proposal p) -> -p.score()))
        .limit(TABLES_LOOKED_INTO)
        .toList();
  }

  /**
   * The tables whose records are like the file's rows, the likest first, whatever the names say.
   */
  private List<TableInfo> byValues(List<TableInfo> tables) {
    long end = System.nanoTime() + LOOKING_NANOS;
    Map<TableInfo, Integer> scores = new IdentityHashMap<>();
    for (TableInfo table : tables) {
      if (scores.size() == TABLES_COMPARED || System.nanoTime() > end) {
        break;
      }
      scores.put(table, valueScore(table));
    }
    return tables.stream()
        .filter(t -> scores.getOrDefault(t, 0) > 0)
        .sorted(Comparator.comparingInt(t -> -scores.get(t)))
        .toList();
  }

  private int valueScore(TableInfo table) {
    int sum = 0;
    for (int c = 0; c < Math.min(COLUMNS_COMPARED, source.columns().size()); c++) {
      int best = 0;
      for (FieldInfo field : table.fields()) {
        best = Math.max(best, pairing.agreement(table, field, c).score());
      }
      sum += best;
    }
    return sum;
  }

  /** The tables that may be proposed; one that can't be filled keeps nobody from the others. */
  static List<TableInfo> tables(Application application) {
    List<String> own = application.ownTableNames();
    List<String> names = own.isEmpty() ? application.tableNames() : own;
    application.read(names);
    List<TableInfo> tables = new ArrayList<>();
    PorterException first = null;
    for (String name : names) {
      try {
        tables.add(application.table(name));
      } catch (PorterException e) {
        first = first == null ? e : first;
      }
    }
    if (tables.isEmpty() && first != null) {
      throw first;
    }
    return tables;
  }

  private int nameScore(TableInfo table, long[] traits) {
    List<FieldInfo> fields = table.fields();
    long[] ofFields = fields.stream().mapToLong(f -> Words.traits(f.name())).toArray();
    int sum = 0;
    for (int c = 0; c < traits.length; c++) {
      int best = 0;
      for (int f = 0; f < ofFields.length; f++) {
        if ((traits[c] & ofFields[f]) != 0 || fields.get(f).comment() != null) {
          best = Math.max(best, Likeness.of(table, fields.get(f), source.columns().get(c)).score());
        }
      }
      sum += best;
    }
    return sum;
  }

  /** What the titles that are compared with tables begin with and mean. */
  private long[] traits() {
    return source.columns().stream()
        .limit(COLUMNS_RANKED)
        // the last part of a dotted title may be all that counts
        .mapToLong(c -> Words.traits(c) | Words.traits(c.substring(c.lastIndexOf('.') + 1)))
        .toArray();
  }

  /**
   * Proposes the fills and the match key of one table. Columns and fields are assigned as a whole:
   * of all ways to pair them the one with the highest sum is taken.
   */
  public Proposal draft(TableInfo table) {
    List<Title> titles =
        IntStream.range(0, Math.min(COLUMNS_DRAFTED, source.columns().size()))
            .mapToObj(c -> new Title(c, source.columns().get(c)))
            .toList();
    List<FieldInfo> fields =
        table.fields().stream().filter(f -> !f.generated() && f.isFillable()).toList();
    List<Pair> chosen = assign(table, fields, titles);
    chosen.addAll(byElimination(table, fields, chosen));
    return proposal(table, chosen);
  }

  /**
   * A column as it is compared with fields.
   *
   * @param words its title, or the part of it that counts
   */
  record Title(int column, String words) {}

  /** The best way to pair columns and fields. */
  List<Pair> assign(TableInfo table, List<FieldInfo> fields, List<Title> titles) {
    Pair[][] pairs = new Pair[fields.size()][titles.size()];
    int[][] scores = new int[fields.size()][titles.size()];
    for (int f = 0; f < fields.size(); f++) {
      for (int t = 0; t < titles.size(); t++) {
        Title title = titles.get(t);
        Pair pair = pairing.of(table, fields.get(f), title.column(), title.words());
        if (pair != null) {
          pairs[f][t] = pair;
          // of equals the one that stands first in the file
          scores[f][t] = pair.score() * COLUMNS_DRAFTED - t;
        }
      }
    }
    disbelieve(table, fields, titles, pairs, scores);
    int[] assigned = Assignment.best(scores);
    List<Pair> chosen = new ArrayList<>();
    for (int f = 0; f < assigned.length; f++) {
      if (assigned[f] >= 0 && !isDoubtful(pairs, f, assigned[f], assigned)) {
        chosen.add(pairs[f][assigned[f]]);
      }
    }
    return chosen;
  }

  /**
   * A title counts less where its values are none of the field's, but are plainly those of another
   * one.
   */
  private void disbelieve(
      TableInfo table, List<FieldInfo> fields, List<Title> titles, Pair[][] pairs, int[][] scores) {
    for (int t = 0; t < titles.size(); t++) {
      int column = titles.get(t).column();
      int most = 0;
      for (FieldInfo field : fields) {
        most = Math.max(most, pairing.agreement(table, field, column).score());
      }
      for (int f = 0; f < pairs.length; f++) {
        Pair pair = pairs[f][t];
        FieldInfo field = fields.get(f);
        boolean isOdd =
            pair != null
                && !pair.isByValues()
                && pair.remembered() == null
                && pair.link() == null
                && isElsewhere(table, field, column, most);
        if (isOdd) {
          pairs[f][t] = pair.withScore(pair.score() / 2);
          scores[f][t] /= 2;
        }
      }
    }
  }

  private boolean isElsewhere(TableInfo table, FieldInfo field, int column, int most) {
    int own = pairing.agreement(table, field, column).score();
    return most >= PLAIN && own < most - 2 * MARGIN || pairing.isUnlike(table, field, column);
  }

  /** True if only values speak for a pair, and they speak nearly as well for another. */
  private static boolean isDoubtful(Pair[][] pairs, int f, int t, int[] assigned) {
    Pair pair = pairs[f][t];
    if (!pair.isByValues()) {
      return false;
    }
    for (int other = 0; other < pairs[f].length; other++) {
      if (other != t && isNear(pairs[f][other], pair) && !isTaken(assigned, pairs, other, f)) {
        return true;
      }
    }
    for (int other = 0; other < pairs.length; other++) {
      if (other != f && isNear(pairs[other][t], pair) && !isSure(pairs, assigned, other)) {
        return true;
      }
    }
    return false;
  }

  private static boolean isNear(@Nullable Pair other, Pair pair) {
    return other != null && other.score() > pair.score() - MARGIN;
  }

  /** True if a column feeds another field for which more speaks than values. */
  private static boolean isTaken(int[] assigned, Pair[][] pairs, int title, int but) {
    for (int f = 0; f < assigned.length; f++) {
      if (f != but && assigned[f] == title) {
        return !pairs[f][title].isByValues();
      }
    }
    return false;
  }

  private static boolean isSure(Pair[][] pairs, int[] assigned, int f) {
    return assigned[f] >= 0 && !pairs[f][assigned[f]].isByValues();
  }

  /**
   * A column that could feed a field.
   *
   * @param fill what a draft would make of it
   */
  public record Offer(String column, Fill fill, String because) {}

  /**
   * The columns that could feed a field, the likeliest first.
   *
   * @param used columns that feed something already: of equals they come last
   */
  public List<Offer> offers(TableInfo table, FieldInfo field, Set<String> used) {
    return IntStream.range(0, Math.min(COLUMNS_OFFERED, source.columns().size()))
        .mapToObj(c -> pairing.offer(table, field, c))
        .filter(Objects::nonNull)
        .sorted(
            Comparator.comparingInt((Pair p) -> p.score() < SLIGHT ? 0 : -p.score())
                .thenComparing(p -> used.contains(source.columns().get(p.column()))))
        .limit(MOST_OFFERS)
        .map(p -> new Offer(source.columns().get(p.column()), fills.of(p), p.because()))
        .toList();
  }

  /**
   * What a draft makes of a column that somebody has chosen for a field.
   *
   * @throws PorterException if the file has no such column
   */
  public Offer offer(TableInfo table, FieldInfo field, String column) {
    int index = source.columns().indexOf(column);
    if (index < 0) {
      throw ErrorCode.NO_SUCH_COLUMN.error("The file has no column “" + column + "”.");
    }
    Pair fitting = pairing.offer(table, field, index);
    Pair pair = fitting == null ? pairing.anyway(field, index) : fitting;
    return new Offer(column, fills.of(pair), pair.because());
  }

  /** Proposals for tables whose records belong to those of a proposed destination. */
  public List<Proposal> children(Proposal of) {
    return new ChildDraft(application, source, this, keys).of(of);
  }

  /**
   * Fields that nothing fills, and columns that feed nothing: where only one column is left that
   * fits a field, and only one field that it fits, they are paired. Of fields that need no value
   * only days, times, and yes or no, which hardly anything else is taken for, and only where the
   * title says nothing or the values agree.
   */
  private List<Pair> byElimination(TableInfo table, List<FieldInfo> fields, List<Pair> chosen) {
    List<Integer> free =
        IntStream.range(0, Math.min(COLUMNS_DRAFTED, source.columns().size()))
            .filter(c -> chosen.stream().noneMatch(p -> p.column() == c))
            .filter(c -> !pairing.isConstant(c))
            .boxed()
            .toList();
    List<FieldInfo> open =
        fields.stream()
            .filter(f -> f.link() == null && f.choices() == null && !f.unique() && !isWho(f))
            .filter(f -> chosen.stream().noneMatch(p -> p.field() == f))
            .toList();
    List<Pair> pairs = new ArrayList<>();
    for (FieldInfo field : open) {
      boolean isOfAKind = ONLY_THEMSELVES.contains(field.type());
      if (!field.required() && (!isOfAKind || field.hasDefault())) {
        continue;
      }
      List<Integer> fitting = free.stream().filter(c -> pairing.fits(c, field)).toList();
      long rivals =
          fitting.size() != 1
              ? 0
              : open.stream()
                  .filter(f -> f.required() || isOfAKind && ONLY_THEMSELVES.contains(f.type()))
                  .filter(f -> pairing.fits(fitting.get(0), f))
                  .count();
      // a title that says something, but not this, is not passed over for what need not be filled
      boolean isOpen =
          field.required()
              || fitting.size() == 1
                  && (isSilent(source.columns().get(fitting.get(0)))
                      || pairing.agreement(table, field, fitting.get(0)).score() >= Pairing.ENOUGH);
      if (rivals == 1 && isOpen) {
        pairs.add(
            new Pair(
                field,
                fitting.get(0),
                Pairing.ENOUGH,
                null,
                "the only column left whose values it can take; please check"));
      }
    }
    return pairs;
  }

  /** True for a title that was made up, since there was none, or that says as little. */
  private static boolean isSilent(String title) {
    return title.matches("Column [A-Z]+") || title.strip().length() <= 2;
  }

  private Proposal proposal(TableInfo table, List<Pair> chosen) {
    MatchKey key = keys.of(table, chosen, Set.of());
    return proposal(table, table.fields(), chosen, key, field -> ofItsOwn(field, chosen));
  }

  /** What fills a field that no column feeds. */
  record Own(Fill fill, String because, int score) {}

  /**
   * A destination with a fill for each field that something is known for.
   *
   * @param chosen columns and the fields that they feed
   * @param own gives what fills a field otherwise; null if nothing does
   */
  Proposal proposal(
      TableInfo table,
      List<FieldInfo> fields,
      List<Pair> chosen,
      @Nullable MatchKey key,
      Function<FieldInfo, @Nullable Own> own) {
    List<Fill> proposed = new ArrayList<>();
    List<FillEvidence> evidence = new ArrayList<>();
    int score = 0;
    for (FieldInfo field : fields) {
      Pair pair = chosen.stream().filter(p -> p.field() == field).findFirst().orElse(null);
      Own other = pair == null ? own.apply(field) : null;
      if (pair != null) {
        Fill fill = this.fills.of(pair);
        boolean inKey = key != null && key.fields().contains(field.name());
        proposed.add(inKey && !key.ignoring().isEmpty() ? fill.forNewOnly() : fill);
        evidence.add(
            new FillEvidence(field.name(), source.columns().get(pair.column()), pair.because()));
        score += pair.score();
      } else if (other != null) {
        proposed.add(other.fill());
        evidence.add(new FillEvidence(field.name(), null, other.because()));
        score += other.score();
      } else if (field.required()) {
        score -= 60;
      }
    }
    List<MatchKey> match = key == null ? List.of() : List.of(key);
    return new Proposal(
        new Destination(table.name(), proposed, match, Policies.DEFAULT), evidence, score);
  }

  private @Nullable Own ofItsOwn(FieldInfo field, List<Pair> chosen) {
    Origin.Joined joined = joined(field, chosen);
    if (joined != null) {
      return new Own(
          Fill.of(field.name(), joined, Step.of(StepKind.COLLAPSE_SPACES)),
          "the file has the parts of a name: " + joined.template(),
          Pairing.ENOUGH);
    }
    return isWho(field)
        ? new Own(
            Fill.of(field.name(), Origin.generated(Origin.Generator.WHO)).forNewOnly(),
            "its name asks who entered the record",
            0)
        : null;
  }

  /** First and last name for a field that holds a person's whole name; null if it does not fit. */
  private Origin.@Nullable Joined joined(FieldInfo field, List<Pair> chosen) {
    List<String> words = Words.split(field.name());
    boolean whole =
        field.type() == FieldType.TEXT
            && (words.equals(List.of("name")) || words.equals(List.of("full", "name")));
    String first = free(List.of("first", "given", "forename"), chosen);
    String last = free(List.of("last", "surname", "family"), chosen);
    return whole && first != null && last != null
        ? new Origin.Joined(Formula.quote(first) + " " + Formula.quote(last))
        : null;
  }

  /** A column that nothing uses yet and whose title holds one of some words. */
  private @Nullable String free(List<String> words, List<Pair> chosen) {
    for (int c = 0; c < Math.min(COLUMNS_DRAFTED, source.columns().size()); c++) {
      int column = c;
      if (chosen.stream().noneMatch(p -> p.column() == column)
          && Words.split(source.columns().get(c)).stream().anyMatch(words::contains)) {
        return source.columns().get(c);
      }
    }
    return null;
  }

  private static boolean isWho(FieldInfo field) {
    return field.type() == FieldType.TEXT
        && field.name().toLowerCase(Locale.ROOT).matches("(created|entered|added|recorded)_?by");
  }
}
