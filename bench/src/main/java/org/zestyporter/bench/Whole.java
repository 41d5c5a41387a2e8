package org.zestyporter.bench;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Locale;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerCodec;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;

/**
 * Times whole, cold processes of the command line on a file of mostly distinct values, in seconds
 * of CPU beside the clock's, three times each: the median, and the ratio to a process that only
 * parses the file.
 */
final class Whole {
  private static final int TIMES = 3;

  private final Path folder;
  private final int rows;
  private final Path file;
  private final Commands commands;
  private double bare;

  Whole(Path folder, int rows) {
    this.folder = folder;
    this.rows = rows;
    this.file = folder.resolve("goods.csv");
    this.commands = new Commands(folder);
  }

  /** Run by {@link #go} as a process of its own: parses a file and does nothing else. */
  public static void main(String[] args) throws IOException {
    long cells = 0;
    try (CsvReader<CsvRecord> reader = CsvReader.builder().ofCsvRecord(Path.of(args[0]))) {
      for (CsvRecord csv : reader) {
        cells += csv.getFieldCount();
      }
    }
    System.out.println(cells);
  }

  void go() throws IOException, SQLException {
    Goods.write(file, rows);
    System.out.printf(
        Locale.ROOT,
        "%nwhole processes, %,d rows of mostly distinct values, %,d MB%n",
        rows,
        Files.size(file) >> 20);
    String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
    String classes = System.getProperty("java.class.path");
    bare =
        measure(
            "parsing alone",
            List.of(java, "-XX:+UseSerialGC", "-cp", classes, Whole.class.getName(), file + ""));
    measure("look", Commands.porter("look", file.toString(), "--json"));
    for (String kind : Kinds.names()) {
      Path values = folder.resolve("values.csv");
      Kinds.write(values, kind, rows);
      measure("look, one column of " + kind, Commands.porter("look", values.toString(), "--json"));
      Files.delete(values);
    }
    try (EmbeddedPostgres postgres = EmbeddedPostgres.builder().start()) {
      String url = postgres.getJdbcUrl("postgres", "postgres");
      try (Connection connection = postgres.getPostgresDatabase().getConnection();
          Statement statement = connection.createStatement()) {
        statement.execute("CREATE TABLE goods " + Goods.TABLE);
        statement.execute("CREATE TABLE half " + Goods.TABLE);
        Path plan = folder.resolve("plan.json");
        commands.run(
            "postgres",
            Commands.porter(
                "draft",
                file.toString(),
                "--to",
                url,
                "--table",
                "goods",
                "--out",
                plan.toString()));
        Path half = folder.resolve("half.json");
        Files.writeString(
            half, Files.readString(plan).replace("\"table\" : \"goods\"", "\"table\" : \"half\""));
        measure("rehearse into an empty table", rehearse(plan, url));
        ledger(plan, url);
        commands.run(
            "postgres",
            Commands.porter("run", plan.toString(), file.toString(), "--to", url, "--json"));
        statement.execute("INSERT INTO half SELECT * FROM goods WHERE id % 2 = 0");
        statement.execute("ANALYZE half");
        measure("rehearse, half of them matched", rehearse(half, url));
        measure("rehearse, all of them matched", rehearse(plan, url));
      }
    }
  }

  /** A ledger that is written as bytes, and not kept. */
  private static final class Sizes implements Ledger {
    private long bytes;
    private long nanos;

    @Override
    public void begin(LedgerLayout layout) {
      // the sizes are all that counts
    }

    @Override
    public void append(LedgerChunk chunk) {
      long started = System.nanoTime();
      bytes += LedgerCodec.encode(chunk).length;
      nanos += System.nanoTime() - started;
    }
  }

  /** What the ledger of new records takes, with all values that would be written. */
  private void ledger(Path plan, String url) throws IOException {
    Sizes sizes = new Sizes();
    try (SourceTable source =
        SourceReader.open(file, folder.resolve("goods-cells"), Reading.FIND)) {
      RunContext context = new RunContext("bench", LocalDateTime.now(), "goods.csv");
      OpenedPlan opened =
          new OpenedPlan(
              Database.connect(url, "postgres", ""),
              source,
              PlanJson.read(Files.readString(plan)),
              context,
              Shared.NONE);
      new Pipeline(opened).rehearse(sizes, Progress.NONE);
    }
    System.out.printf(
        Locale.ROOT,
        "%-44s %8.1f bytes a row, %,.0f rows/s%n",
        "  its ledger, all values in it",
        (double) sizes.bytes / rows,
        rows * 1e9 / sizes.nanos);
  }

  private List<String> rehearse(Path plan, String url) {
    return Commands.porter("rehearse", plan.toString(), file.toString(), "--to", url, "--json");
  }

  private double measure(String what, List<String> command) throws IOException {
    Commands.Times median = commands.median(command, TIMES);
    System.out.printf(
        Locale.ROOT,
        "%-44s %8.2f s %8.2f s of CPU %6.1f x%n",
        what,
        median.wall(),
        median.cpu(),
        bare == 0 ? 1 : median.cpu() / bare);
    return median.cpu();
  }
}
