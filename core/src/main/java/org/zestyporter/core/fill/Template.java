package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.List;
import java.util.function.ToIntFunction;
import org.zestyporter.core.plan.Templates;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.Values;

/**
 * Columns joined by texts: {@code [First name] [Last name]}.
 *
 * <p>A text between two columns stands only if there is something on both sides of it, so that a
 * blank column leaves no stray comma; of the texts on both sides of a blank column the later
 * stands.
 */
final class Template {
  private record Part(String text, int column) {}

  private final List<Part> parts = new ArrayList<>();

  /**
   * @param template columns in brackets, {@code ]} in their names doubled; all else is text
   * @param find index of a column by its name; under 0 if there is none
   */
  Template(String template, ToIntFunction<String> find) {
    for (Templates.Part part : Templates.parts(template)) {
      int column = part.column() ? find.applyAsInt(part.text()) : -1;
      if (part.column() && column < 0) {
        throw ErrorCode.NO_SUCH_COLUMN.error(
            "The file has no column “" + part.text() + "”, which the template joins.");
      }
      parts.add(new Part(part.column() ? null : part.text(), column));
    }
  }

  List<Integer> columns() {
    return parts.stream().map(Part::column).filter(c -> c >= 0).distinct().toList();
  }

  Object apply(Row row) {
    StringBuilder joined = new StringBuilder();
    String between = "";
    boolean any = false;
    boolean blankBefore = false;
    for (Part part : parts) {
      if (part.text() != null) {
        // behind a blank column its closing bracket has nothing to close
        between = blankBefore ? part.text().replaceFirst("^[)\\]}»”]+", "") : part.text();
        continue;
      }
      Object value = row.column(part.column());
      if (value instanceof Problem) {
        return value;
      }
      String text = value == null ? "" : Texts.trim(Values.text(value));
      if (text.isEmpty()) {
        blankBefore = true;
        continue;
      }
      joined.append(any || !blankBefore ? between : "").append(text);
      between = "";
      any = true;
      blankBefore = false;
    }
    if (!any) {
      return null;
    }
    return blankBefore ? joined.toString() : joined.append(between).toString();
  }
}
