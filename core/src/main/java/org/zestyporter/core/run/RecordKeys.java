package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.value.Values;

/**
 * Primary keys of several records as one text: {@code 12; 57}, and {@code A|1; A|2} with parts. Of
 * very many records the first are named.
 */
public final class RecordKeys {
  /** So many are named; of this many there may be more. */
  public static final int MOST = 50;

  private RecordKeys() {}

  static String text(List<List<Object>> keys) {
    StringBuilder text = new StringBuilder();
    for (List<Object> key : keys.subList(0, Math.min(MOST, keys.size()))) {
      text.append(text.isEmpty() ? "" : "; ");
      for (int i = 0; i < key.size(); i++) {
        String part = String.valueOf(Values.text(key.get(i)));
        text.append(i == 0 ? "" : "|").append(part.replaceAll("[\\\\|;]", "\\\\$0"));
      }
    }
    return text.toString();
  }

  /** The parts of each key, as texts. */
  public static List<List<String>> of(String text) {
    List<List<String>> keys = new ArrayList<>();
    List<String> key = new ArrayList<>();
    StringBuilder part = new StringBuilder();
    for (int at = 0; at <= text.length(); at++) {
      char c = at == text.length() ? ';' : text.charAt(at);
      if (c == '\\' && at + 1 < text.length()) {
        part.append(text.charAt(++at));
      } else if (c == '|' || c == ';') {
        key.add(part.toString());
        part.setLength(0);
        if (c == ';') {
          keys.add(List.copyOf(key));
          key.clear();
          at++; // and the space behind it
        }
      } else {
        part.append(c);
      }
    }
    return keys;
  }
}
