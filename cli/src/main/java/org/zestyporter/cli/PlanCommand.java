package org.zestyporter.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;

/** What rehearse and run share: a plan, a file, a database, a ledger. */
abstract class PlanCommand extends Command {
  /** Words of one question, and records of one table, that people are told; the others count. */
  private static final int MOST_TOLD = 10;

  Path planFile;
  Path file;
  String to;
  private Path ledgerFile;
  private boolean rawCells;
  private boolean json;

  /** The plan, once it is read, with what the command line says otherwise. */
  Plan plan;

  PlanCommand(String name, String description) {
    super(name, description);
    parameter("PLAN.json", word -> planFile = path(word));
    parameter("FILE", word -> file = path(word));
    option("to", "URL", "JDBC address", word -> to = word);
    option("ledger", "OUT.csv", "where to write each row's fate", word -> ledgerFile = path(word));
    option(
        "raw-cells",
        "write cells of the ledger as they are, even if they begin like formulas",
        () -> rawCells = true);
    option("json", "print one JSON document", () -> json = true);
  }

  /**
   * Takes the rows through the plan.
   *
   * @param pipelines makes the pipeline of what generated values are made of
   */
  abstract RunReport go(
      Database database, Function<RunContext, Pipeline> pipelines, Ledger ledger, Progress progress)
      throws IOException;

  /** The plan with what the command line says otherwise. */
  Plan set(Plan read) {
    return read;
  }

  /** Where the file of the rejected rows is written; null if nobody wants it. */
  @Nullable Path returns() {
    return null;
  }

  /** What rows go through once their keys are known; a rehearsal writes nothing. */
  String doing() {
    return "deciding";
  }

  /** Tells people what else there is to say. */
  void tell(RunReport report, PrintWriter out) {
    // a rehearsal says it all in its books
  }

  @Override
  int call() throws IOException {
    if (!Files.isRegularFile(planFile)) {
      throw new NoSuchFileException(planFile.toString());
    }
    plan = set(PlanJson.read(Files.readString(planFile)));
    if (!Files.isRegularFile(file)) {
      throw new NoSuchFileException(file.toString());
    }
    // a database that can't be reached is told before a large file is read
    Database database = Target.open(to, System.getenv());
    try (OpenedFile opened = OpenedFile.open(file, plan.reading());
        CsvLedger ledger = ledgerFile == null ? null : new CsvLedger(ledgerFile, rawCells)) {
      RejectedRows rejected = new RejectedRows(ledger == null ? Ledger.NONE : ledger, returns());
      OpenedPlan[] used = new OpenedPlan[1];
      RunReport report =
          go(
              database,
              context -> {
                used[0] = new OpenedPlan(database, opened.table(), plan, context, Shared.NONE);
                return new Pipeline(used[0]);
              },
              rejected,
              progress());
      rejected.write(used[0], "Run " + report.run());
      if (ledger != null) {
        ledger.close();
      }
      if (json) {
        Json.print(out, report);
      } else {
        people(report, out);
        tell(report, out);
        out.flush();
      }
      return report.clean() ? Porter.DONE : Porter.REJECTED;
    }
  }

  private Progress progress() {
    if (System.console() == null) {
      return Progress.NONE;
    }
    return (phase, rows, total) -> {
      if (phase == Progress.Phase.WAITING) {
        System.err.print("\rwaiting for another run into the same table ");
        return;
      }
      int done = (int) (30 * rows / Math.max(1, total));
      System.err.printf(
          "\r%-9s [%s%s] %,d of %,d rows ",
          phase == Progress.Phase.WRITING ? doing() : "matching",
          "#".repeat(done),
          ".".repeat(30 - done),
          rows,
          total);
      if (rows == total) {
        System.err.println();
      }
    };
  }

  private static void people(RunReport report, PrintWriter out) {
    out.printf("%s, %s: %,d rows read%n", report.plan(), report.source(), report.read());
    for (RunReport.DestinationReport d : report.destinations()) {
      out.printf(
          "%s: %,d new, %,d changed, %,d unchanged, %,d skipped, %,d rejected%n",
          d.table(), d.added(), d.changed(), d.unchanged(), d.skipped(), d.rejected());
    }
    for (RunReport.MadeCount made : report.createdIn()) {
      report.created().stream()
          .filter(m -> m.table().equals(made.table()))
          .limit(MOST_TOLD)
          .forEach(
              m -> out.printf("%s: “%s” is new, for line %d%n", m.table(), m.value(), m.row()));
      if (made.records() > MOST_TOLD) {
        out.printf("%s: %,d more are new%n", made.table(), made.records() - MOST_TOLD);
      }
    }
    boolean several = report.destinations().size() > 1;
    for (List<RunReport.Question> alike :
        together(report.questions(), q -> q.code() + " " + place(q, true))) {
      int told = Math.min(MOST_TOLD, alike.size());
      alike.subList(0, told).forEach(q -> question(q, several, out));
      List<RunReport.Question> others = alike.subList(told, alike.size());
      if (!others.isEmpty()) {
        out.printf(
            "%,8d %s: the same of %,d more values; --json tells them all%n",
            others.stream().mapToLong(RunReport.Question::rows).sum(),
            place(others.get(0), several),
            others.size());
      }
    }
    for (RunReport.ProblemGroup p : report.problems()) {
      out.printf(
          "%,8d %s%s%s%s (line %d)%n",
          p.rows(),
          several ? p.destination() + (p.field() == null ? ": " : ".") : "",
          p.field() == null ? "" : p.field() + ": ",
          p.sample().value().isEmpty() ? "" : "“" + p.sample().value() + "” ",
          p.reason(),
          p.sample().row());
    }
    for (RunReport.ControlTotal t : report.controlTotals()) {
      out.printf(
          "sum of %s%s: file %s, %stable %s%n",
          several ? t.destination() + "." : "",
          t.field(),
          t.source().toPlainString(),
          t.altered().signum() == 0
              ? ""
              : "changed by the application " + t.altered().toPlainString() + ", ",
          t.written().toPlainString());
    }
    out.println(report.balanced() ? "The books balance." : "The books do NOT balance.");
    out.flush();
  }

  /** Those that have something in common, in their order. */
  private static <T> Collection<List<T>> together(List<T> all, Function<T, String> by) {
    return all.stream()
        .collect(Collectors.groupingBy(by, LinkedHashMap::new, Collectors.toList()))
        .values();
  }

  private static void question(RunReport.Question q, boolean several, PrintWriter out) {
    String asked =
        switch (q.code()) {
          case SEVERAL_MATCHES -> "which of several records is meant?";
          case SIMILAR -> "is it the record that is much like it?";
          case SIMILAR_ROW -> "is it the same as the line that is much like it?";
          case FAR_OFF -> "is “" + q.value() + "” right, which is far from all others?";
          case AMBIGUOUS_DATES -> "does “" + q.value() + "” have the day or the month first?";
          case AMBIGUOUS_DECIMALS ->
              "does “" + q.value() + "” have its sign between thousands or before decimals?";
          case CONTRADICTED -> "which of the lines that say different things is right?";
          case NO_MATCH -> "no record has it, is it new?";
          case MATCHED -> "a record has it, is it the same?";
          case GUESS -> "a guess, is “" + q.value() + "” right for it?";
          default -> "what does “" + q.value() + "” mean?";
        };
    out.printf("%,8d %s: %s%n", q.rows(), place(q, several), asked);
  }

  private static String place(RunReport.Question q, boolean several) {
    return (several ? q.destination() + "." : "") + q.field();
  }
}
