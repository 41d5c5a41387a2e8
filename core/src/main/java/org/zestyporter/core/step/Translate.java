package org.zestyporter.core.step;

import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/** Takes the word that a phrasebook has for the value. */
final class Translate extends Operation {

  Translate() {
    super(
        Group.WORDS,
        "By phrasebook",
        "the source’s words to the application’s",
        Setting.book("book"),
        Setting.choice("otherwise", "keep", "ask", "reject", "blank").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    String book = step.setting("book");
    UnaryOperator<String> words = names.phrasebook(book);
    if (words == null) {
      throw ErrorCode.NO_SUCH_PHRASEBOOK.error("There is no phrasebook “" + book + "”.");
    }
    String otherwise = step.setting("otherwise", "keep");
    return (value, row) -> {
      String text = Values.text(value);
      String found = words.apply(text);
      if (found != null) {
        return found.isEmpty() ? null : found;
      }
      return switch (otherwise) {
        case "blank" -> null;
        case "ask" -> missing(ProblemCode.UNKNOWN_WORD, text, book);
        case "reject" -> missing(ProblemCode.NOT_AVAILABLE, text, book);
        default -> value;
      };
    };
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return each("book", occasion.books());
  }

  private static Problem missing(ProblemCode code, String text, String book) {
    return new Problem(code, text, "the phrasebook “" + book + "” has no word for it");
  }
}
