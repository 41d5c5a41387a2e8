package org.zestyporter.core.value;

import com.fasterxml.jackson.annotation.JsonValue;
import java.math.BigDecimal;
import java.text.Normalizer;
import java.util.Collection;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;

/**
 * What is ignored when two values are compared, as the match keys and links of a plan say.
 *
 * <pre>{@code
 * Comparison.ignoring(Set.of(CASE, SPACES, PUNCTUATION)).prepare("qh 0566"); // "qh0566"
 * }</pre>
 */
public final class Comparison {

  /** One thing that may be ignored. */
  public enum Ignore {
    CASE,
    SPACES,
    PUNCTUATION,
    ACCENTS,
    LEADING_ZEROS;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  private final Set<Ignore> ignored;

  private Comparison(Set<Ignore> ignored) {
    this.ignored = ignored;
  }

  public static Comparison ignoring(Collection<Ignore> ignored) {
    Set<Ignore> set = EnumSet.noneOf(Ignore.class);
    if (ignored != null) {
      set.addAll(ignored);
    }
    return new Comparison(set);
  }

  /** True if anything is ignored. */
  public boolean isLoose() {
    return !ignored.isEmpty();
  }

  /**
   * The form in which values are compared; null for null. Numbers compare by value, whatever their
   * scale.
   */
  public String prepare(Object value) {
    if (value == null) {
      return null;
    }
    if (value instanceof BigDecimal number) {
      return Values.plain(number);
    }
    String text = value.toString();
    if (ignored.isEmpty()) {
      return text;
    }
    if (ignored.contains(Ignore.ACCENTS)) {
      text = Normalizer.normalize(text, Normalizer.Form.NFD).replaceAll("\\p{M}+", "");
    }
    if (ignored.contains(Ignore.CASE)) {
      text = text.toLowerCase(Locale.ROOT);
    }
    return ignored.contains(Ignore.LEADING_ZEROS) ? dropZeros(filtered(text)) : filtered(text);
  }

  /**
   * Writes the form in which a text of plain ASCII is compared, as {@link #prepare} would give it.
   *
   * @return false if it is not plain, or zeros are ignored, so that nothing is written
   */
  public boolean prepare(byte[] bytes, int from, int to, Utf8 out) {
    if (ignored.contains(Ignore.LEADING_ZEROS)) {
      return false;
    }
    boolean lower = ignored.contains(Ignore.CASE);
    boolean spaces = ignored.contains(Ignore.SPACES);
    boolean marks = ignored.contains(Ignore.PUNCTUATION);
    for (int at = from; at < to; at++) {
      if (bytes[at] < ' ') {
        return false;
      }
    }
    for (int at = from; at < to; at++) {
      byte b = bytes[at];
      boolean letter = b >= 'a' && b <= 'z' || b >= 'A' && b <= 'Z' || b >= '0' && b <= '9';
      if (b == ' ' ? !spaces : letter || !marks) {
        out.put(lower && b >= 'A' && b <= 'Z' ? b | 0x20 : b);
      }
    }
    return true;
  }

  private String filtered(String text) {
    boolean spaces = ignored.contains(Ignore.SPACES);
    boolean marks = ignored.contains(Ignore.PUNCTUATION);
    StringBuilder kept = new StringBuilder(text.length());
    for (int at = 0; at < text.length(); ) {
      int c = text.codePointAt(at);
      at += Character.charCount(c);
      boolean isSpace = spaces && (Character.isWhitespace(c) || Character.isSpaceChar(c));
      if (!isSpace && !(marks && isPunctuation(c))) {
        kept.appendCodePoint(c);
      }
    }
    return kept.toString();
  }

  private static boolean isPunctuation(int c) {
    return !Character.isLetterOrDigit(c)
        && !Character.isWhitespace(c)
        && !Character.isSpaceChar(c)
        && Character.getType(c) != Character.NON_SPACING_MARK;
  }

  private static String dropZeros(String text) {
    return text.replaceAll("(?<![0-9])0+(?=[0-9])", "");
  }
}
