package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * Proposes how a file fills a table: which column feeds which field and by which steps, and which
 * fields identify a record. Each proposal says its evidence.
 */
public final class PlanDraft {
  /** Of very wide files only so many columns are drafted, and offered. */
  static final int COLUMNS_DRAFTED = 500;

  private static final int COLUMNS_OFFERED = 200;
  private static final int MOST_OFFERS = 8;

  /** Below it nothing but that its values can be taken speaks for a column. */
  private static final int SLIGHT = 30;

  private final KnownRecords known;
  private final Application application;
  private final SourceTable source;
  private final Pairing pairing;
  private final FillDraft fills;
  private final KeyDraft keys;
  private final PersonNames names;

  public PlanDraft(Application application, SourceTable source) {
    this(new KnownRecords(application), source, List.of());
  }

  public PlanDraft(Application application, SourceTable source, List<Fill> memory) {
    this(new KnownRecords(application), source, memory);
  }

  /**
   * @param known what earlier drafts have come to know of the application's records
   * @param memory fills of earlier plans for the same table, the latest first
   */
  public PlanDraft(KnownRecords known, SourceTable source, List<Fill> memory) {
    this(known, source, new Pairing(known, source, memory, Map.of()));
  }

  /**
   * @param pairing judges the columns; also by the single values of cells that hold several
   */
  PlanDraft(KnownRecords known, SourceTable source, Pairing pairing) {
    this.application = known.application();
    this.source = source;
    this.known = known;
    this.pairing = pairing;
    HeldValues held = new HeldValues(application);
    this.fills = new FillDraft(source, pairing, held);
    this.keys = new KeyDraft(source, pairing::values, held);
    this.names = new PersonNames(source, pairing);
  }

  /** Proposals for the tables that fit best, best first. */
  public List<ProposedTable> rank() {
    return rank(TableRank.LIKELY);
  }

  /**
   * Proposals for no more than so many tables, best first.
   *
   * @param most where only the best matters, fewer are drafted for
   */
  public List<ProposedTable> rank(int most) {
    List<ProposedTable> own = rank(TableRank.own(application), most);
    // tables of other schemas matter where none of the connection's own takes enough of the file
    if (!own.isEmpty() && own.get(0).takesEnoughOf(source.columns().size())) {
      return own;
    }
    return Stream.concat(own.stream(), others(most).stream())
        .sorted(Comparator.comparingInt((ProposedTable p) -> -p.score()))
        .limit(most)
        .toList();
  }

  /** Proposals for tables of other schemas; none if these can't be read. */
  private List<ProposedTable> others(int most) {
    try {
      return rank(TableRank.others(application), most);
    } catch (PorterException e) {
      return List.of();
    }
  }

  private List<ProposedTable> rank(List<String> names, int most) {
    if (names.isEmpty()) {
      return List.of();
    }
    return new TableRank(TableRank.tables(application, names), source, pairing)
        .likely(most).parallelStream().map(this::draft).toList().stream()
            .sorted(Comparator.comparingInt((ProposedTable p) -> -p.score()))
            .limit(most)
            .toList();
  }

  /**
   * Proposes the fills and the match key of one table. Columns and fields are assigned as a whole:
   * of all ways to pair them the one with the highest sum is taken.
   */
  public ProposedTable draft(TableInfo table) {
    return draft(table, Set.of());
  }

  /**
   * The same without some columns.
   *
   * @param without their names
   */
  ProposedTable draft(TableInfo table, Set<String> without) {
    List<Title> titles =
        titles(source).stream().filter(title -> !without.contains(title.words())).toList();
    List<FieldInfo> fields = table.fillable();
    List<Pair> chosen = names.without(table, new PairTable(pairing, table, fields, titles).best());
    Map<FieldInfo, Own> parted = names.parted(table, chosen);
    List<FieldInfo> open = fields.stream().filter(f -> !parted.containsKey(f)).toList();
    Set<String> used = new HashSet<>(without);
    parted.values().stream().map(Own::column).forEach(used::add);
    chosen.addAll(new Elimination(pairing, source, table).of(open, chosen, used));
    ProposedTable proposed =
        proposal(
            table,
            table.fields(),
            chosen,
            Set.of(),
            field -> parted.containsKey(field) ? parted.get(field) : ofItsOwn(field, chosen));
    Destination destination = proposed.destination();
    List<Fill> filled =
        new MissingRecords(application, source, pairing, fills)
            .filled(table, destination.fills(), chosen, used);
    return new ProposedTable(destination.withFills(filled), proposed.evidence(), proposed.score());
  }

  /**
   * A column as it is compared with fields.
   *
   * @param words its title, or the part of it that counts
   */
  record Title(int column, String words) {}

  /** The titles of all columns that are drafted for. */
  static List<Title> titles(SourceTable source) {
    return IntStream.range(0, Math.min(COLUMNS_DRAFTED, source.columns().size()))
        .mapToObj(c -> new Title(c, source.columns().get(c)))
        .toList();
  }

