package org.zestyporter.core.value;

import java.text.Normalizer;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Operations on texts that steps and formulas share. */
public final class Texts {
  /**
   * Accents of Latin, Greek and Cyrillic letters but those that make another letter of the alphabet
   * ({@code й}), and the vowels that Hebrew and Arabic may go without. Marks of other scripts are
   * no accents: they are vowels in Devanagari and Thai, and a voiced sound in Japanese.
   */
  private static final Pattern MARKS =
      Pattern.compile(
          "(?:(?<![иИуУ])\\u0306|(?<![іІ])\\u0308"
              + "|[\\u0300-\\u036F\\u1AB0-\\u1AFF\\u1DC0-\\u1DFF\\u20D0-\\u20FF\\uFE20-\\uFE2F"
              + "&&[^\\u0306\\u0308]]"
              + "|[\\u0591-\\u05BD\\u05BF\\u05C1\\u05C2\\u05C4\\u05C5\\u05C7"
              + "\\u0610-\\u061A\\u064B-\\u065F\\u0670\\u06D6-\\u06DC\\u06DF-\\u06E8\\u06EA-\\u06ED])+");

  private static final Pattern SPACES = Pattern.compile("[\\s\\u00A0\\u202F]+");

  /** A pattern for what stands between words: neither letters with their marks nor figures. */
  public static final String BETWEEN_WORDS = "[^\\p{L}\\p{M}\\p{N}]+";

  private static final int FIRST_ACCENTED = 0x80;

  /** Accents that Greek capitals go without; two dots stay, as they part what is spoken. */
  private static final Pattern GREEK_ACCENTS =
      Pattern.compile("(?<=\\p{IsGreek}\\p{M}{0,3})[\\u0300\\u0301\\u0313\\u0314\\u0342]");

  /** Letters that carry a stroke or are two in one, which decomposition leaves as they are. */
  private static final String[][] STROKED = {
    {"ø", "o"},
    {"Ø", "O"},
    {"ł", "l"},
    {"Ł", "L"},
    {"đ", "d"},
    {"Đ", "D"},
    {"ħ", "h"},
    {"ß", "ss"},
    {"æ", "ae"},
    {"Æ", "Ae"},
    {"œ", "oe"},
    {"Œ", "Oe"},
    {"þ", "th"},
    {"Þ", "Th"},
    {"ð", "d"},
    {"ı", "i"}
  };

  /** Small words inside personal names, in the languages of the senders. */
  private static final Set<String> PARTICLES =
      Set.of(
          "van", "von", "der", "den", "de", "del", "della", "di", "da", "das", "dos", "do", "du",
          "la", "le", "los", "las", "ten", "ter", "te", "zu", "zur", "zum", "vom", "af", "av", "y",
          "e", "und", "och", "og", "bin", "ibn", "al", "el", "'t");

  private Texts() {}

  /** Letters without their accents; strokes and joined letters are taken apart too. */
  public static String withoutAccents(String text) {
    if (text.chars().allMatch(c -> c < FIRST_ACCENTED)) {
      return text;
    }
    String bare = MARKS.matcher(Normalizer.normalize(text, Normalizer.Form.NFD)).replaceAll("");
    for (String[] pair : STROKED) {
      if (bare.contains(pair[0])) {
        bare = bare.replace(pair[0], pair[1]);
      }
    }
    return Normalizer.normalize(bare, Normalizer.Form.NFC);
  }

  /** True for what words are written with: figures and {@link #isLetter letters}. */
  public static boolean isOfWord(int c) {
    return Character.isDigit(c) || isLetter(c);
  }

  /**
   * True for a letter, or a mark that belongs to the one before it, as vowels do in Devanagari and
   * Thai, and accents in texts that write them apart.
   */
  public static boolean isLetter(int c) {
    return Character.isLetter(c) || isMark(c);
  }

  private static boolean isMark(int c) {
    return switch (Character.getType(c)) {
      case Character.NON_SPACING_MARK, Character.COMBINING_SPACING_MARK, Character.ENCLOSING_MARK ->
          true;
      default -> false;
    };
  }

  /**
   * A text in small letters, as texts are compared whose capitals don't count. Greek has no accents
   * on capitals and two forms of a small sigma, so there {@code ΒΟΛΟΣ} and {@code Βόλος} are one.
   * Arabic and Persian keyboards write two letters by characters of their own, which look the same;
   * figures of other scripts and wide letters are what they stand for.
   */
  public static String small(String text) {
    String small = text.toLowerCase(Locale.ROOT);
    boolean isGreek = false;
    boolean isBeyond = false;
    for (int at = 0; at < small.length(); at++) {
      char c = small.charAt(at);
      isGreek |= c >= '\u0370' && c < '\u0400' || c >= '\u1F00' && c < '\u2000';
      isBeyond |= c >= '\u0600';
    }
    String usual = isBeyond ? AsciiSigns.tidy(arabic(small)) : small;
    return isGreek ? greek(usual) : usual;
  }

  private static String arabic(String text) {
    return text.replace('\u064A', '\u06CC').replace('\u0649', '\u06CC').replace('\u0643', '\u06A9');
  }

