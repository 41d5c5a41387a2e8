package org.zestyporter.server.plan;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.BatchRow;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.FillCompiler;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.fill.Rules;
import org.zestyporter.core.formula.FormulaException;
import org.zestyporter.core.match.MatchClass;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.plan.PlanCheck;
import org.zestyporter.core.preview.MatchSurvey;
import org.zestyporter.core.preview.StageTable;
import org.zestyporter.core.preview.Trials;
import org.zestyporter.core.preview.Troubles;
import org.zestyporter.core.run.Classing;
import org.zestyporter.core.run.KnownWords;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.source.FileChange;
import org.zestyporter.core.source.Rows;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetPart;
import org.zestyporter.core.value.Alike;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.Values;

/** Shows the effect of a plan on real rows, before anything is rehearsed. */
@Component
class PlanViewer {
  private static final int MAX_ROWS = 200;
  private static final int MAX_COLUMNS = 120;
  private static final int MAX_VALUES = 100_000;
  private static final int MAX_SUGGESTED = 200;

  private final FillCache cache;
  private final Drafting drafting;

  PlanViewer(FillCache cache, Drafting drafting) {
    this.cache = cache;
    this.drafting = drafting;
  }

  PlanViews.PlanView view(PlanRecord record, PlanService.Opened opened) {
    SourceTable rows = opened.rows();
    TableInfo table = opened.table();
    int drafted = drafting.drafted(record, opened.plan());
    DraftEvidence evidence = DraftEvidence.read(record.evidenceJson());
    List<PlanViews.FieldTrouble> troubles = troubles(opened);
    List<PlanCheck.Matter> matters = opened.now("").matters(opened.destination());
    return new PlanViews.PlanView(
        record.id(),
        record.revision(),
        record.savedBy(),
        record.savedAt(),
        opened.plan(),
        new PlanViews.SourceView(
            opened.source().id(),
            opened.source().name(),
            rows.rowCount(),
            rows.blankRows(),
            rows.raw().lastLine(),
            rows.raw().width(),
            rows.reading(),
            rows.sheets(),
            rows.entries(),
            rows.columnsInFile(),
            rows.profiles(),
            rows.evidence(),
            rows.warnings(),
            rows.proposals(),
            changes(opened.plan().reading(), rows)),
        opened.at(),
        drafted,
        tables(opened, matters, troubles),
        table,
        opened.database().count(table),
        matters,
        opened.at() == drafted ? evidence.first() : evidence.of(opened.destination().label()),
        troubles,
        opened.shared().checksOf(table.name()),
        rows.lapsed(),
        List.of());
  }

  /** All tables that a plan fills; what is known of the one that is shown is given. */
  private List<PlanViews.TableView> tables(
      PlanService.Opened opened,
      List<PlanCheck.Matter> matters,
      List<PlanViews.FieldTrouble> troubles) {
    List<Destination> all = opened.plan().destinations();
    List<PlanViews.TableView> tables = new ArrayList<>();
    for (int i = 0; i < all.size(); i++) {
      if (i == opened.at()) {
        tables.add(table(opened, matters, troubles));
        continue;
      }
      PlanService.Opened other = opened.showing(i);
      try {
        tables.add(table(other, other.now("").matters(other.destination()), troubles(other)));
      } catch (PorterException e) {
        // a table that is gone keeps nobody from looking at the others
        PlanCheck.Matter gone = new PlanCheck.Matter(e.code(), null, e.getMessage());
        Destination into = all.get(i);
        tables.add(
            new PlanViews.TableView(
                into.label(), into.table(), null, null, 0, List.of(gone), 0, 0));
      }
    }
    return tables;
  }

  private PlanViews.TableView table(
      PlanService.Opened opened,
      List<PlanCheck.Matter> matters,
      List<PlanViews.FieldTrouble> troubles) {
    Destination destination = opened.destination();
    List<String> labels = opened.plan().destinations().stream().map(Destination::label).toList();
    int parent =
        destination.parent() == null ? -1 : labels.indexOf(destination.parent().destination());
    return new PlanViews.TableView(
        destination.label(),
        destination.table(),
        parent < 0 ? null : parent,
        parent < 0 ? null : opened.now("").parentField(destination),
        cache.rows(opened, "").rowCount(),
        matters,
        troubles.stream().mapToLong(PlanViews.FieldTrouble::rows).sum(),
        troubles.stream().mapToLong(PlanViews.FieldTrouble::questions).sum());
  }

  private static List<FileChange> changes(Reading reading, SourceTable rows) {
    boolean known = reading != null && reading.columns() != null;
    return known ? FileChange.compare(reading.columns(), rows) : List.of();
  }

