package org.zestyporter.server.plan;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.preview.StageTable;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** Which words of a file were translated by phrasebooks. */
final class PhraseUse {
  private PhraseUse() {}

  /** Rows by word, for each phrasebook that a plan's steps use. */
  static Map<String, Map<String, Long>> count(PlanService.Opened opened, String who) {
    Map<String, Map<String, Long>> uses = new HashMap<>();
    OpenedPlan plan = opened.now(who);
    for (Destination destination : opened.plan().destinations()) {
      List<Fill> translating =
          destination.fills().stream()
              .filter(f -> f.steps().stream().anyMatch(PhraseUse::translates))
              .toList();
      if (translating.isEmpty()) {
        continue;
      }
      for (CompiledFill fill : plan.fills(destination.withFills(translating))) {
        count(StageTable.of(fill, opened.rows(), 0, Integer.MAX_VALUE), fill.fill(), uses);
      }
    }
    return uses;
  }

  private static boolean translates(Step step) {
    return step.kind() == StepKind.TRANSLATE && !step.off();
  }

  private static void count(StageTable stages, Fill fill, Map<String, Map<String, Long>> uses) {
    for (int i = 0; i < fill.steps().size(); i++) {
      Step step = fill.steps().get(i);
      if (!translates(step)) {
        continue;
      }
      Map<String, Long> words = uses.computeIfAbsent(step.setting("book"), b -> new HashMap<>());
      for (StageTable.Row row : stages.rows()) {
        String before = i == 0 ? row.trace().origin() : row.trace().steps().get(i - 1);
        if (before != null && !Objects.equals(before, row.trace().steps().get(i))) {
          words.merge(before, row.rows(), Long::sum);
        }
      }
    }
  }
}
