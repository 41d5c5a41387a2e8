package org.zestyporter.bench;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.postgresql.PGConnection;
import org.zestyporter.core.application.jdbc.MariaServer;

/**
 * Times runs and undos, whole processes, into each database, beside the fastest way that the
 * database has to take the ready file: by the clock, since the database works in a process of its
 * own.
 */
final class Writes {
  private static final Pattern NUMBER = Pattern.compile("\"run\" : \"(\\d{4}-\\d{4})\"");

  private static final String FIELDS =
      "id, code, name, category, price, quantity, weight, made_on, updated_on, country, active,"
          + " remarks";

  private final Path folder;
  private final int rows;
  private final Path file;
  private final Commands commands;

  /** What is done without us. */
  @FunctionalInterface
  private interface Bare {
    void go(Connection connection) throws SQLException, IOException;
  }

  Writes(Path folder, int rows) {
    this.folder = folder;
    this.rows = rows;
    this.file = folder.resolve("goods.csv");
    this.commands = new Commands(folder);
  }

  void go() throws IOException, SQLException {
    System.out.printf(Locale.ROOT, "%nruns, %,d rows, one each%n", rows);
    try (EmbeddedPostgres postgres =
        EmbeddedPostgres.builder()
            .setServerConfig("fsync", "on")
            .setServerConfig("synchronous_commit", "on")
            .start()) {
      String url = postgres.getJdbcUrl("postgres", "postgres");
      on("PostgreSQL", url, url, "postgres", "COPY", this::copy);
      severalTables(url);
    }
    String missing = null;
    try (MariaServer maria = MariaServer.start()) {
      try (Connection connection = DriverManager.getConnection(maria.url("mysql"), "root", "")) {
        execute(connection, "CREATE DATABASE goods");
      }
      String url = maria.url("goods");
      on("MariaDB", url, url + "?allowLocalInfile=true", "root", "LOAD DATA", this::load);
    } catch (IllegalStateException e) {
      missing = e.getMessage();
    }
    if (missing != null) {
      System.out.println("MariaDB is not here: " + missing.lines().findFirst().orElse(""));
    }
    String sqlite = "jdbc:sqlite:" + folder.resolve("goods.db");
    on("SQLite", sqlite, sqlite, "", "batches", this::batches);
    String h2 = "jdbc:h2:file:" + folder.resolve("goods") + ";DATABASE_TO_LOWER=TRUE";
    on("H2", h2, h2, "sa", "batches", this::batches);
  }

  private void on(String product, String url, String bareUrl, String user, String how, Bare bare)
      throws IOException, SQLException {
    Path plan = folder.resolve("plan.json");
    double base;
    try (Connection connection = DriverManager.getConnection(bareUrl, user, "")) {
      execute(connection, "CREATE TABLE goods " + Goods.TABLE);
      base = timed(connection, bare);
      tell(product, how + " of the ready file", new Commands.Times(base, 0), base);
      execute(connection, "DELETE FROM goods");
    }
    commands.run(
        user,
        Commands.porter(
            "draft", file + "", "--to", url, "--table", "goods", "--out", plan.toString()));
    String added = run(product, "add all", url, user, plan, base);
    run(product, "all unchanged", url, user, plan, base);
    undo(product, "undo of the new", added, user, base);
    run(product, "add all, in batches", url, user, plan, base, "--mode", "batches");
    try (Connection connection = DriverManager.getConnection(url, user, "")) {
      execute(
          connection,
          "DELETE FROM goods WHERE MOD(id, 2) = 1",
          "UPDATE goods SET quantity = quantity + 1");
    }
    String half = run(product, "half changed, half new", url, user, plan, base);
    undo(product, "undo of that", half, user, base);
  }

