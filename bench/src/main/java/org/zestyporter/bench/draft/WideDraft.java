package org.zestyporter.bench.draft;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;

/**
 * How long a draft takes for a file of 200 columns against an application of 300 tables of 18
 * fields, whose values and names are nearly all different ones: first, and again.
 */
final class WideDraft {
  private static final int TABLES = 300;
  private static final int FIELDS = 18;
  private static final int COLUMNS = 200;
  private static final int RECORDS = 40;
  private static final int ROWS = 500;
  private static final List<String> TYPES =
      List.of("varchar(60)", "integer", "date", "decimal(10, 2)", "varchar(12)", "boolean");
  private static final String[] WORDS = {
    "crate", "orchard", "harvest", "picker", "grade", "weight", "press", "barrel", "label", "truck",
    "route", "depot", "pallet", "season", "blend", "sugar", "acid", "bottle", "shop", "order",
    "fence", "ladder", "shift", "wage", "frost", "hive", "graft", "parcel", "soil", "pump"
  };

  private WideDraft() {}

  /** Measures in a process that has drafted nothing yet, and prints it. */
  static void measure(Path folder) throws IOException, SQLException {
    String url = "jdbc:h2:mem:wide;DATABASE_TO_LOWER=TRUE;DB_CLOSE_DELAY=-1";
    try (Connection connection = DriverManager.getConnection(url, "sa", "");
        Statement statement = connection.createStatement()) {
      for (int t = 0; t < TABLES; t++) {
        make(statement, t);
      }
    }
    Path file = folder.resolve("wide");
    Files.write(file, lines());
    Database database = Database.connect(url, "sa", "");
    long tables = System.nanoTime();
    database.read(database.tableNames());
    System.out.printf("%d tables: %.2f s%n", TABLES, (System.nanoTime() - tables) / 1e9);
    try (SourceTable source = SourceReader.open(file, folder.resolve("wide.cells"), Reading.FIND)) {
      source.profiles();
      for (String which : List.of("first", "again", "again")) {
        long started = System.nanoTime();
        new PlanDraft(database, source).rank();
        System.out.printf(
            "draft of %d columns, %s: %.2f s%n",
            COLUMNS, which, (System.nanoTime() - started) / 1e9);
      }
    }
  }

  private static void make(Statement statement, int t) throws SQLException {
    List<String> fields = new ArrayList<>();
    for (int f = 0; f < FIELDS; f++) {
      fields.add(name(t * FIELDS + f) + " " + TYPES.get((t + f) % TYPES.size()));
    }
    String table = name(t * 7 + 5) + "_" + t;
    String link =
        t == 0 ? "" : ", up_id integer references " + name((t - 1) * 7 + 5) + "_" + (t - 1);
    statement.execute(
        "create table "
            + table
            + " (id integer primary key, "
            + String.join(", ", fields)
            + link
            + ")");
    for (int row = 0; row < RECORDS; row++) {
      Random random = new Random(t * 1_000L + row);
      StringBuilder values = new StringBuilder().append(row);
      for (int f = 0; f < FIELDS; f++) {
        values.append(", ").append(value((t + f) % TYPES.size(), random, true));
      }
      statement.execute(
          "insert into " + table + " values (" + values + (t == 0 ? "" : ", " + row) + ")");
    }
  }

  /** Two words and a number, so that names are alike but different. */
  private static String name(int n) {
    return WORDS[n % WORDS.length] + "_" + WORDS[n * 11 / 7 % WORDS.length] + n % 97;
  }

  private static String value(int type, Random random, boolean quoted) {
    String mark = quoted ? "'" : "";
    return switch (type) {
      case 0 -> mark + WORDS[random.nextInt(WORDS.length)] + " " + random.nextInt(90_000) + mark;
      case 1 -> String.valueOf(random.nextInt(1_000_000));
      case 2 -> mark + java.time.LocalDate.ofEpochDay(15_000 + random.nextInt(5_000)) + mark;
      case 3 -> random.nextInt(9_000) + "." + (10 + random.nextInt(89));
      case 4 -> mark + (char) ('A' + random.nextInt(26)) + "-" + random.nextInt(99_999) + mark;
      default -> String.valueOf(random.nextBoolean());
    };
  }

  private static List<String> lines() {
    List<String> lines = new ArrayList<>();
    List<String> titles = new ArrayList<>();
    for (int c = 0; c < COLUMNS; c++) {
      titles.add(WORDS[c % WORDS.length] + " " + WORDS[c * 3 / 2 % WORDS.length] + " " + c);
    }
    lines.add(String.join(";", titles));
    for (int row = 0; row < ROWS; row++) {
      Random random = new Random(row);
      List<String> cells = new ArrayList<>();
      for (int c = 0; c < COLUMNS; c++) {
        cells.add(value(c % TYPES.size(), random, false));
      }
      lines.add(String.join(";", cells));
    }
    return lines;
  }
}
