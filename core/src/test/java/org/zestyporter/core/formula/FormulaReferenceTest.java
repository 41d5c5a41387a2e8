package org.zestyporter.core.formula;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/**
 * The reference in {@code docs/formulas.md} says what the functions say. It is written anew with
 * {@code -Dporter.write=true}.
 */
class FormulaReferenceTest {
  private static final Path PAGE = Path.of("../docs/formulas.md");
  private static final Path INTRODUCTION = Path.of("src/test/resources/formulas-introduction.md");

  @Test
  void thePageIsTheFunctions() throws IOException {
    String page = page();
    if (Boolean.getBoolean("porter.write")) {
      Files.writeString(PAGE, page);
    }
    assertThat(Files.readString(PAGE)).isEqualTo(page);
  }

  private static String page() throws IOException {
    StringBuilder page = new StringBuilder(Files.readString(INTRODUCTION));
    page.append("\n## The row of the examples\n| column | cell |\n|---|---|\n");
    for (Map.Entry<String, String> cell : Functions.SAMPLE.entrySet()) {
      page.append("| `").append(cell.getKey()).append("` | ").append(code(cell.getValue()));
      page.append(" |\n");
    }
    for (Function.Group group : Function.Group.values()) {
      page.append("\n## ").append(group.title()).append('\n');
      page.append("| function | what it gives | example |\n|---|---|---|\n");
      Functions.all().stream().filter(f -> f.group() == group).forEach(f -> page.append(line(f)));
    }
    return page.toString();
  }

  private static String line(Function function) {
    String examples =
        function.examples().stream()
            .map(e -> code(e.formula()) + " → " + code(e.gives()))
            .collect(Collectors.joining("<br>"));
    String name = "`" + function.name() + "(" + function.signature() + ")`";
    String ours = function.ours() ? " *" : "";
    return "| " + name + ours + " | " + function.says() + " | " + examples + " |\n";
  }

  private static String code(String text) {
    return text == null || text.isEmpty() ? "blank" : "`" + text.replace("|", "\\|") + "`";
  }
}
