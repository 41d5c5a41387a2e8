package org.zestyporter.bench;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.draft.ProposedTable;
import org.zestyporter.core.fill.BatchRow;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.FillColumns;
import org.zestyporter.core.fill.FillCompiler;
import org.zestyporter.core.fill.FilledChunk;
import org.zestyporter.core.fill.Phrases;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.preview.Troubles;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.demo.Marina;

/**
 * Measures the stages of the path on one file, side by side, and prints rows a second and the ratio
 * to bare parsing. Asserts nothing: times belong to the machine they are taken on.
 */
public final class Bench {
  private static final RunContext CONTEXT =
      new RunContext("bench", LocalDateTime.of(2026, 11, 23, 9, 0), "arrivals.csv");

  private final int rows;
  private final Path folder;
  private double bare;
  private int measured;

  private Bench(int rows, Path folder) {
    this.rows = rows;
    this.measured = rows;
    this.folder = folder;
  }

  @FunctionalInterface
  private interface Work {
    void go() throws IOException;
  }

  /**
   * @param args how many rows, 300,000 if left out
   */
  public static void main(String[] args) throws IOException, SQLException {
    int rows = args.length > 0 ? Integer.parseInt(args[0]) : 300_000;
    Path folder = Files.createTempDirectory("porter-bench");
    new Whole(folder, rows).go();
    new Writes(folder, rows).go();
    System.out.printf("%nstages in this process, warm, on values that repeat: ");
    new Bench(rows, folder).go();
  }

  private void go() throws IOException, SQLException {
    Path file = folder.resolve("arrivals.csv");
    Marina.open().arrivals().writeLargeText(file, rows);
    System.out.printf(
        Locale.ROOT,
        "%,d rows, %,d MB, heap %,d MB%n%n",
        rows,
        Files.size(file) >> 20,
        Runtime.getRuntime().maxMemory() >> 20);
    bare(file);
    bare = measure("bare FastCSV parsing", () -> bare(file));
    Path cells = folder.resolve("cells");
    measure("parsing into the cache", () -> SourceReader.parse(file, cells, Reading.FIND));
    SourceReader.Parsed parsed = SourceReader.parse(file, cells, Reading.FIND);
    measure("layout and profile from the cache", () -> SourceReader.reopen(cells, parsed).close());
    measure("both, warm", () -> SourceReader.open(file, cells, Reading.FIND).close());
    measure("both, warm, once more", () -> SourceReader.open(file, cells, Reading.FIND).close());
    Path peeked = folder.resolve("peeked");
    measure("first 400 rows", () -> SourceReader.peek(file, peeked, Reading.FIND, 400).close());
    SourceReader.parse(file, cells, Reading.FIND);
    System.out.printf(Locale.ROOT, "%-44s %,12d bytes%n", "  the cache", Files.size(cells));
    try (SourceTable source = SourceReader.reopen(cells, parsed)) {
      String h2 = "jdbc:h2:file:" + folder.resolve("marina") + ";DATABASE_TO_LOWER=TRUE";
      on("H2", h2, "sa", source);
      try (EmbeddedPostgres postgres = EmbeddedPostgres.builder().start()) {
        String url = postgres.getJdbcUrl("postgres", "postgres");
        on("PostgreSQL", url, "postgres", source);
      }
    }
    workbook();
  }

  /** A workbook of a fifth of the rows, beside the library's own reading of it. */
  private void workbook() throws IOException {
    int count = rows / 5;
    measured = count;
    Path file = folder.resolve("arrivals.xlsx");
    try (OutputStream out = Files.newOutputStream(file);
        Workbook book = new Workbook(out, "bench", "1.0")) {
      Worksheet sheet = book.newWorksheet("Arrivals");
      for (int r = 0; r <= count; r++) {
        for (int c = 0; c < 12; c++) {
          if (r == 0) {
            sheet.value(r, c, "Title " + (char) ('A' + c));
          } else if (c % 2 == 0) {
            sheet.value(r, c, (r * 7919 + c) % 50_000 / 100.0);
          } else {
            sheet.value(r, c, "text " + (r * 31 + c) % 9_000);
          }
        }
      }
    }
    System.out.printf(Locale.ROOT, "%na workbook of %,d rows%n", count);
    Path cells = folder.resolve("sheet-cells");
    bare = 0;
    for (int i = 0; i < 2; i++) {
      sheetRows(file);
      SourceReader.open(file, cells, Reading.FIND).close();
    }
    bare = measure("bare fastexcel reading", () -> sheetRows(file));
    measure("parsing into the cache", () -> SourceReader.parse(file, cells, Reading.FIND));
    measure("parsing and profile", () -> SourceReader.open(file, cells, Reading.FIND).close());
  }

  private static void sheetRows(Path file) throws IOException {
    try (ReadableWorkbook book =
            new ReadableWorkbook(file.toFile(), new ReadingOptions(true, true));
        Stream<Row> all = book.getFirstSheet().openStream()) {
      if (all.mapToLong(Row::getCellCount).sum() == 0) {
        throw new IllegalStateException("nothing was read");
      }
    }
  }