  /**
   * A column that could feed a field.
   *
   * @param fill what a draft would make of it
   */
  public record Offer(String column, Fill fill, String because, Certainty sure) {}

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
        .map(
            p ->
                new Offer(
                    source.columns().get(p.column()), fills.of(table, p), p.because(), p.sure()))
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
    return new Offer(column, fills.of(table, pair), pair.because(), pair.sure());
  }

  /**
   * How many rows of a column a field of a linked table knows.
   *
   * @param with further fields whose values stand beside it in the column's cells
   * @param rows rows that were looked at; of large tables only some are
   */
  public record Lookup(String field, List<String> with, long found, long rows) {}

  /**
   * The fields of a linked table in which a link could look a column up, the one that knows most of
   * its rows first.
   *
   * @param split how the cells of a column are parted; null if none are
   * @throws PorterException if the file has no such column
   */
  public List<Lookup> lookups(FieldInfo link, String column, Destination.@Nullable Split split) {
    int index = source.columns().indexOf(column);
    if (index < 0) {
      throw ErrorCode.NO_SUCH_COLUMN.error("The file has no column “" + column + "”.");
    }
    if (link.link() == null) {
      return List.of();
    }
    if (split == null || source.column(split.column()) != index) {
      return pairing.links().lookups(link, index);
    }
    CellList parts = CellList.at(split.at(), source.distinct(index));
    return new Pairing(known, source, List.of(), Map.of(index, parts)).links().lookups(link, index);
  }

  /** Proposals for tables whose records belong to those of a proposed destination. */
  public List<ProposedTable> children(ProposedTable of) {
    Set<String> used = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    of.destination().columnsRead().forEach(used::add);
    return children(of.destination(), used);
  }

  /**
   * The same for a destination of a plan.
   *
   * @param used names of columns that feed something already
   */
  public List<ProposedTable> children(Destination of, Set<String> used) {
    return new ChildDraft(known, source, this, pairing).of(of, used);
  }

  /**
   * Tables whose records those of a destination of a plan belong to, by links that nothing fills.
   *
   * @param used names of columns that feed something already
   */
  public List<ProposedTable> above(Destination of, Set<String> used) {
    return new LinkedDraft(application, this).of(of, used);
  }

  /** The same of a table that somebody has chosen; null if they don't belong to it so. */
  public @Nullable ProposedTable above(TableInfo table, Destination of, Set<String> used) {
    return new LinkedDraft(application, this).of(of, table, used);
  }

  /**
   * A further table that somebody has chosen. If it points at that of a destination, its records
   * belong to those, and it takes columns that are left; otherwise it takes whatever fits.
   *
   * @param used names of columns that feed something already
   */
  public ProposedTable further(TableInfo table, Destination beside, Set<String> used) {
    return new ChildDraft(known, source, this, pairing).chosen(beside, table, used);
  }

  /** What fills a field that no column feeds. */
  record Own(Fill fill, String because, int score) {
    /** The column that it takes; null if it takes none, or several. */
    @Nullable String column() {
      return fill.origin() instanceof Origin.Column of ? of.column() : null;
    }
  }

  /**
   * A destination with a fill for each field that something is known for.
   *
   * @param chosen columns and the fields that they feed
   * @param given fields that are filled otherwise than from a column of their own
   * @param own gives what fills a field otherwise; null if nothing does
   */
  ProposedTable proposal(
      TableInfo table,
      List<FieldInfo> fields,
      List<Pair> chosen,
      Set<String> given,
      Function<FieldInfo, @Nullable Own> own) {
    MatchKey key = keys.of(table, chosen, given);
    List<Fill> proposed = new ArrayList<>();
    List<ProposedTable.FillEvidence> evidence = new ArrayList<>();
    int score = 0;
    for (FieldInfo field : fields) {
      Pair pair = chosen.stream().filter(p -> p.field() == field).findFirst().orElse(null);
      Own other = pair == null ? own.apply(field) : null;
      if (pair != null) {
        Fill fill = this.fills.of(table, pair);
        boolean inKey = key != null && key.fields().contains(field.name());
        fill = fill.withGuess(pair.sure() == Certainty.GUESS);
        proposed.add(inKey && !key.ignoring().isEmpty() ? fill.forNewOnly() : fill);
        evidence.add(
            new ProposedTable.FillEvidence(
                field.name(), source.columns().get(pair.column()), pair.because(), pair.sure()));
        score += pair.score();
      } else if (other != null) {
        proposed.add(other.fill());
        evidence.add(
            new ProposedTable.FillEvidence(
                field.name(),
                other.column(),
                other.because(),
                other.fill().awaitsConfirmation() ? Certainty.GUESS : Certainty.LIKELY));
        score += other.score();
      } else if (field.required()) {
        score -= 60;
      }
    }
    List<MatchKey> match = key == null ? List.of() : List.of(key);
    return new ProposedTable(
        new Destination(table.name(), proposed, match, Policies.DRAFTED), evidence, score);
  }

  private @Nullable Own ofItsOwn(FieldInfo field, List<Pair> chosen) {
    Own name = names.joined(field, chosen);
    return name != null ? name : Stamps.of(field);
  }
}