  /** One file into three tables, beside set-based SQL by hand over the ready file. */
  private void severalTables(String url) throws IOException, SQLException {
    Path fleet = folder.resolve("fleet.csv");
    Fleet.write(fleet, rows);
    Path plan = folder.resolve("fleet.json");
    Files.writeString(plan, Fleet.PLAN);
    double base;
    try (Connection connection = DriverManager.getConnection(url, "postgres", "")) {
      execute(connection, Fleet.TABLES);
      base =
          timed(
              connection,
              c -> {
                execute(c, Fleet.STAGED);
                try (InputStream in = Files.newInputStream(fleet)) {
                  String into = "COPY fleet FROM STDIN (FORMAT csv, HEADER, NULL 'none')";
                  c.unwrap(PGConnection.class).getCopyAPI().copyIn(into, in);
                }
                execute(c, "ANALYZE fleet");
                execute(c, Fleet.BY_HAND);
              });
      execute(connection, "TRUNCATE keeper, address, vessel");
    }
    tell("PostgreSQL", "three tables, SQL by hand", new Commands.Times(base, 0), base);
    List<String> command =
        Commands.porter("run", plan.toString(), fleet.toString(), "--to", url, "--json");
    tell("PostgreSQL", "three tables", commands.run("postgres", command), base);
  }

  private String run(
      String product, String what, String url, String user, Path plan, double base, String... more)
      throws IOException {
    List<String> command =
        Commands.porter("run", plan.toString(), file.toString(), "--to", url, "--json");
    command.addAll(List.of(more));
    tell(product, what, commands.run(user, command), base);
    Matcher number = NUMBER.matcher(Files.readString(commands.printed()));
    return number.find() ? number.group(1) : "";
  }

  private void undo(String product, String what, String number, String user, double base)
      throws IOException {
    tell(product, what, commands.run(user, Commands.porter("undo", number, "--put-back")), base);
  }

  private static void tell(String product, String what, Commands.Times times, double base) {
    System.out.printf(
        Locale.ROOT,
        "%-11s %-32s %8.2f s %8.2f s of CPU %6.1f x%n",
        product,
        what,
        times.wall(),
        times.cpu(),
        times.wall() / base);
  }

  private static double timed(Connection connection, Bare bare) throws SQLException, IOException {
    long started = System.nanoTime();
    bare.go(connection);
    return (System.nanoTime() - started) / 1e9;
  }

  private static void execute(Connection connection, String... statements) throws SQLException {
    try (Statement statement = connection.createStatement()) {
      for (String sql : statements) {
        statement.execute(sql);
      }
    }
  }

  private void copy(Connection connection) throws SQLException, IOException {
    try (InputStream in = Files.newInputStream(file)) {
      connection
          .unwrap(PGConnection.class)
          .getCopyAPI()
          .copyIn("COPY goods (" + FIELDS + ") FROM STDIN (FORMAT csv, HEADER)", in);
    }
  }

  private void load(Connection connection) throws SQLException {
    execute(
        connection,
        "LOAD DATA LOCAL INFILE '"
            + file
            + "' INTO TABLE goods FIELDS TERMINATED BY ',' IGNORE 1 LINES ("
            + FIELDS.replace("active", "@active")
            + ") SET active = (@active = 'true')");
  }

  private void batches(Connection connection) throws SQLException, IOException {
    connection.setAutoCommit(false);
    try (CsvReader<NamedCsvRecord> reader = CsvReader.builder().ofNamedCsvRecord(file);
        PreparedStatement insert =
            connection.prepareStatement(
                "INSERT INTO goods (" + FIELDS + ") VALUES (?,?,?,?,?,?,?,?,?,?,?,?)")) {
      int waiting = 0;
      for (NamedCsvRecord row : reader) {
        for (int c = 0; c < row.getFieldCount(); c++) {
          insert.setString(c + 1, row.getField(c));
        }
        insert.addBatch();
        if (++waiting % 1_000 == 0) {
          insert.executeBatch();
        }
      }
      insert.executeBatch();
    }
    connection.commit();
    connection.setAutoCommit(true);
  }
}
