package org.zestyporter.server.plan;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.springframework.stereotype.Component;
import org.zestyporter.core.database.FieldInfo;
import org.zestyporter.core.database.TableInfo;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.FillCompiler;
import org.zestyporter.core.fill.Filled;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.StageTable;
import org.zestyporter.core.fill.Troubles;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.PlanCheck;
import org.zestyporter.core.plan.PlanDraft;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.plan.Step;
import org.zestyporter.core.run.MatchSurvey;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.source.Batch;
import org.zestyporter.core.source.FileChange;
import org.zestyporter.core.source.Reading;
import org.zestyporter.core.source.SheetPart;
import org.zestyporter.core.source.SourceCache;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.Values;

/** Shows the effect of a plan on real rows, before anything is rehearsed. */
@Component
class PlanViewer {
  private static final int MAX_ROWS = 200;
  private static final int MAX_COLUMNS = 120;

  PlanViews.PlanView view(PlanRecord record, PlanService.Opened opened) {
    SourceTable rows = opened.rows();
    TableInfo table = opened.database().table(opened.destination().table());
    PlanDraft.FillEvidence[] evidence =
        PlanJson.MAPPER.readValue(record.evidenceJson(), PlanDraft.FillEvidence[].class);
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
        table,
        opened.database().count(table),
        PlanCheck.check(opened.destination(), table, rows.columns()),
        List.of(evidence),
        troubles(opened, table));
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

  private static RunContext context(PlanService.Opened opened, String who) {
    return new RunContext(who, LocalDateTime.now(), opened.source().name());
  }

  private static FillCompiler compiler(PlanService.Opened opened, String who) {
    return new FillCompiler(opened.database(), opened.rows(), context(opened, who));
  }

  private List<PlanViews.FieldTrouble> troubles(PlanService.Opened opened, TableInfo table) {
    List<PlanViews.FieldTrouble> troubles = new ArrayList<>();
    for (CompiledFill fill : usable(opened, table, "")) {
      StageTable stages = StageTable.of(fill, opened.rows(), 0, 0);
      troubles.add(
          new PlanViews.FieldTrouble(
              fill.field().name(), stages.distinct(), stages.troubled(), stages.troubledRows()));
    }
    return troubles;
  }

  /** Fills that can be computed; the others are named in the plan's matters. */
  private static List<CompiledFill> usable(PlanService.Opened opened, TableInfo table, String who) {
    Destination destination = opened.destination();
    List<String> bad =
        PlanCheck.check(destination, table, opened.rows().columns()).stream()
            .map(PlanCheck.Matter::field)
            .toList();
    List<Fill> good = destination.fills().stream().filter(f -> !bad.contains(f.field())).toList();
    return compiler(opened, who)
        .compile(
            new Destination(destination.table(), good, destination.keys(), destination.policies()),
            table);
  }

  StageTable stages(PlanService.Opened opened, PlanViews.Trial trial, String who) {
    TableInfo table = opened.database().table(opened.destination().table());
    FieldInfo field = table.field(trial.fill().field());
    requireUsable(trial.fill());
    CompiledFill fill =
        compiler(opened, who).compile(trial.fill(), field, table.fields().indexOf(field));
    return StageTable.of(fill, opened.rows(), trial.offset(), Math.min(MAX_ROWS, trial.limit()));
  }

  private static void requireUsable(Fill fill) {
    for (Step step : fill.steps()) {
      step.kind().require(step);
    }
    if (fill.origin().kind() == Origin.Kind.DATABASE) {
      throw PorterException.input(
          "left-to-database", "This field is left to the database, so there is nothing to show.");
    }
  }

  List<PlanViews.WindowRow> window(PlanService.Opened opened, long from, int count, String who) {
    TableInfo table = opened.database().table(opened.destination().table());
    List<CompiledFill> fills = usable(opened, table, who);
    SourceTable rows = opened.rows();
    List<PlanViews.WindowRow> window = new ArrayList<>();
    long last = Math.min(rows.rowCount(), from + Math.min(MAX_ROWS, count));
    for (long row = Math.max(0, from); row < last; row++) {
      Batch batch = rows.batch(rows.batchOf(row));
      int at = (int) (row - batch.firstRow());
      window.add(row(batch, at, fills));
    }
    return window;
  }

  private static PlanViews.WindowRow row(Batch batch, int at, List<CompiledFill> fills) {
    List<Cell> cells = Arrays.stream(batch.columns()).map(c -> c.cell(at)).toList();
    List<PlanViews.FieldValue> values = new ArrayList<>();
    for (CompiledFill fill : fills) {
      Cell cell = fill.column() < 0 ? Cell.BLANK : cells.get(fill.column());
      Filled filled = fill.compute(cell, batch.lines()[at]);
      Problem problem = filled.problem();
      values.add(
          new PlanViews.FieldValue(
              fill.field().name(), Values.text(filled.value()), problem, filled.softened()));
    }
    return new PlanViews.WindowRow(batch.firstRow() + at, batch.lines()[at], cells, values);
  }

  long nextTroubled(PlanService.Opened opened, long after, String who) {
    TableInfo table = opened.database().table(opened.destination().table());
    List<CompiledFill> fills = usable(opened, table, who);
    long next = Troubles.next(opened.rows(), fills, after);
    return next < 0 && after >= 0 ? Troubles.next(opened.rows(), fills, -1) : next;
  }

  MatchSurvey.MatchClasses match(PlanService.Opened opened, String who, int pairs) {
    MatchSurvey survey = new MatchSurvey(Math.min(MAX_ROWS, pairs));
    new Pipeline(opened.database(), opened.rows(), opened.plan(), context(opened, who))
        .rehearse(survey, Progress.NONE);
    return survey.result();
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
    boolean inside = line >= rows.reading().firstRow() && line <= rows.reading().lastRow();
    return inside && cells.stream().allMatch(Cell::isBlank) ? "blank" : "left-out";
  }
}
