package org.zestyporter.cli;

import java.time.LocalDateTime;
import java.util.function.Function;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;

final class RehearseCommand extends PlanCommand {
  RehearseCommand() {
    super("rehearse", "Goes through every row and writes nothing.");
  }

  @Override
  RunReport go(
      Database database,
      Function<RunContext, Pipeline> pipelines,
      Ledger ledger,
      Progress progress) {
    RunContext context =
        new RunContext(
            System.getProperty("user.name"), LocalDateTime.now(), file.getFileName().toString());
    return pipelines.apply(context).rehearse(ledger, progress);
  }
}
