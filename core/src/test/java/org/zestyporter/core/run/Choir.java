package org.zestyporter.core.run;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.Policies;
import org.zestyporter.core.plan.Policies.OnMatch;
import org.zestyporter.core.plan.Policies.OnNone;
import org.zestyporter.core.plan.Policies.OnRepeat;
import org.zestyporter.core.plan.Policies.OnSeveral;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Comparison.Ignore;

/** The members of a choir: their table, a plan for it, and what stands there before. */
final class Choir {
  static final MatchKey BY_NUMBER = new MatchKey(List.of("nummer"), List.of(Ignore.LEADING_ZEROS));
  static final MatchKey BY_NAME =
      new MatchKey(
          List.of("nachname", "geboren"),
          List.of(),
          Map.of("nachname", List.of(Ignore.CASE, Ignore.ACCENTS)));

  private Choir() {}

  static void schema(Databases.Fresh on) throws SQLException {
    on.execute(
        "CREATE TABLE mitglied (id INTEGER PRIMARY KEY, nummer VARCHAR(8), nachname VARCHAR(40),"
            + " geboren DATE, stimme VARCHAR(10), beitrag NUMERIC(8,2), ort VARCHAR(20),"
            + " ausgetreten INTEGER DEFAULT 0 NOT NULL, eintritt DATE)");
    fill(on);
  }

  static void fill(Databases.Fresh on) throws SQLException {
    on.execute("DELETE FROM mitglied");
    String into =
        "INSERT INTO mitglied (id, nummer, nachname, geboren, stimme, beitrag, ort, ausgetreten,"
            + " eintritt) VALUES ";
    on.execute(
        into + "(1, '7', 'Adler', '1980-01-02', NULL, 50, NULL, 0, '2001-01-01')",
        into + "(2, '8', 'Ozdemir', '1975-05-05', 'Bass', 55, 'Bonn', 0, '2002-01-01')",
        into + "(3, '9', 'Brandt', '1990-09-09', 'Bass', 10, NULL, 0, '2003-01-01')",
        into + "(4, '10', 'Brandt', '1990-09-09', NULL, 20, 'Köln', 0, '2004-01-01')",
        into + "(5, '11', 'brandt', '1990-09-09', NULL, 30, NULL, 1, '2005-01-01')");
  }

  static Destination members(Policies policies) {
    List<Fill> fills =
        List.of(
            Fill.of(
                    "id",
                    Origin.generated(Origin.Generator.LINE),
                    Step.of(StepKind.ADD, "number", "100"))
                .forNewOnly(),
            Fill.of("nummer", Origin.column("Nr")).forNewOnly(),
            Fill.of("nachname", Origin.column("Nachname")).forNewOnly(),
            Fill.of("geboren", Origin.column("Geboren"), Step.of(StepKind.READ_DATE)),
            Fill.of("stimme", Origin.column("Stimme")),
            Fill.of("beitrag", Origin.column("Beitrag"), Step.of(StepKind.READ_NUMBER)),
            Fill.of("ort", Origin.column("Ort")));
    return new Destination("mitglied", fills, List.of(BY_NUMBER, BY_NAME), policies);
  }

  static Destination members(
      OnMatch onMatch, OnNone onNone, OnSeveral onSeveral, OnRepeat onRepeat) {
    return members(new Policies(onMatch, onNone, onSeveral, onRepeat, "eintritt"));
  }

  static RunReport go(
      Databases.Fresh on,
      Path folder,
      Destination destination,
      Ledger ledger,
      boolean run,
      String... rows)
      throws IOException {
    Plan plan = new Plan("Chor", null, Reading.FIND, List.of(destination), null);
    return Runs.go(on, folder, plan, List.of(rows), ledger, run);
  }

  static String text(Databases.Fresh on, String field, String where) throws SQLException {
    return String.valueOf(on.one("SELECT " + field + " FROM mitglied WHERE " + where));
  }
}
