package org.zestyporter.core.plan;

import java.util.ArrayList;
import java.util.List;

/** Parses templates: columns in brackets, {@code ]} in their names doubled, with texts between. */
public final class Templates {
  private Templates() {}

  /**
   * A part of a template.
   *
   * @param text a text, or the name of a column
   */
  public record Part(String text, boolean column) {}

  /** Names of the columns in a template. */
  public static List<String> columns(String template) {
    return parts(template).stream().filter(Part::column).map(Part::text).distinct().toList();
  }

  /** The parts of a template, in order. */
  public static List<Part> parts(String template) {
    List<Part> parts = new ArrayList<>();
    StringBuilder text = new StringBuilder();
    int at = 0;
    while (at < template.length()) {
      int end = template.charAt(at) == '[' ? end(template, at) : -1;
      if (end < 0) {
        text.append(template.charAt(at++));
        continue;
      }
      if (!text.isEmpty()) {
        parts.add(new Part(text.toString(), false));
        text.setLength(0);
      }
      parts.add(new Part(template.substring(at + 1, end).replace("]]", "]"), true));
      at = end + 1;
    }
    if (!text.isEmpty()) {
      parts.add(new Part(text.toString(), false));
    }
    return parts;
  }

  /** Where the name that begins at a bracket ends; under 0 if it never does. */
  private static int end(String template, int from) {
    for (int at = from + 1; at < template.length(); at++) {
      if (template.charAt(at) == ']') {
        if (at + 1 < template.length() && template.charAt(at + 1) == ']') {
          at++;
        } else {
          return at;
        }
      }
    }
    return -1;
  }
}
