package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.zestyporter.core.formula.Names;

/** Replaces a text inside the value. */
final class ReplaceWords extends Operation {

  ReplaceWords() {
    super(
        Group.WORDS,
        "Replace inside",
        "a text inside the value wherever it stands, ignoring capitals",
        Setting.text("from"),
        Setting.text("to").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    Pattern from =
        Pattern.compile(
            Pattern.quote(step.setting("from")), Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE);
    String to = Matcher.quoteReplacement(step.setting("to", ""));
    return StepFunction.onShown(s -> from.matcher(s).replaceAll(to));
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    String first = occasion.first("x");
    return Stream.of(occasion.commonBeginning(), occasion.commonEnd(), first)
        .filter(text -> !text.isEmpty())
        .map(text -> Map.of("from", text, "to", text.equals(first) ? text : ""))
        .toList();
  }
}
