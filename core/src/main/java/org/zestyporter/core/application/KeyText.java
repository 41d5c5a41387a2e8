package org.zestyporter.core.application;

import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.value.Values;

/**
 * A primary key as one text: the value itself, or several parts joined by a comma: {@code 12},
 * {@code A,1}. In a key of several parts a backslash stands before a comma or backslash of a part.
 */
public final class KeyText {
  private KeyText() {}

  public static String of(List<?> parts) {
    if (parts.size() == 1) {
      return String.valueOf(Values.text(parts.get(0)));
    }
    StringBuilder text = new StringBuilder();
    for (Object part : parts) {
      text.append(text.isEmpty() ? "" : ",")
          .append(String.valueOf(Values.text(part)).replaceAll("[\\\\,]", "\\\\$0"));
    }
    return text.toString();
  }

  /**
   * @param of how many parts the key has
   * @return its parts; more or fewer than asked for if the text can be no such key
   */
  static List<String> parts(String text, int of) {
    if (of == 1) {
      return List.of(text);
    }
    List<String> parts = new ArrayList<>();
    StringBuilder part = new StringBuilder();
    for (int at = 0; at < text.length(); at++) {
      char c = text.charAt(at);
      if (c == ',') {
        parts.add(part.toString());
        part.setLength(0);
      } else {
        part.append(c == '\\' && at + 1 < text.length() ? text.charAt(++at) : c);
      }
    }
    parts.add(part.toString());
    return parts;
  }
}
