package org.zestyporter.core.step;

import java.util.Set;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.ValueReader;
import org.zestyporter.core.value.Values;

/** Reads a text as yes or no. */
final class ReadBoolean extends Operation {

  ReadBoolean() {
    super(
        Group.READ,
        "Read as yes or no",
        "yes, y, true, 1, x or no, n, false, 0; or your own words parted by |",
        Setting.text("yes").open(),
        Setting.text("no").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    Set<String> yes = Choices.of(step.setting("yes"));
    Set<String> no = Choices.of(step.setting("no"));
    return (value, row) -> {
      if (value instanceof Boolean) {
        return value;
      }
      String text = Values.text(value);
      String word = Choices.prepare(text);
      return yes.contains(word) || no.contains(word)
          ? (Object) yes.contains(word)
          : ValueReader.truth(text);
    };
  }
}
