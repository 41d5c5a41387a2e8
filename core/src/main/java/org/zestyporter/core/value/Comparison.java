package org.zestyporter.core.value;

import com.fasterxml.jackson.annotation.JsonValue;
import java.math.BigDecimal;
import java.util.Arrays;
import java.util.Collection;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

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

  private static final Pattern BETWEEN_WORDS = Pattern.compile("[\\s,;]+");
  private static final Pattern SIGN_WORD =
      Pattern.compile("[\\p{IsHan}\\p{IsHangul}\\p{IsHiragana}\\p{IsKatakana}]");

  private final Set<Ignore> ignored;

  /** What becomes of plain characters. */
  private final byte[] plain;

  private Comparison(Set<Ignore> ignored) {
    this.ignored = ignored;
    this.plain = plain(ignored);
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
      text = Texts.withoutAccents(text);
    }
    if (ignored.contains(Ignore.CASE)) {
      text = Texts.small(text);
    }
    return ignored.contains(Ignore.LEADING_ZEROS) ? dropZeros(filtered(text)) : filtered(text);
  }

  /**
   * The form in which texts are compared of which only the words count, and not their order: {@code
   * Doe, Jane} is {@code Jane Doe}. In scripts that have no spaces between names each sign is a
   * word.
   */
  public String words(String text) {
    return Arrays.stream(BETWEEN_WORDS.split(SIGN_WORD.matcher(text).replaceAll(" $0 ").strip()))
        .map(this::prepare)
        .sorted()
        .collect(Collectors.joining(" "));
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
    return out.putMapped(bytes, from, to, plain);
  }

  /** What becomes of each plain character; 0 if it is left out, under 0 if it is not plain. */
  private static byte[] plain(Set<Ignore> ignored) {
    byte[] plain = new byte[128];
    for (int c = 0; c < plain.length; c++) {
      boolean isLetter = Character.isLetterOrDigit(c);
      boolean isDropped =
          c == ' '
              ? ignored.contains(Ignore.SPACES)
              : !isLetter && ignored.contains(Ignore.PUNCTUATION);
      int kept = ignored.contains(Ignore.CASE) ? Character.toLowerCase(c) : c;
      plain[c] = (byte) (c < ' ' ? -1 : isDropped ? 0 : kept);
    }
    return plain;
  }

  private String filtered(String text) {
    boolean spaces = ignored.contains(Ignore.SPACES);
    boolean marks = ignored.contains(Ignore.PUNCTUATION);
    StringBuilder kept = new StringBuilder(text.length());
    for (int at = 0; at < text.length(); ) {
      int c = text.codePointAt(at);
      at += Character.charCount(c);
      boolean isDropped = spaces && (isSpace(c) || Texts.isJoiner(c));
      if (!isDropped && !(marks && isPunctuation(c))) {
        kept.appendCodePoint(c);
      }
    }
    return kept.toString();
  }

  private static boolean isPunctuation(int c) {
    return !Texts.isOfWord(c) && !isSpace(c);
  }

  private static boolean isSpace(int c) {
    return Character.isWhitespace(c) || Character.isSpaceChar(c);
  }

  private static String dropZeros(String text) {
    return text.replaceAll("(?<![0-9])0+(?=[0-9])", "");
  }
}
