package org.zestyporter.cli;

import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;
import picocli.CommandLine.Command;

@Command(
    name = "rehearse",
    description = "Goes through every row and writes nothing.",
    mixinStandardHelpOptions = true)
final class RehearseCommand extends PlanCommand {
  @Override
  RunReport go(Pipeline pipeline, Ledger ledger, Progress progress) {
    return pipeline.rehearse(ledger, progress);
  }
}
