package org.zestyporter.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.source.reading.Reading;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
    name = "look",
    description = "Shows how a file is read, and why.",
    mixinStandardHelpOptions = true)
final class LookCommand implements Callable<Integer> {
  @Spec CommandSpec spec;

  @Parameters(paramLabel = "FILE")
  Path file;

  @Option(names = "--sheet", description = "the sheet to read")
  String sheet;

  @Option(names = "--reading", description = "a JSON file with a plan's reading")
  Path reading;

  @Option(names = "--rows", defaultValue = "20", description = "how many rows to show")
  int rows;

  @Option(names = "--json", description = "print one JSON document")
  boolean json;

  @Override
  public Integer call() throws IOException {
    Reading wanted =
        reading == null ? Reading.FIND : PlanJson.readReading(Files.readString(reading));
    if (sheet != null) {
      wanted = wanted.withSheet(sheet);
    }
    try (OpenedFile opened = OpenedFile.open(file, wanted)) {
      LookReport report =
          LookReport.of(file.getFileName().toString(), opened.table(), Math.max(0, rows));
      PrintWriter out = spec.commandLine().getOut();
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
