package org.zestyporter.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Locale;
import java.util.jar.JarFile;
import org.zestyporter.core.plan.PlanJson;

/**
 * Goes through the other commands once, with made-up berths and a database in memory, so that the
 * launcher can have the classes they need kept for every later start (class data sharing).
 */
final class ReadyCommand extends Command {
  private static final int ROWS = 200;

  private static final String URL = "jdbc:h2:mem:berths;DATABASE_TO_LOWER=TRUE";

  private Path folder;

  ReadyCommand() {
    super("ready", "Uses each command once; for the launcher.");
    parameter("FOLDER", word -> folder = path(word));
  }

  @Override
  int call() throws IOException, SQLException, URISyntaxException {
    Path file = folder.resolve("berths.csv");
    Files.writeString(file, berths());
    Path plan = folder.resolve("plan.json");
    try (Connection held = DriverManager.getConnection(URL, "", "");
        Statement statement = held.createStatement()) {
      statement.execute(
          "create table berth (id bigint generated always as identity primary key, no int not null unique,"
              + " name varchar(80), due decimal(10, 2), paid boolean, since date)");
      go("look", file);
      go("look", file, "--json");
      go("draft", file, "--to", URL, "--table", "berth", "--out", plan);
      go("rehearse", plan, file, "--to", URL, "--json");
      go("run", plan, file, "--to", URL, "--home", folder.resolve("home"), "--json");
      go("rehearse", plan, file, "--to", URL);
    }
    // nobody answers there: each driver is used as far as that
    for (String kind : List.of("postgresql", "mariadb")) {
      said("rehearse", plan, file, "--to", "jdbc:" + kind + "://127.0.0.1:1/berths");
    }
    load(PlanJson.class);
    for (Driver driver : DriverManager.drivers().toList()) {
      load(driver.getClass());
    }
    return Porter.DONE;
  }

  private static String berths() {
    StringBuilder rows = new StringBuilder("No,Name,Due,Paid,Since\n");
    for (int i = 1; i <= ROWS; i++) {
      rows.append(i)
          .append(",\"Berth \"\"" + i + "\"\", and so on\",")
          .append(i + ".50 EUR," + (i % 3 == 0 ? "yes," : "no,"))
          .append(String.format(Locale.ROOT, "%02d.10.2026\n", i % 28 + 1));
    }
    return rows.toString();
  }

  private static void go(Object... words) {
    Said said = said(words);
    if (said.code != Porter.DONE) {
      throw new IllegalStateException(words[0] + " ended with " + said.code + ": " + said.text);
    }
  }

  private record Said(int code, String text) {}

  private static Said said(Object... words) {
    StringWriter said = new StringWriter();
    String[] args = List.of(words).stream().map(Object::toString).toArray(String[]::new);
    PrintWriter out = new PrintWriter(said);
    return new Said(Porter.execute(out, out, args), said.toString());
  }

  /**
   * All that comes with a class, such as a driver: what is made for a database that is not here is
   * not used here.
   */
  private static void load(Class<?> one) throws IOException, URISyntaxException {
    Path file = Path.of(one.getProtectionDomain().getCodeSource().getLocation().toURI());
    if (one.getName().startsWith("org.h2.") || !Files.isRegularFile(file)) {
      return;
    }
    try (JarFile jar = new JarFile(file.toFile())) {
      jar.stream()
          .map(entry -> entry.getName())
          .filter(name -> name.endsWith(".class") && !name.startsWith("META-INF/"))
          .forEach(name -> load(name, one.getClassLoader()));
    }
  }

  private static void load(String name, ClassLoader loader) {
    try {
      Class.forName(
          name.substring(0, name.length() - ".class".length()).replace('/', '.'), false, loader);
    } catch (ClassNotFoundException | LinkageError e) {
      // it needs something that we don't use
    }
  }
}
