package org.zestyporter.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.zestyporter.core.database.Database;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanDraft;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.source.Reading;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
    name = "draft",
    description = "Proposes a plan for a file and a table.",
    mixinStandardHelpOptions = true)
final class DraftCommand implements Callable<Integer> {
  @Spec CommandSpec spec;

  @Parameters(paramLabel = "FILE")
  Path file;

  @Option(names = "--to", required = true, paramLabel = "URL", description = "JDBC address")
  String to;

  @Option(names = "--table", required = true, paramLabel = "T")
  String table;

  @Option(names = "--out", paramLabel = "PLAN.json", description = "where to write the plan")
  Path outFile;

  @Option(names = "--json", description = "print the plan")
  boolean json;

  @Override
  public Integer call() throws IOException {
    Database database = Target.open(to, System.getenv());
    try (OpenedFile opened = OpenedFile.open(file, Reading.FIND)) {
      PlanDraft.Proposal proposal =
          new PlanDraft(database, opened.table()).draft(database.table(table));
      String name = file.getFileName().toString().replaceFirst("\\.[^.]+$", "");
      Plan plan = new Plan(name, null, Reading.FIND, List.of(proposal.destination()), null);
      PrintWriter out = spec.commandLine().getOut();
      if (outFile != null) {
        Files.writeString(outFile, PlanJson.write(plan) + "\n");
      }
      if (json) {
        out.println(PlanJson.write(plan));
      } else {
        for (PlanDraft.FillEvidence e : proposal.evidence()) {
          out.printf(
              "%-20s %-24s %s%n", e.field(), e.column() == null ? "-" : e.column(), e.because());
        }
      }
      out.flush();
      return Porter.DONE;
    }
  }
}