  /** True for what parts or joins letters without being seen, or only makes a word longer. */
  public static boolean isJoiner(int c) {
    return c >= '\u200B' && c <= '\u200D'
        || c == '\u2060'
        || c == '\uFEFF'
        || c == '\u0640'
        || c == '\u00AD';
  }

  private static String greek(String small) {
    String apart = Normalizer.normalize(small, Normalizer.Form.NFD);
    String bare = GREEK_ACCENTS.matcher(apart).replaceAll("").replace('ς', 'σ');
    return Normalizer.normalize(bare, Normalizer.Form.NFC);
  }

  /** A text without the spaces, of any kind, at both its ends. */
  public static String trim(String text) {
    int from = 0;
    int to = text.length();
    while (from < to && isSpace(text.charAt(from))) {
      from++;
    }
    while (to > from && isSpace(text.charAt(to - 1))) {
      to--;
    }
    return text.substring(from, to);
  }

  public static boolean isSpace(char c) {
    return c <= ' ' || c == '\u00A0' || c == '\u202F' || Character.isWhitespace(c);
  }

  /** The length of a text in code points. */
  public static int length(String text) {
    return text.codePointCount(0, text.length());
  }

  /** The n-th word, from the end if {@code which} is under 0; empty if there is none. */
  public static String word(String text, int which) {
    String[] words = SPACES.split(text.strip());
    int at = which < 0 ? words.length + which : which - 1;
    return which == 0 || at < 0 || at >= words.length ? "" : words[at];
  }

  /** Characters of a text from an index on, counted by code points; fewer if it ends before. */
  public static String part(String text, int from, int count) {
    int length = length(text);
    int start = Math.max(0, Math.min(from, length));
    int end = (int) Math.min((long) start + count, length);
    return text.substring(text.offsetByCodePoints(0, start), text.offsetByCodePoints(0, end));
  }

  /** Every word with a capital, the rest small. */
  public static String title(String text) {
    StringBuilder changed = new StringBuilder(text.length());
    boolean start = true;
    for (int i = 0; i < text.length(); ) {
      int c = text.codePointAt(i);
      changed.appendCodePoint(start ? Character.toTitleCase(c) : Character.toLowerCase(c));
      start = !isOfWord(c) && c != '\'' && c != '’';
      i += Character.charCount(c);
    }
    return changed.toString();
  }

  /** The first letter of a text as a capital, the rest small. */
  public static String sentence(String text) {
    String lower = text.toLowerCase(Locale.ROOT);
    for (int i = 0; i < lower.length(); i++) {
      if (Character.isLetter(lower.charAt(i))) {
        return lower.substring(0, i)
            + lower.substring(i, i + 1).toUpperCase(Locale.ROOT)
            + lower.substring(i + 1);
      }
    }
    return lower;
  }

  /**
   * A personal name as it is written: {@code VAN DER BERG, o'neill} gives {@code van der Berg,
   * O'Neill}. Names that already mix capitals and small letters keep their inner capitals.
   */
  public static String personalName(String text) {
    boolean mixed =
        !text.equals(text.toUpperCase(Locale.ROOT)) && !text.equals(text.toLowerCase(Locale.ROOT));
    StringBuilder name = new StringBuilder(text.length());
    String[] words = text.split("(?<=[\\s\\u00A0])|(?=[\\s\\u00A0])");
    boolean wordsBehind = false;
    for (int i = words.length - 1; i >= 0; i--) {
      boolean isWord = !words[i].isBlank();
      boolean last = !wordsBehind || words[i].endsWith(",");
      name.insert(0, isWord ? nameWord(words[i], mixed, last) : words[i]);
      wordsBehind |= isWord;
    }
    return name.toString();
  }

  private static String nameWord(String word, boolean mixed, boolean last) {
    String lower = word.toLowerCase(Locale.ROOT);
    if (!last && PARTICLES.contains(lower)) {
      return lower;
    }
    boolean ownCapitals =
        mixed && !lower.equals(word) && !word.equals(word.toUpperCase(Locale.ROOT));
    if (ownCapitals) {
      return word;
    }
    StringBuilder changed = new StringBuilder();
    boolean start = true;
    for (int i = 0; i < lower.length(); ) {
      int c = lower.codePointAt(i);
      changed.appendCodePoint(start ? Character.toTitleCase(c) : c);
      start = c == '-' || c == '\'' || c == '’' || c == '.' || c == '(';
      i += Character.charCount(c);
    }
    if (lower.length() > 3 && lower.startsWith("mc") && Character.isLetter(lower.charAt(2))) {
      changed.setCharAt(2, Character.toUpperCase(changed.charAt(2)));
    }
    return changed.toString();
  }

  /** What a text holds that is no character, in words; null if nothing. */
  public static @Nullable String forbidden(String text) {
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (c == 0) {
        return "holds a NUL (U+0000), which no text may hold; take it out with a Replace step";
      }
      if (Character.isSurrogate(c)) {
        boolean pair =
            Character.isHighSurrogate(c)
                && i + 1 < text.length()
                && Character.isLowSurrogate(text.charAt(i + 1));
        if (!pair) {
          return "holds half of a character that is written in two";
        }
        i++;
      }
    }
    return null;
  }
}
