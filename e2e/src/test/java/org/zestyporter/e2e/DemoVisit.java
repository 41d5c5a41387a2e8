package org.zestyporter.e2e;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.support.ui.Select;
import org.zestyporter.cli.Demo;

/** A visit to the demonstration with a browser; what comes first in a class is done first. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
@ExtendWith(StopAtFirstFailure.class)
abstract class DemoVisit {
  private static final Path PICTURES = Path.of("..", "docs", "screenshots");

  /** The pictures in docs are taken again only when asked for, by {@code ./porter pictures}. */
  private static final boolean WANTED = Boolean.getBoolean("porter.pictures");

  static final List<String> BARRIERS = new ArrayList<>();

  @TempDir static Path home;
  static Demo demo;
  static Browser browser;

  @BeforeAll
  static void start() throws IOException, SQLException {
    BARRIERS.clear();
    demo = Demo.start(home, 0);
    browser = new Browser();
  }

  @AfterAll
  static void stop() {
    if (browser != null) {
      browser.close();
    }
    if (demo != null) {
      demo.close();
    }
  }

  static void signIn(String password) {
    browser.find("input[name=name]").clear();
    browser.find("input[name=name]").sendKeys(Demo.NAME);
    browser.find("input[name=password]").sendKeys(password);
    browser.click("button", "Sign in");
  }

  /** Drops a file on the Desk. */
  static void drop(Path file) {
    browser.find("#file").sendKeys(file.toAbsolutePath().toString());
  }

  /** Drops a file on the Desk and makes a plan for a table of one's own choice. */
  static void plan(Path file, String table) {
    browser.click("a.place", "Desk");
    browser.sees("Quick start");
    drop(file);
    browser.find(".file b", file.getFileName().toString());
    another(table);
    browser.sees("Fields of " + table);
  }

  /** Takes another table for the file on the Desk, once the connection's tables are there. */
  static void another(String table) {
    browser.until(
        d -> {
          Select tables = new Select(browser.find("#other"));
          boolean isThere =
              tables.getOptions().stream().anyMatch(option -> option.getText().equals(table));
          if (isThere) {
            tables.selectByVisibleText(table);
          }
          return isThere;
        });
  }

  /** Takes the picture of a main view, and looks for barriers on it. */
  static void picture(String name) throws IOException {
    if (WANTED) {
      browser.picture(PICTURES.resolve(name + ".png"));
    }
    checked(name);
  }

  /** Looks for barriers on a view that has no picture of its own. */
  static void checked(String name) throws IOException {
    browser.barriers().forEach(barrier -> BARRIERS.add(name + ": " + barrier));
  }
}