  private void on(String name, String url, String user, SourceTable source)
      throws SQLException, IOException {
    try (Connection connection = DriverManager.getConnection(url, user, "")) {
      Marina.open().build(connection);
    }
    Database database = Database.connect(url, user, "");
    ProposedTable draft = new PlanDraft(database, source).draft(database.table("vessel"));
    Plan plan = new Plan("bench", null, null, List.of(draft.destination()), null);
    List<CompiledFill> fills =
        new OpenedPlan(database, source, plan, CONTEXT, Shared.NONE).fills(draft.destination());
    measure(name + ": all fills of all rows", () -> Troubles.next(source, fills, -1));
    if (name.equals("H2")) {
      fills(database, source);
    }
    Pipeline pipeline = new Pipeline(new OpenedPlan(database, source, plan, CONTEXT, Shared.NONE));
    measure(name + ": rehearsal", () -> pipeline.rehearse(Ledger.NONE, Progress.NONE));
    measure(name + ": run, nearly all new", () -> pipeline.run("1", Ledger.NONE, Progress.NONE));
    measure(
        name + ": run again, all unchanged", () -> pipeline.run("2", Ledger.NONE, Progress.NONE));
  }

  /**
   * Twelve fields with three steps each, on one thread, warm: first as every fill has it that
   * depends on one column, then row by row, as formulas of several columns have it.
   */
  private void fills(Database database, SourceTable source) throws IOException {
    TableInfo table = database.table("vessel");
    List<CompiledFill> single = new ArrayList<>();
    List<CompiledFill> several = new ArrayList<>();
    FillCompiler compiler = new FillCompiler(database::table, source, CONTEXT, Phrases.NONE);
    String[][] columns = {
      {"LOA (ft)", "length_m"}, {"Beam (ft)", "beam_m"}, {"Boat name", "name"}, {"Notes", "notes"}
    };
    for (int i = 0; i < 12; i++) {
      String column = columns[i % 4][0];
      FieldInfo field = table.field(columns[i % 4][1]);
      Step[] steps =
          field.type().isNumber()
              ? new Step[] {
                Step.of(StepKind.READ_NUMBER),
                Step.of(StepKind.MULTIPLY, "by", "0.3048"),
                Step.of(StepKind.ROUND, "places", "2")
              }
              : new Step[] {
                Step.of(StepKind.TRIM),
                Step.of(StepKind.COLLAPSE_SPACES),
                Step.of(StepKind.CASE, "to", "title")
              };
      single.add(
          compiler.compile(Fill.of(field.name(), Origin.column(column), steps), field, table));
    }
    for (int i = 0; i < 3; i++) {
      FieldInfo name = table.field("name");
      String formula =
          "IF([Berth]=\"\"; UPPER([Boat name]); [Boat name] & \" \" & LEFT([Kind]; 3))";
      several.add(compiler.compile(Fill.of("name", Origin.formula(formula)), name, table));
    }
    for (int i = 0; i < 3; i++) {
      compute(source, single);
      compute(source, several);
    }
    measure("12 fills of 3 steps, one thread, warm", () -> compute(source, single));
    computeEach(source, single);
    measure("the same, every row computed anew", () -> computeEach(source, single));
    measure("3 formulas of 3 columns each, row by row", () -> compute(source, several));
  }

  /** As if no value stood twice in its column. */
  private static void computeEach(SourceTable source, List<CompiledFill> fills) {
    long values = 0;
    for (int i = 0; i < source.batches(); i++) {
      Batch batch = source.batch(i);
      BatchRow row = new BatchRow(batch, CONTEXT);
      for (int r = 0; r < batch.rows(); r++) {
        for (CompiledFill fill : fills) {
          values += fill.compute(row.at(r)).value() == null ? 0 : 1;
        }
      }
    }
    if (values == 0) {
      throw new IllegalStateException("nothing was computed");
    }
  }

  private static void compute(SourceTable source, List<CompiledFill> fills) {
    List<FillColumns> ready = FilledChunk.ready(fills);
    long values = 0;
    for (int i = 0; i < source.batches(); i++) {
      FilledChunk batch = FilledChunk.of(source.batch(i), fills, ready);
      for (int row = 0; row < batch.rows(); row++) {
        values += batch.filled(0, row).value() == null ? 0 : 1;
      }
    }
    if (values == 0) {
      throw new IllegalStateException("nothing was computed");
    }
  }

  private static void bare(Path file) throws IOException {
    long cells = 0;
    try (CsvReader<CsvRecord> reader = CsvReader.builder().fieldSeparator(';').ofCsvRecord(file)) {
      for (CsvRecord csv : reader) {
        cells += csv.getFieldCount();
      }
    }
    if (cells == 0) {
      throw new IllegalStateException("nothing was read");
    }
  }

  private double measure(String what, Work work) throws IOException {
    long started = System.nanoTime();
    work.go();
    double seconds = (System.nanoTime() - started) / 1e9;
    double ratio = bare == 0 ? 1 : seconds / bare;
    System.out.printf(
        Locale.ROOT,
        "%-44s %8.2f s %,12.0f rows/s  %6.1f x%n",
        what,
        seconds,
        measured / seconds,
        ratio);
    return seconds;
  }
}
