package org.zestyporter.core.step;

import java.util.regex.Pattern;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Texts;

/** Makes one space of several. */
final class CollapseSpaces extends Operation {
  private static final Pattern SPACES = Pattern.compile("[\\s\\u00A0\\u202F]+");

  CollapseSpaces() {
    super(Group.TIDY, "Collapse spaces", "makes one space of several");
  }

  @Override
  StepFunction compile(Step step, Names names) {
    return StepFunction.onText(s -> isCollapsed(s) ? s : SPACES.matcher(s).replaceAll(" "));
  }

  /** True if single plain spaces are all the space there is, as in most texts. */
  private static boolean isCollapsed(String text) {
    boolean space = false;
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (Texts.isSpace(c) && (c != ' ' || space)) {
        return false;
      }
      space = c == ' ';
    }
    return true;
  }
}
