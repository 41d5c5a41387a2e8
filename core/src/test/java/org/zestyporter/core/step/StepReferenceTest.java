package org.zestyporter.core.step;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/**
 * The reference in {@code docs/steps.md} says what the steps say. It is written anew with {@code
 * -Dporter.write=true}.
 */
class StepReferenceTest {
  private static final Path PAGE = Path.of("../docs/steps.md");

  @Test
  void thePageIsTheSteps() throws IOException {
    StringBuilder page =
        new StringBuilder(
            """
            # Steps
            What a fill can do with a value on its way to the field. Each step takes the value that the step before it gave. A blank passes through all but those that are for blanks; a step that can't take a value stops the row there and says why. In the plan a step is `{"kind": "…", "with": {"setting": "…"}}`; settings in brackets may be left out.
            """);
    for (Group group : Group.values()) {
      page.append("\n## ")
          .append(title(group))
          .append("\n| step | kind | what it does | settings |\n");
      page.append("|---|---|---|---|\n");
      for (StepKind kind : StepKind.values()) {
        if (kind.group() == group) {
          page.append("| ").append(kind.title()).append(" | `").append(kind.word());
          page.append("` | ").append(escape(kind.help())).append(" | ");
          page.append(settings(kind.settings())).append(" |\n");
        }
      }
    }
    if (Boolean.getBoolean("porter.write")) {
      Files.writeString(PAGE, page);
    }
    assertThat(Files.readString(PAGE)).isEqualTo(page.toString());
  }

  private static String title(Group group) {
    return switch (group) {
      case TIDY -> "Tidy up";
      case PARTS -> "Take a part";
      case WORDS -> "Other words";
      case BLANKS -> "Blanks and other columns";
      case READ -> "Read as a type";
      case COMPUTE -> "Compute and write";
      case KNOWN -> "What the world has agreed on, and formulas";
    };
  }

  private static String settings(List<Setting> settings) {
    return settings.stream()
        .map(
            s -> {
              String said =
                  "`" + s.name() + "`: " + (s.choices().isEmpty() ? s.type() : choices(s));
              return s.required() ? said : "[" + said + "]";
            })
        .collect(Collectors.joining("; "));
  }

  private static String choices(Setting setting) {
    return setting.choices().stream().map(c -> "`" + c + "`").collect(Collectors.joining(" "));
  }

  private static String escape(String text) {
    return text.replace("|", "\\|");
  }
}