  /** The first records of another reading of the plan's file. */
  PlanViews.ReadingPreview preview(SourceTable rows, PlanViews.ReadingTrial trial) {
    List<PlanViews.PreviewRow> records = new ArrayList<>();
    long from = Math.max(0, trial.from());
    long last = Math.min(rows.rowCount(), from + Math.min(MAX_ROWS, trial.count()));
    for (long row = from; row < last; row++) {
      Batch batch = rows.batch(rows.batchOf(row));
      int at = (int) (row - batch.firstRow());
      List<Cell> cells =
          Arrays.stream(batch.columns()).limit(MAX_COLUMNS).map(c -> c.cell(at)).toList();
      records.add(new PlanViews.PreviewRow(batch.lines()[at], cells));
    }
    return new PlanViews.ReadingPreview(rows.rowCount(), rows.columns(), records, rows.warnings());
  }

  private List<PlanViews.FieldTrouble> troubles(PlanService.Opened opened) {
    List<PlanViews.FieldTrouble> troubles = new ArrayList<>();
    for (FillCache.Entry entry : usable(opened, opened.table(), "")) {
      StageTable stages = entry.counts();
      troubles.add(
          new PlanViews.FieldTrouble(
              entry.fill().field().name(),
              stages.distinct(),
              stages.troubled(),
              stages.troubledRows(),
              stages.questions(),
              stages.noted()));
    }
    return troubles;
  }

  private List<FillCache.Entry> usable(PlanService.Opened opened, TableInfo table, String who) {
    return opened.now(who).usable(opened.destination()).stream()
        .map(f -> cache.fill(opened, f, who))
        .toList();
  }

  private List<CompiledFill> fills(PlanService.Opened opened, TableInfo table, String who) {
    return usable(opened, table, who).stream().map(FillCache.Entry::fill).toList();
  }

  StageTable stages(PlanService.Opened opened, PlanViews.FillTrial trial, String who) {
    TableInfo table = opened.table();
    requireUsable(trial.fill());
    CompiledFill fill = cache.fill(opened, trial.fill(), who).fill();
    return StageTable.of(
        fill, cache.rows(opened, who), trial.offset(), Math.min(MAX_ROWS, trial.limit()));
  }

  /** Kinds of steps by how many troubled rows of a fill each would free. */
  List<Trials.Trial> trials(PlanService.Opened opened, PlanViews.StepSearch wanted, String who) {
    Fill fill = wanted.fill();
    requireUsable(fill);
    OpenedPlan plan = opened.now(who);
    CompiledFill compiled = plan.fillForTrials(opened.destination(), fill);
    List<String> books =
        Stream.concat(opened.plan().phrasebooks().stream(), opened.shared().phrasebooks().stream())
            .map(Phrasebook::name)
            .distinct()
            .toList();
    return new Trials(plan.compiler(), compiled, cache.rows(opened, who)).rank(wanted.at(), books);
  }

  /** The application's values that a word may mean: choices of the field, or values of its link. */
  List<PlanViews.Suggestion> suggest(PlanService.Opened opened, PlanViews.WordSearch wanted) {
    Set<String> values =
        KnownWords.of(opened.database(), opened.table(), wanted.fill(), MAX_VALUES);
    return Alike.ranked(wanted.word(), values, MAX_SUGGESTED).stream()
        .map(v -> new PlanViews.Suggestion(v, Alike.isNear(wanted.word(), v)))
        .toList();
  }

  /** What a formula gives for a record, or why it can't be used. */
  PlanViews.FormulaResult formula(
      PlanService.Opened opened, PlanViews.FormulaTrial trial, String who) {
    TableInfo table = opened.table();
    OpenedPlan plan = opened.now(who);
    try {
      FillCompiler.Tried tried =
          plan.compiler()
              .tryFormula(
                  trial.formula(),
                  trial.inStep() ? trial.fill() : null,
                  table.field(trial.fill().field()),
                  table);
      SourceTable rows = opened.rows();
      long row = Math.max(0, Math.min(rows.rowCount() - 1, trial.row()));
      Batch batch = rows.batch(rows.batchOf(row));
      BatchRow at = new BatchRow(batch, plan.context()).at((int) (row - batch.firstRow()));
      Object value = tried.value().apply(at);
      return value instanceof Problem problem
          ? new PlanViews.FormulaResult(tried.kind(), null, problem, null, 0, 0)
          : new PlanViews.FormulaResult(tried.kind(), Values.text(value), null, null, 0, 0);
    } catch (FormulaException e) {
      return new PlanViews.FormulaResult(null, null, null, e.what(), e.from(), e.to());
    }
  }

  private static void requireUsable(Fill fill) {
    if (!fill.isGiven()) {
      throw ErrorCode.LEFT_TO_DATABASE.error(
          "This field is left to the database, so there is nothing to show.");
    }
  }

