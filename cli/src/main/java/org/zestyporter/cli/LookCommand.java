package org.zestyporter.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.source.reading.Reading;

final class LookCommand extends Command {
  private Path file;
  private String sheet;
  private Path reading;
  private int rows = 20;
  private boolean json;

  LookCommand() {
    super("look", "Shows how a file is read, and why.");
    parameter("FILE", word -> file = path(word));
    option("sheet", "S", "the sheet to read", word -> sheet = word);
    option("reading", "R.json", "a plan's reading", word -> reading = path(word));
    option("rows", "N", "how many rows to show (20)", word -> rows = number(word));
    option("json", "print one JSON document", () -> json = true);
  }

  @Override
  int call() throws IOException {
    Reading wanted =
        reading == null ? Reading.FIND : PlanJson.readReading(Files.readString(reading));
    if (sheet != null) {
      wanted = wanted.withSheet(sheet);
    }
    try (OpenedFile opened = OpenedFile.open(file, wanted)) {
      LookReport report =
          LookReport.of(file.getFileName().toString(), opened.table(), Math.max(0, rows));
      if (json) {
        Json.print(out, report);
      } else {
        people(report, out);
      }
      return Porter.DONE;
    }
  }

  private static void people(LookReport report, PrintWriter out) {
    out.printf("%s: %s, %,d rows%n", report.file(), report.format().word(), report.rowCount());
    report
        .evidence()
        .forEach(
            e ->
                out.printf(
                    "  %-10s %s (%s)%n", e.setting(), e.value().replace("\t", "tab"), e.because()));
    out.printf("%n%-28s %-9s %8s %9s%n", "column", "type", "blank", "distinct");
    for (LookReport.Column c : report.columns()) {
      String distinct = "%,d%s".formatted(c.distinct(), c.distinctCapped() ? "+" : "");
      out.printf("%-28s %-9s %,8d %9s%n", c.name(), c.type().word(), c.blank(), distinct);
    }
    report
        .warnings()
        .forEach(
            w ->
                out.printf(
                    "! %s%s%n",
                    w.row() > 0 && w.column() == null ? "line " + w.row() + ": " : "",
                    w.message()));
    out.flush();
  }
}
