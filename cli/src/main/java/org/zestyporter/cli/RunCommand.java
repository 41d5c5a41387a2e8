package org.zestyporter.cli;

import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;
import picocli.CommandLine.Command;

@Command(
    name = "run",
    description = "Brings every row in; all or nothing.",
    mixinStandardHelpOptions = true)
final class RunCommand extends PlanCommand {
  @Override
  RunReport go(Pipeline pipeline, Ledger ledger, Progress progress) {
    return pipeline.run("command-line", ledger, progress);
  }
}
