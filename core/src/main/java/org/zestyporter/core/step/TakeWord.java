package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Texts;

/** Takes one of the words. */
final class TakeWord extends Operation {

  TakeWord() {
    super(
        Group.PARTS,
        "Take a word",
        "the first, second… or, with -1, the last",
        Setting.count("which"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    int which = step.whole("which");
    return StepFunction.onText(s -> Texts.word(s, which));
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return each("which", List.of("1", "-1", "2"));
  }
}
