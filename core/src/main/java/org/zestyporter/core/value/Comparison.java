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

  private String filtered(String text) {
    boolean spaces = ignored.contains(Ignore.SPACES);
    boolean marks = ignored.contains(Ignore.PUNCTUATION);
    StringBuilder kept = new StringBuilder(text.length());
    text.codePoints()
        .filter(c -> !(spaces && (Character.isWhitespace(c) || Character.isSpaceChar(c))))
        .filter(c -> !(marks && isPunctuation(c)))
        .forEach(kept::appendCodePoint);
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
