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
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.zestyporter.bench.draft.Schema.Column;
import org.zestyporter.bench.draft.Schema.Titles;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.draft.ProposedTable;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;

/**
 * Drafts plans for files of invented applications whose right answers are known, and counts:
 * columns that go where they belong, that go elsewhere, and that are left; how often the table is
 * found; and the time.
 */
public final class DraftBench {
  private static final int ROWS = 60;

  /** Rows of the file that the application holds already. */
  private static final int KNOWN = 20;

  private final Path folder;
  private final boolean tells;

  /** By class of files. */
  private final Map<String, Score> scores = new TreeMap<>();

  private DraftBench(Path folder, boolean tells) {
    this.folder = folder;
    this.tells = tells;
  }

  private static final class Score {
    private int files;
    private int right;
    private int wrong;
    private int left;
    private int found;
    private double slowest;
  }

  /**
   * @param arguments {@code tell} to have every column named that does not go where it belongs
   */
  public static void main(String[] arguments) throws IOException, SQLException {
    Path folder = Files.createTempDirectory("porter-draft");
    WideDraft.measure(folder);
    DraftBench bench = new DraftBench(folder, List.of(arguments).contains("tell"));
    for (Schema schema : Schemas.all()) {
      bench.measure(schema);
    }
    bench.print();
  }

  private void measure(Schema schema) throws IOException, SQLException {
    String url = "jdbc:h2:mem:" + schema.name() + ";DATABASE_TO_LOWER=TRUE;DB_CLOSE_DELAY=-1";
    try (Connection connection = DriverManager.getConnection(url, "sa", "");
        Statement statement = connection.createStatement()) {
      for (String sql : schema.ddl()) {
        statement.execute(sql);
      }
      for (int row = 0; row < KNOWN; row++) {
        statement.execute(insert(schema, row));
      }
    }
    Database database = Database.connect(url, "sa", "");
    draft(database, schema, "no titles", null, 0);
    for (Titles titles : Titles.values()) {
      draft(database, schema, titles.word(), titles, 0);
    }
    draft(database, schema, "misleading", Titles.SAME, 1);
    for (Titles titles : List.of(Titles.SAME, Titles.OTHER, Titles.GERMAN)) {
      draft(database, schema, "laid out, " + titles.word(), titles, 0);
    }
    try (Connection connection = DriverManager.getConnection(url, "sa", "");
        Statement statement = connection.createStatement()) {
      statement.execute("DELETE FROM " + schema.table());
    }
    draft(database, schema, "empty table, no titles", null, 0);
    draft(database, schema, "empty table, german", Titles.GERMAN, 0);
    draft(database, schema, "empty table, other", Titles.OTHER, 0);
    draft(database, schema, "empty table, short", Titles.SHORT, 0);
  }

  private static String insert(Schema schema, int row) {
    List<String> fields = new ArrayList<>();
    List<String> values = new ArrayList<>();
    for (int c = 0; c < schema.columns().size(); c++) {
      Column column = schema.columns().get(c);
      if (column.field() != null && column.stored() != null) {
        fields.add(column.field());
        values.add(column.stored().of(random(c, row), row));
      }
    }
    return "INSERT INTO "
        + schema.table()
        + " ("
        + String.join(", ", fields)
        + ") SELECT "
        + String.join(", ", values);
  }

  /** The same for each column and row, so that files hold what the application holds. */
  private static Random random(int column, int row) {
    Random random = new Random(31L * row + column);
    random.nextInt();
    return random;
  }

  /**
   * @param shift by how many places titles stand beside their columns
   */
  private void draft(
      Database database, Schema schema, String what, @Nullable Titles titles, int shift)
      throws IOException {
    List<Column> columns = schema.columns();
    List<String> names = new ArrayList<>();
    if (titles != null) {
      for (int c = 0; c < columns.size(); c++) {
        Column named = columns.get((c + shift) % columns.size());
        names.add(named.titles().get(titles.ordinal()));
      }
    }
    List<List<String>> records = new ArrayList<>();
    int first = titles == null || shift > 0 ? KNOWN / 2 : KNOWN - 5;
    for (int row = first; row < first + ROWS; row++) {
      List<String> record = new ArrayList<>();
      for (int c = 0; c < columns.size(); c++) {
        record.add(columns.get(c).value().of(random(c, row), row));
      }
      records.add(record);
    }
    Path file = folder.resolve("file");
    if (what.startsWith("laid out")) {
      LaidOut.write(file, names, records);
    } else {
      Files.write(file, lines(names, records));
    }
    Score score = scores.computeIfAbsent(what, w -> new Score());
    try (SourceTable source = SourceReader.open(file, folder.resolve("cells"), Reading.FIND)) {
      database.forget();
      long started = System.nanoTime();
      List<ProposedTable> ranked = new PlanDraft(database, source).rank();
      score.slowest = Math.max(score.slowest, (System.nanoTime() - started) / 1e9);
      score.files++;
      boolean isFound =
          !ranked.isEmpty() && ranked.get(0).destination().table().equals(schema.table());
      score.found += isFound ? 1 : 0;
      ProposedTable proposal =
          new PlanDraft(database, source).draft(database.table(schema.table()));
      compare(schema, what, source, proposal, score);
    }
  }

  private static List<String> lines(List<String> titles, List<List<String>> records) {
    List<String> lines = new ArrayList<>();
    if (!titles.isEmpty()) {
      lines.add(String.join(";", titles));
    }
    records.forEach(record -> lines.add(String.join(";", record)));
    return lines;
  }

  private void compare(
      Schema schema, String what, SourceTable source, ProposedTable proposal, Score score) {
    if (source.rowCount() != ROWS || source.columns().size() < schema.columns().size()) {
      // what is read wrongly can't be filled rightly
      score.wrong += schema.columns().size();
      if (tells) {
        System.out.printf("%-11s %-22s %d records%n", schema.name(), what, source.rowCount());
      }
      return;
    }
    for (int c = 0; c < schema.columns().size(); c++) {
      String wanted = schema.columns().get(c).field();
      String column = source.columns().get(c);
      List<String> into =
          proposal.destination().fills().stream()
              .filter(f -> column.equals(f.origin().column()))
              .map(Fill::field)
              .toList();
      boolean isRight = wanted == null ? into.isEmpty() : into.equals(List.of(wanted));
      if (wanted != null || !isRight) {
        score.right += isRight ? 1 : 0;
        score.left += !isRight && into.isEmpty() ? 1 : 0;
        score.wrong += !isRight && !into.isEmpty() ? 1 : 0;
      }
      if (tells && !isRight) {
        System.out.printf(
            "%-11s %-22s %-24s belongs to %-14s goes to %s%n",
            schema.name(), what, column, wanted, into);
      }
    }
  }

  private void print() {
    System.out.printf(
        "%-22s %5s %6s %6s %6s %8s %12s%n",
        "titles", "files", "right", "wrong", "left", "table", "slowest");
    scores.forEach(
        (what, s) -> {
          double all = (s.right + s.wrong + s.left) / 100.0;
          System.out.printf(
              Locale.ROOT,
              "%-22s %5d %5.0f%% %5.0f%% %5.0f%% %4d of %d %10.2f s%n",
              what,
              s.files,
              s.right / all,
              s.wrong / all,
              s.left / all,
              s.found,
              s.files,
              s.slowest);
        });
  }
}
