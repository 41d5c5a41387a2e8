package org.zestyporter.core.step;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Patterns;

/** Takes the first part that is of a pattern. */
final class TakePattern extends Operation {

  TakePattern() {
    super(
        Group.PARTS,
        "Take by pattern",
        "the first part that is of a pattern, or its first group",
        Setting.pattern("pattern"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    Pattern pattern = Patterns.compile(step.setting("pattern"));
    return StepFunction.onShown(
        s -> {
          Matcher matcher = pattern.matcher(s);
          if (!matcher.find()) {
            return "";
          }
          String found = pattern.groupCount() > 0 ? matcher.group(1) : matcher.group();
          return found == null ? "" : found;
        });
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    // the first number, or the first word of letters and digits
    boolean number = occasion.field().type().isNumber();
    return List.of(Map.of("pattern", number ? "-?\\d+(?:[.,]\\d+)?" : "[\\p{L}\\p{M}\\p{N}]+"));
  }
}
