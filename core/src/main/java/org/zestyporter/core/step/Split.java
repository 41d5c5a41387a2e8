package org.zestyporter.core.step;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Texts;

/** Parts a text at a sign and takes one of the parts. */
final class Split extends Operation {
  private static final List<String> SIGNS = List.of("/", ";", ",", " - ", "|", " ");

  Split() {
    super(
        Group.PARTS,
        "Split and take",
        "parts at a sign and takes the first, second… part",
        Setting.text("at"),
        Setting.count("which"));
  }

  @Override
  StepFunction compile(Step step, Names names) {
    Pattern at = Pattern.compile(Pattern.quote(step.setting("at")));
    int which = step.whole("which");
    return StepFunction.onText(
        s -> {
          String[] parts = at.split(s, -1);
          int index = which < 0 ? parts.length + which : which - 1;
          return which == 0 || index < 0 || index >= parts.length ? "" : Texts.trim(parts[index]);
        });
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    List<Map<String, String>> settings = new ArrayList<>();
    for (String sign : SIGNS) {
      if (occasion.holds(sign)) {
        settings.add(Map.of("at", sign, "which", "1"));
        settings.add(Map.of("at", sign, "which", "2"));
      }
    }
    return settings.isEmpty() ? List.of(Map.of("at", "/", "which", "1")) : settings;
  }
}
