package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Set;
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
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.Measures;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.UnitWords;
import org.zestyporter.core.value.ValueType;
import org.zestyporter.core.value.Words;

/**
 * Proposes how a file fills a table: which column feeds which field and by which steps, and which
 * fields identify a record. Each proposal says its evidence.
 */
public final class PlanDraft {
  private static final int ENOUGH = 50;
  private static final int VALUES_TRIED = 200;

  /** More than any likeness of names and values. */
  private static final int REMEMBERED = 300;

  private static final int TABLES_LOOKED_INTO = 4;

  /** Of very wide files only so many columns are compared with tables, and with fields. */
  private static final int COLUMNS_RANKED = 200;

  private static final int COLUMNS_DRAFTED = 500;

  private final Application application;
  private final SourceTable source;
  private final LinkValues linkValues;
  private final List<Fill> memory;

  public PlanDraft(Application application, SourceTable source) {
    this(application, source, List.of());
  }

  /**
   * @param memory fills of earlier plans for the same table, the latest first
   */
  public PlanDraft(Application application, SourceTable source, List<Fill> memory) {
    this.application = application;
    this.source = source;
    this.linkValues = new LinkValues(application, source);
    this.memory = memory;
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

  /**
   * A column that could feed a field.
   *
   * @param remembered the fill that did so in an earlier plan; null if none did
   */
  private record Pair(
      FieldInfo field,
      int column,
      int score,
      LinkValues.@Nullable Overlap link,
      String because,
      @Nullable Fill remembered) {
    Pair(
        FieldInfo field, int column, int score, LinkValues.@Nullable Overlap link, String because) {
      this(field, column, score, link, because, null);
    }
  }

  /** Proposals for the tables that fit best, best first. */
  public List<Proposal> rank() {
    List<String> own = application.ownTableNames();
    List<TableInfo> tables =
        (own.isEmpty() ? application.tableNames() : own).stream().map(application::table).toList();
    return tables.stream()
        .sorted(Comparator.comparingInt((TableInfo t) -> -nameScore(t)))
        .limit(TABLES_LOOKED_INTO)
        .map(this::draft)
        .sorted(Comparator.comparingInt((Proposal p) -> -p.score()))
        .toList();
  }

  private int nameScore(TableInfo table) {
    int sum = 0;
    for (String column :
        source.columns().subList(0, Math.min(COLUMNS_RANKED, source.columns().size()))) {
      sum +=
          table.fields().stream()
              .mapToInt(f -> Likeness.of(table, f, column).score())
              .max()
              .orElse(0);
    }
    return sum;
  }

  /**
   * Proposes the fills and the match key of one table. Columns and fields are assigned as a whole:
   * of all ways to pair them the one with the highest sum is taken.
   */
  public Proposal draft(TableInfo table) {
    List<FieldInfo> fields =
        table.fields().stream().filter(f -> !f.generated() && f.isFillable()).toList();
    int columns = Math.min(COLUMNS_DRAFTED, source.columns().size());
    Pair[][] pairs = new Pair[fields.size()][columns];
    int[][] scores = new int[fields.size()][columns];
    for (int f = 0; f < fields.size(); f++) {
      for (int c = 0; c < columns; c++) {
        Pair pair = remembered(fields.get(f), c);
        pair = pair == null ? pair(table, fields.get(f), c) : pair;
        if (pair != null && pair.score() >= ENOUGH) {
          pairs[f][c] = pair;
          // of equals the one that stands first in the file
          scores[f][c] = pair.score() * COLUMNS_DRAFTED - c;
        }
      }
    }
    int[] assigned = Assignment.best(scores);
    List<Pair> chosen = new ArrayList<>();
    for (int f = 0; f < assigned.length; f++) {
      if (assigned[f] >= 0) {
        chosen.add(pairs[f][assigned[f]]);
      }
    }
    chosen.addAll(byElimination(fields, chosen));
    return proposal(table, chosen);
  }

  /**
   * Required fields that nothing fills, and columns that feed nothing: where only one column is
   * left that fits a field, and only one field that it fits, they are paired.
   */
  private List<Pair> byElimination(List<FieldInfo> fields, List<Pair> chosen) {
    List<FieldInfo> open =
        fields.stream()
            .filter(f -> f.required() && f.link() == null && f.choices() == null && !f.unique())
            .filter(f -> !isWho(f) && chosen.stream().noneMatch(p -> p.field() == f))
            .toList();
    List<Integer> free =
        IntStream.range(0, Math.min(COLUMNS_DRAFTED, source.columns().size()))
            .filter(c -> chosen.stream().noneMatch(p -> p.column() == c))
            .filter(c -> !isConstant(c))
            .boxed()
            .toList();
    List<Pair> pairs = new ArrayList<>();
    for (FieldInfo field : open) {
      List<Integer> fitting = free.stream().filter(c -> fits(c, field)).toList();
      if (fitting.size() == 1 && open.stream().filter(f -> fits(fitting.get(0), f)).count() == 1) {
        pairs.add(
            new Pair(
                field,
                fitting.get(0),
                ENOUGH,
                null,
                "the only column left whose values it can take; please check"));
      }
    }
    return pairs;
  }

  private boolean isConstant(int column) {
    DistinctValues values = source.distinct(column);
    return values.tallies().size() < 2 && values.beyond() == 0;
  }

  private boolean fits(int column, FieldInfo field) {
    ColumnProfile profile = source.profiles().get(column);
    boolean number = field.type().isNumber() && profile.type().isNumber();
    return number || (typeFit(profile, field) > 0);
  }

  /** The pair that an earlier plan made of a column of this name; null if none did. */
  private @Nullable Pair remembered(FieldInfo field, int column) {
    String name = source.columns().get(column);
    for (Fill fill : memory) {
      if (fill.field().equalsIgnoreCase(field.name())
          && name.equalsIgnoreCase(fill.origin().column())) {
        return new Pair(
            field, column, REMEMBERED, null, "an earlier plan fills it from this column", fill);
      }
    }
    return null;
  }

  private Proposal proposal(TableInfo table, List<Pair> chosen) {
    List<Fill> fills = new ArrayList<>();
    List<FillEvidence> evidence = new ArrayList<>();
    int score = 0;
    MatchKey key = key(table, chosen);
    for (FieldInfo field : table.fields()) {
      Pair pair = chosen.stream().filter(p -> p.field() == field).findFirst().orElse(null);
      if (pair != null) {
        Fill fill = fill(pair);
        boolean inKey = key != null && key.fields().contains(field.name());
        fills.add(inKey && !key.ignoring().isEmpty() ? fill.forNewOnly() : fill);
        evidence.add(
            new FillEvidence(field.name(), source.columns().get(pair.column()), pair.because()));
        score += pair.score();
      } else if (joined(field, chosen) != null) {
        Origin.Joined origin = joined(field, chosen);
        fills.add(Fill.of(field.name(), origin, Step.of(StepKind.COLLAPSE_SPACES)));
        evidence.add(
            new FillEvidence(
                field.name(), null, "the file has the parts of a name: " + origin.template()));
        score += ENOUGH;
      } else if (isWho(field)) {
        fills.add(Fill.of(field.name(), Origin.generated(Origin.Generator.WHO)).forNewOnly());
        evidence.add(new FillEvidence(field.name(), null, "its name asks who entered the record"));
      } else if (field.required()) {
        score -= 60;
      }
    }
    List<MatchKey> keys = key == null ? List.of() : List.of(key);
    return new Proposal(
        new Destination(table.name(), fills, keys, Policies.DEFAULT), evidence, score);
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

  private Pair pair(TableInfo table, FieldInfo field, int column) {
    ColumnProfile profile = source.profiles().get(column);
    Likeness name = Likeness.of(table, field, profile.name());
    if (field.link() != null) {
      return linkPair(field, column, name);
    }
    int score = name.score();
    String because = name.because();
    if (field.choices() != null) {
      LinkValues.Overlap overlap = LinkValues.choices(field.choices(), source.distinct(column));
      if (overlap.share() >= 0.6) {
        score += 40;
        because += ", and " + share(overlap) + " are among its choices";
      } else if (profile.type() != ValueType.EMPTY) {
        return null;
      }
    }
    if (field.unique()
        && field.type() == FieldType.TEXT
        && Likeness.isTheTable(table, profile.name())) {
      score = Math.max(score, 75);
      because = "it is named like the table, and " + field.name() + " identifies its records";
    }
    int fit = typeFit(profile, field);
    if (fit < 0 && field.type().isNumber() && measuresShare(column) >= 0.5) {
      fit = 0;
    }
    if (fit < 0 && score < 90) {
      return null;
    }
    return new Pair(field, column, score + fit, null, because);
  }

  /** Share of a column's first distinct values that are numbers, or numbers with their unit. */
  private double measuresShare(int column) {
    String decimal = source.locale(column).decimal();
    List<Cell> cells =
        source.distinct(column).tallies().keySet().stream().limit(VALUES_TRIED).toList();
    long fitting =
        cells.stream()
            .filter(c -> !(Measures.read(c.text(), "m", decimal) instanceof Problem))
            .count();
    return cells.isEmpty() ? 0 : (double) fitting / cells.size();
  }

  private Pair linkPair(FieldInfo field, int column, Likeness name) {
    LinkValues.Overlap overlap = linkValues.best(field, column);
    // a few known words are enough where the names agree, for the others may be spelt otherwise
    if (overlap == null || overlap.share() < (name.score() >= 70 ? 0.1 : 0.4)) {
      return null;
    }
    int score = name.score() / 2 + (int) Math.round(60 * overlap.share());
    return new Pair(
        field,
        column,
        score,
        overlap,
        share(overlap) + " are found as " + field.link().table() + "." + overlap.field());
  }

  private static String share(LinkValues.Overlap overlap) {
    return String.format(Locale.ROOT, "%,d of %,d values", overlap.found(), overlap.rows());
  }

  private static int typeFit(ColumnProfile column, FieldInfo field) {
    ValueType type = column.type();
    if (type == ValueType.EMPTY) {
      return 0;
    }
    return switch (field.type()) {
      case TEXT -> type == ValueType.TEXT ? 5 : type == ValueType.DATE ? -5 : 0;
      case WHOLE -> type == ValueType.WHOLE ? 8 : -30;
      case DECIMAL -> type.isNumber() ? 8 : -30;
      case DATE, DATETIME -> type == ValueType.DATE || type == ValueType.DATETIME ? 8 : -30;
      case TIME -> type == ValueType.TIME ? 8 : -30;
      case BOOLEAN -> type == ValueType.BOOLEAN ? 8 : -30;
      case OTHER -> 0;
    };
  }

  private Fill fill(Pair pair) {
    if (pair.remembered() != null) {
      return pair.remembered().withField(pair.field().name());
    }
    FieldInfo field = pair.field();
    String column = source.columns().get(pair.column());
    List<Step> steps = new ArrayList<>();
    Origin origin = Origin.column(column);
    if (pair.link() != null) {
      origin =
          Origin.linked(
              column,
              new Origin.Link(pair.link().field(), LinkValues.IGNORED, Origin.WhenMissing.ASK));
      steps.add(Step.of(StepKind.TRIM));
    } else {
      addSteps(steps, field, pair.column(), column);
    }
    Fill fill = Fill.of(field.name(), origin, steps.toArray(Step[]::new));
    if (field.choices() != null) {
      fill = fill.withWhenBad(Fill.WhenBad.ASK);
    }
    return field.required() ? fill.rejectBlank() : fill;
  }

  private void addSteps(List<Step> steps, FieldInfo field, int column, String title) {
    switch (field.type()) {
      case WHOLE, DECIMAL -> {
        steps.add(Step.of(StepKind.READ_NUMBER));
        if (UnitWords.differ(title, field.name())) {
          steps.add(
              Step.of(
                  StepKind.CONVERT_UNIT,
                  "from",
                  UnitWords.in(title).symbol(),
                  "to",
                  UnitWords.in(field.name()).symbol()));
          int places =
              field.type() == FieldType.WHOLE ? 0 : field.scale() == null ? 2 : field.scale();
          steps.add(Step.of(StepKind.ROUND, "places", String.valueOf(places)));
        }
      }
      case DATE, DATETIME -> steps.add(Step.of(StepKind.READ_DATE));
      case BOOLEAN -> steps.add(Step.of(StepKind.READ_BOOLEAN));
      case TEXT -> addTextSteps(steps, field, column);
      default -> {
        // taken as it comes
      }
    }
  }

  private void addTextSteps(List<Step> steps, FieldInfo field, int column) {
    steps.add(Step.of(StepKind.TRIM));
    Set<Cell> cells = source.distinct(column).tallies().keySet();
    if (cells.stream().anyMatch(c -> c.text().strip().matches("(?s).*\\s{2,}.*"))) {
      steps.add(Step.of(StepKind.COLLAPSE_SPACES));
    }
    if (field.choices() != null) {
      addCase(steps, field.choices());
    } else if (field.unique()) {
      long upper =
          cells.stream().filter(c -> c.text().equals(c.text().toUpperCase(Locale.ROOT))).count();
      if (upper < cells.size() && upper * 10 >= cells.size() * 7L) {
        steps.add(Step.of(StepKind.CASE, "to", "upper"));
      }
    }
  }

  private static void addCase(List<Step> steps, List<String> choices) {
    if (choices.stream().allMatch(c -> c.equals(c.toLowerCase(Locale.ROOT)))) {
      steps.add(Step.of(StepKind.CASE, "to", "lower"));
    } else if (choices.stream().allMatch(c -> c.equals(c.toUpperCase(Locale.ROOT)))) {
      steps.add(Step.of(StepKind.CASE, "to", "upper"));
    }
  }

  private MatchKey key(TableInfo table, List<Pair> chosen) {
    List<List<String>> candidates = new ArrayList<>(table.uniques());
    candidates.add(table.primaryKey());
    for (List<String> fields : candidates) {
      List<Pair> parts = chosen.stream().filter(p -> fields.contains(p.field().name())).toList();
      if (!fields.isEmpty() && parts.size() == fields.size()) {
        boolean text = parts.stream().allMatch(p -> p.field().type() == FieldType.TEXT);
        boolean code =
            text
                && parts.stream()
                    .allMatch(p -> looksLikeCodes(source.distinct(p.column()).tallies().keySet()));
        List<Comparison.Ignore> ignoring = new ArrayList<>();
        if (text) {
          ignoring.add(Comparison.Ignore.CASE);
          ignoring.add(Comparison.Ignore.SPACES);
        }
        if (code) {
          ignoring.add(Comparison.Ignore.PUNCTUATION);
        }
        return new MatchKey(fields, ignoring);
      }
    }
    return null;
  }

  private static boolean looksLikeCodes(Set<Cell> cells) {
    long codes =
        cells.stream()
            .filter(c -> c.text().length() <= 24 && c.text().indexOf('@') < 0)
            .filter(c -> c.text().chars().anyMatch(Character::isDigit))
            .count();
    return codes * 10 >= cells.size() * 8L;
  }
}
