package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * Lists of values of one type as values of fields, written as PostgreSQL writes arrays: {@code
 * {plain,"with, comma",NULL}}.
 *
 * <p>Read in that form, as a JSON array (RFC 8259), or as values with {@code ;} between them, or
 * commas where there is none.
 */
final class ListTexts {
  private static final String NONE = "NULL";

  private ListTexts() {}

  /**
   * A list as it is kept.
   *
   * @param element how each of its values is kept
   * @return the text, or a {@link Problem}
   */
  static Object canonical(String text, Storage element) {
    String bare = text.strip();
    List<@Nullable String> values;
    if (bare.startsWith("{")) {
      values = braced(bare);
    } else if (bare.startsWith("[")) {
      values = JsonTexts.values(bare);
    } else {
      values = parted(bare);
    }
    if (values == null) {
      return problem(text, "no list of values, such as a; b; c");
    }
    StringBuilder out = new StringBuilder("{");
    for (String value : values) {
      out.append(out.length() == 1 ? "" : ",");
      if (value == null) {
        out.append(NONE);
        continue;
      }
      Object kept = kept(value, element);
      if (kept instanceof Problem problem) {
        return problem(text, "“" + value + "” in it is " + problem.reason());
      }
      out.append(quoted((String) kept));
    }
    return out.append('}').toString();
  }

  private static Problem problem(String text, String reason) {
    return new Problem(ProblemCode.MALFORMED, text, reason);
  }

  private static Object kept(String value, Storage element) {
    switch (element.kind()) {
      case NUMBER -> {
        Object number = element.canonical(value.strip());
        return number instanceof BigDecimal n ? n.toPlainString() : problem(value, "no number");
      }
      case BOOLEAN -> {
        return switch (value.strip().toLowerCase(Locale.ROOT)) {
          case "t", "true" -> "t";
          case "f", "false" -> "f";
          default -> problem(value, "neither true nor false");
        };
      }
      case DATE -> {
        return value.strip().matches("\\d{4}-\\d\\d-\\d\\d")
            ? value.strip()
            : problem(value, "no date, such as 2026-03-31");
      }
      default -> {
        return element.stored(value);
      }
    }
  }

  private static String quoted(String value) {
    boolean isPlain =
        !value.isEmpty()
            && !value.equalsIgnoreCase(NONE)
            && value.chars().noneMatch(c -> c <= ' ' || "{}\",\\".indexOf(c) >= 0);
    return isPlain ? value : '"' + value.replace("\\", "\\\\").replace("\"", "\\\"") + '"';
  }

  private static List<String> parted(String text) {
    List<String> values = new ArrayList<>();
    for (String part : text.split(text.contains(";") ? ";" : ",", -1)) {
      values.add(part.strip());
    }
    return values;
  }

  /** Null if it is no list, or one of lists. */
  private static @Nullable List<@Nullable String> braced(String text) {
    List<@Nullable String> values = new ArrayList<>();
    StringBuilder value = new StringBuilder();
    boolean isQuoted = false;
    boolean wasQuoted = false;
    for (int i = 1; i < text.length(); i++) {
      char c = text.charAt(i);
      if (c == '\\' && i + 1 < text.length() - 1) {
        value.append(text.charAt(++i));
      } else if (c == '"') {
        isQuoted = !isQuoted;
        wasQuoted = true;
      } else if (isQuoted) {
        value.append(c);
      } else if (c == ',' || c == '}') {
        String bare = wasQuoted ? value.toString() : value.toString().strip();
        boolean isEmptyList = c == '}' && values.isEmpty() && bare.isEmpty() && !wasQuoted;
        if (!isEmptyList) {
          values.add(!wasQuoted && bare.equalsIgnoreCase(NONE) ? null : bare);
        }
        if (c == '}') {
          return i == text.length() - 1 ? values : null;
        }
        value.setLength(0);
        wasQuoted = false;
      } else if (c == '{') {
        return null;
      } else {
        value.append(c);
      }
    }
    return null;
  }
}