  List<PlanViews.WindowRow> window(PlanService.Opened opened, long from, int count, String who) {
    TableInfo table = opened.table();
    List<CompiledFill> fills = fills(opened, table, who);
    SourceTable rows = opened.rows();
    Rows taken = cache.rows(opened, who);
    Rules rules = opened.now(who).rules(opened.destination());
    List<PlanViews.WindowRow> window = new ArrayList<>();
    long last = Math.min(rows.rowCount(), from + Math.min(MAX_ROWS, count));
    for (long row = Math.max(0, from); row < last; row++) {
      int number = rows.batchOf(row);
      Batch batch = rows.batch(number);
      int at = (int) (row - batch.firstRow());
      List<Cell> cells = Arrays.stream(batch.columns()).map(c -> c.cell(at)).toList();
      Batch into = taken.batch(number);
      long index = row;
      int[] parts = IntStream.range(0, into.rows()).filter(r -> into.index(r) == index).toArray();
      window.add(
          parts.length == 0
              ? new PlanViews.WindowRow(row, batch.lines()[at], cells, 0, List.of(), null)
              : row(into, parts[0], cells, parts.length, fills, table, rules));
    }
    return window;
  }

  private static PlanViews.WindowRow row(
      Batch batch,
      int at,
      List<Cell> cells,
      int records,
      List<CompiledFill> fills,
      TableInfo table,
      Rules rules) {
    List<PlanViews.FieldValue> values = new ArrayList<>();
    Object[] byField = new Object[table.fields().size()];
    for (CompiledFill fill : fills) {
      Filled filled = fill.compute(new BatchRow(batch, fill.context()).at(at));
      byField[fill.fieldIndex()] = filled.value();
      values.add(
          new PlanViews.FieldValue(
              fill.field().name(),
              Values.text(filled.value()),
              filled.problem(),
              filled.softened(),
              filled.question()));
    }
    Rules.Broken broken = rules.broken(byField, batch.lines()[at]);
    return new PlanViews.WindowRow(
        batch.index(at),
        batch.lines()[at],
        cells,
        records,
        values,
        broken == null ? null : broken.reason());
  }

  long nextTroubled(PlanService.Opened opened, long after, String who) {
    TableInfo table = opened.table();
    List<CompiledFill> fills = fills(opened, table, who);
    Rows rows = cache.rows(opened, who);
    long from = Math.min(after, opened.rows().rowCount() - 1);
    long next = Troubles.next(rows, fills, from);
    return next < 0 && from >= 0 ? Troubles.next(rows, fills, -1) : next;
  }

  /**
   * How the rows match.
   *
   * @param of the class whose rows are shown
   */
  MatchSurvey.MatchClasses match(PlanService.Opened opened, String who, MatchClass of, int pairs) {
    Classing classing = Classing.of(opened.now(who), opened.at(), cache.remembered(opened, who));
    MatchSurvey survey = new MatchSurvey(classing, of, Math.min(MAX_ROWS, pairs));
    return survey.result(of == MatchClass.SEVERAL ? KeyAdvisor.further(opened, survey) : List.of());
  }

  /** Match keys that could be added, and those for which the table has no index. */
  KeyAdvisor.Keys keys(PlanService.Opened opened, String who) {
    return KeyAdvisor.of(opened, who, cache.remembered(opened, who));
  }

  /** Lines of the file as they stand, from the first one at or after a line number. */
  List<PlanViews.RawLine> lines(
      PlanService.Opened opened, long from, int count, int firstColumn, int columns) {
    SourceTable rows = opened.rows();
    SourceCache raw = rows.raw();
    List<PlanViews.RawLine> lines = new ArrayList<>();
    int wanted = Math.min(MAX_ROWS, count);
    for (int chunk = raw.chunkOfLine(from);
        chunk < raw.chunks() && lines.size() < wanted;
        chunk++) {
      long[] numbers = raw.lines(chunk);
      int found = Arrays.binarySearch(numbers, from);
      for (int r = found < 0 ? -found - 1 : found;
          r < numbers.length && lines.size() < wanted;
          r++) {
        List<Cell> cells = new ArrayList<>();
        int end = Math.min(raw.width(chunk), firstColumn + Math.min(MAX_COLUMNS, columns));
        for (int c = firstColumn; c < end; c++) {
          cells.add(raw.column(chunk, c).cell(r));
        }
        SheetPart part = rows.part(numbers[r]);
        lines.add(
            new PlanViews.RawLine(
                numbers[r],
                part == null ? numbers[r] : numbers[r] - part.linesBefore(),
                part == null ? null : part.sheet(),
                role(rows, numbers[r], cells),
                cells));
      }
    }
    return lines;
  }

  private static String role(SourceTable rows, long line, List<Cell> cells) {
    if (rows.reading().titleRows().contains(line)) {
      return "titles";
    }
    if (rows.reading().unitsRow() != null && rows.reading().unitsRow() == line) {
      return "units";
    }
    if (rows.isRecord(line)) {
      return "record";
    }
    if (rows.isSection(line)) {
      return "section";
    }
    boolean inside = line >= rows.reading().firstRow() && line <= rows.reading().lastRow();
    return inside && cells.stream().allMatch(Cell::isBlank) ? "blank" : "left-out";
  }
}
