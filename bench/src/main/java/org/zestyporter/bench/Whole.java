package org.zestyporter.bench;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Comparator;
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
  private double bare;

  Whole(Path folder, int rows) {
    this.folder = folder;
    this.rows = rows;
    this.file = folder.resolve("goods.csv");
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

  private record Times(double wall, double cpu) {}

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
    measure("look", porter("look", file.toString(), "--json"));
    try (EmbeddedPostgres postgres = EmbeddedPostgres.builder().start()) {
      String url = postgres.getJdbcUrl("postgres", "postgres");
      try (Connection connection = postgres.getPostgresDatabase().getConnection();
          Statement statement = connection.createStatement()) {
        statement.execute("CREATE TABLE goods " + Goods.TABLE);
        statement.execute("CREATE TABLE half " + Goods.TABLE);
        Path plan = folder.resolve("plan.json");
        run(
            porter(
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
        run(porter("run", plan.toString(), file.toString(), "--to", url, "--json"));
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
    return porter("rehearse", plan.toString(), file.toString(), "--to", url, "--json");
  }

  /** The command as people start it. */
  private static List<String> porter(String... arguments) {
    List<String> command = new ArrayList<>(List.of(System.getProperty("bench.porter")));
    command.addAll(List.of(arguments));
    return command;
  }

  private double measure(String what, List<String> command) throws IOException {
    List<Times> all = new ArrayList<>();
    for (int i = 0; i < TIMES; i++) {
      all.add(run(command));
    }
    all.sort(Comparator.comparingDouble(Times::cpu));
    Times median = all.get(TIMES / 2);
    System.out.printf(
        Locale.ROOT,
        "%-44s %8.2f s %8.2f s of CPU %6.1f x%n",
        what,
        median.wall(),
        median.cpu(),
        bare == 0 ? 1 : median.cpu() / bare);
    return median.cpu();
  }

  /** Runs a command to its end; the shell tells what it took. */
  private Times run(List<String> command) throws IOException {
    Path errors = folder.resolve("errors");
    List<String> timed =
        new ArrayList<>(List.of("bash", "-c", "TIMEFORMAT='%R %U %S'; time \"$@\"", "porter"));
    timed.addAll(command);
    ProcessBuilder builder = new ProcessBuilder(timed);
    builder.environment().put("PORTER_DB_USER", "postgres");
    builder.environment().put("PORTER_HOME", folder.resolve("home").toString());
    builder.redirectOutput(ProcessBuilder.Redirect.DISCARD).redirectError(errors.toFile());
    try {
      int code = builder.start().waitFor();
      String said = Files.readString(errors, StandardCharsets.UTF_8).strip();
      if (code > 1) {
        throw new IllegalStateException(String.join(" ", command) + " ended with " + said);
      }
      String[] parts = said.substring(said.lastIndexOf('\n') + 1).split(" ");
      double user = Double.parseDouble(parts[1]);
      return new Times(Double.parseDouble(parts[0]), user + Double.parseDouble(parts[2]));
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
