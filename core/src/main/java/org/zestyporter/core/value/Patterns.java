package org.zestyporter.core.value;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;

/**
 * Patterns that people write, in the syntax of RE2: matching takes time in proportion to the text,
 * whatever the pattern. Compiling takes memory in proportion to the pattern once its repetitions
 * are written out, so that is bounded before.
 */
public final class Patterns {
  private static final int LONGEST = 2_000;
  private static final long LARGEST = 20_000;
  private static final int KEPT = 200;

  private static final Cache<String, Pattern> KNOWN =
      Caffeine.newBuilder().maximumSize(KEPT).executor(Runnable::run).build();

  private Patterns() {}

  /**
   * Compiles a pattern.
   *
   * @throws PorterException in words, with code {@code pattern}
   */
  public static Pattern compile(String text) {
    return compile(text, 0);
  }

  /**
   * Compiles a pattern.
   *
   * @param flags of {@link Pattern}
   * @throws PorterException in words, with code {@code pattern}
   */
  public static Pattern compile(String text, int flags) {
    return KNOWN.get(
        flags + " " + text,
        key -> {
          String mistake = mistake(text);
          if (mistake != null) {
            throw ErrorCode.PATTERN.error("“" + shown(text) + "” can't be used: " + mistake + ".");
          }
          return Pattern.compile(text, flags);
        });
  }

  /** Why a pattern can't be used, without a full stop; null if it can. */
  public static String mistake(String text) {
    if (text.length() > LONGEST) {
      return "a pattern has at most 2,000 characters";
    }
    if (new Size(text).all() > LARGEST) {
      return "its repetitions, written out, are more than 20,000 characters long";
    }
    try {
      Pattern.compile(text);
      return null;
    } catch (PatternSyntaxException e) {
      return "it is no pattern (" + e.getDescription() + ")";
    }
  }

  private static String shown(String text) {
    return text.length() > 60 ? text.substring(0, 60) + "…" : text;
  }

  /**
   * How many characters a pattern has once repetitions such as {@code {3}} are written out. What is
   * no right pattern is measured all the same; the compiler refuses it afterwards.
   */
  private static final class Size {
    private final String text;
    private int at;

    Size(String text) {
      this.text = text;
    }

    long all() {
      long size = 0;
      while (at < text.length()) {
        size = plus(size, alternatives(0));
        // a parenthesis too many
        at++;
      }
      return size;
    }

    /** Up to the end of the group, or of the pattern. */
    private long alternatives(int depth) {
      long size = 0;
      while (at < text.length() && text.charAt(at) != ')') {
        long one = atom(depth);
        size = plus(size, Math.min(LARGEST + 1, one * Math.max(1, repeated())));
      }
      return size;
    }

    private long atom(int depth) {
      char c = text.charAt(at++);
      if (c == '\\') {
        at++;
        return 1;
      }
      if (c == '[') {
        // a bracket right after the opening one stands for itself
        at += at < text.length() && text.charAt(at) == '^' ? 2 : 1;
        while (at < text.length() && text.charAt(at) != ']') {
          at += text.charAt(at) == '\\' ? 2 : 1;
        }
        at++;
        return 1;
      }
      if (c != '(') {
        return 1;
      }
      if (depth > 200) {
        return LARGEST + 1;
      }
      long inside = alternatives(depth + 1);
      at++;
      return plus(inside, 1);
    }

    private long repeated() {
      int end = at < text.length() && text.charAt(at) == '{' ? text.indexOf('}', at) : -1;
      String inside = end < 0 ? "" : text.substring(at + 1, end);
      if (!inside.matches("\\d{1,9}(,\\d{0,9})?")) {
        return 1;
      }
      at = end + 1;
      String[] bounds = inside.split(",");
      long most = Long.parseLong(bounds[bounds.length - 1]);
      return Math.min(LARGEST + 1, most);
    }

    private static long plus(long a, long b) {
      return Math.min(LARGEST + 1, a + b);
    }
  }
}
