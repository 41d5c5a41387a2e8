package org.zestyporter.core.source.parse;

import java.lang.Character.UnicodeScript;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.WordLists;

/** How well a text reads in a language, by which of its letters are frequent there. */
final class Alphabets {
  /** What the rarest letter of a language is worth; the most frequent one is worth 1. */
  private static final double RAREST = 0.4;

  /** The same where only letters beside a to z count, of which a list may hold few. */
  private static final double RAREST_LATIN = 0.6;

  /** Any letter of several languages at once. */
  private static final double ANY = 0.65;

  private static final double BROKEN = -3;
  private static final double WRONG = -1;

  /** Signs that stand among Latin words; some of them close to one. */
  private static final String SYMBOLS = "€£¥§°©®™½¼¾²³µ±×·•…¿¡ªº";

  private static final String MONEY = "€£¥";
  private static final String BEHIND_WORDS = "²³™®ºª…";
  private static final String BEFORE_WORDS = "µ¿¡";

  private Alphabets() {}

  /** The kinds of script, which read by different rules. */
  enum Script {
    LATIN,
    OTHER,
    EAST_ASIAN
  }

  /**
   * A language.
   *
   * @param encodings in which its files were written, the likelier ones first
   * @param worth of each of its letters beyond a to z, small ones for both: 1 for the most frequent
   */
  record Language(Script script, List<String> encodings, Map<Character, Double> worth) {

    /** How well a text reads: the mean over its foreign characters, at most 1; 0 without any. */
    double reads(String text) {
      double sum = 0;
      int count = 0;
      for (int i = 0; i < text.length(); i++) {
        char c = text.charAt(i);
        if (c >= 0x80) {
          count++;
          char before = i > 0 ? text.charAt(i - 1) : ' ';
          char after = i + 1 < text.length() ? text.charAt(i + 1) : ' ';
          sum += isBroken(c) ? BROKEN : of(before, c, after);
        }
      }
      return count == 0 ? 0 : sum / count;
    }

    private double of(char before, char c, char after) {
      return switch (script) {
        case LATIN -> latin(before, c, after);
        case OTHER -> other(before, c, after);
        case EAST_ASIAN -> eastAsian(before, c, after);
      };
    }

    private double worth(char c, double otherwise) {
      Double found = worth.get(c);
      return found != null ? found : worth.getOrDefault(Character.toLowerCase(c), otherwise);
    }

    private double latin(char before, char c, char after) {
      boolean begun = Character.isLetter(before);
      boolean goesOn = Character.isLetter(after);
      if (isQuoteOrDash(c)) {
        // it’s
        return begun && goesOn ? c == '’' ? 1 : WRONG : 0.9;
      }
      if (SYMBOLS.indexOf(c) >= 0) {
        if (MONEY.indexOf(c) >= 0 && (begun || goesOn)) {
          return WRONG;
        }
        boolean fits = begun ? BEHIND_WORDS.indexOf(c) >= 0 : BEFORE_WORDS.indexOf(c) >= 0;
        return begun && goesOn ? WRONG : !begun && !goesOn || fits ? 0.9 : 0.4;
      }
      if (!Character.isLetter(c)) {
        return begun || goesOn ? WRONG : 0.1;
      }
      if (!begun && !goesOn) {
        return 0.2;
      }
      boolean upper = Character.isUpperCase(c);
      boolean oddCase =
          upper && Character.isLowerCase(before)
              || upper && Character.isUpperCase(before) && Character.isLowerCase(after)
              || !upper && Character.isUpperCase(before) && Character.isUpperCase(after);
      boolean smallStart = !upper && !begun;
      return oddCase ? WRONG : worth(c, 0) - (smallStart ? 0.3 : 0);
    }

    private double other(char before, char c, char after) {
      if (Character.getType(c) == Character.NON_SPACING_MARK) {
        return before >= 0x80 && (Character.isLetter(before) || worth.containsKey(before))
            ? worth(c, 0)
            : WRONG;
      }
      if (!Character.isLetter(c)) {
        return isQuoteOrDash(c) || c == '№' ? 0 : WRONG;
      }
      boolean capitalWithin = Character.isUpperCase(c) && Character.isLowerCase(before);
      if (isLatin(c) || isLatin(before) || isLatin(after) || capitalWithin) {
        return WRONG;
      }
      boolean alone = !isOfWord(before) && !isOfWord(after);
      boolean capitals = Character.isUpperCase(c) && Character.isUpperCase(after);
      return alone ? -0.2 : worth(c, -0.5) - (capitals ? 0.1 : 0);
    }

    private double eastAsian(char before, char c, char after) {
      if (isLatin(c) || isLatin(before) && isLatin(after)) {
        return WRONG;
      }
      Double found = worth.get(c);
      if (found != null) {
        return found;
      }
      UnicodeScript of = UnicodeScript.of(c);
      boolean kana = of == UnicodeScript.HIRAGANA || of == UnicodeScript.KATAKANA;
      if (kana || isProlonged(c)) {
        // half as wide: single bytes, which might as well be those of any other encoding
        boolean alone = !isHalfWide(before) && !isHalfWide(after);
        return isHalfWide(c) ? alone ? WRONG : 0.7 : 0.9;
      }
      if (of == UnicodeScript.HAN || of == UnicodeScript.HANGUL) {
        return isLatin(before) || isLatin(after) ? -0.5 : 0.25;
      }
      boolean wide = c >= 0x3000 && c < 0x3040 || c >= 0xFF00;
      return wide ? 0.5 : Character.isLetter(c) ? -0.5 : 0.1;
    }
  }

  private static boolean isBroken(char c) {
    return c == Cell.UNDECODABLE
        || Character.isISOControl(c)
        || Character.getType(c) == Character.PRIVATE_USE;
  }

  private static boolean isOfWord(char c) {
    return Character.isLetter(c) || Character.getType(c) == Character.NON_SPACING_MARK;
  }

  private static boolean isProlonged(char c) {
    return c == 'ー' || c == 'ｰ' || c == 'ﾞ' || c == 'ﾟ' || c == '々';
  }

  private static boolean isHalfWide(char c) {
    return c >= 0xFF61 && c <= 0xFF9F;
  }

  private static boolean isLatin(char c) {
    return c < 0x250 && Character.isLetter(c);
  }

  private static boolean isQuoteOrDash(char c) {
    return "’‘–—“”„«»".indexOf(c) >= 0;
  }

  /** All languages, in the order in which their encodings are thought of. */
  static List<Language> all() {
    return WordLists.lines(Alphabets.class, "letters.txt").stream()
        .map(Alphabets::language)
        .toList();
  }

  private static Language language(String line) {
    int colon = line.indexOf(" : ");
    List<String> encodings = List.of(line.substring(line.indexOf(' ') + 1, colon).split(" "));
    String letters = line.substring(colon + 3);
    boolean flat = letters.startsWith("~");
    letters = flat ? letters.substring(1) : letters;
    UnicodeScript first = UnicodeScript.of(letters.charAt(0));
    Script script =
        first == UnicodeScript.LATIN
            ? Script.LATIN
            : first == UnicodeScript.HAN || first == UnicodeScript.HANGUL
                ? Script.EAST_ASIAN
                : Script.OTHER;
    Map<Character, Double> worth = new HashMap<>();
    for (int i = 0; i < letters.length(); i++) {
      double rarest = script == Script.LATIN ? RAREST_LATIN : RAREST;
      double ranked = 1 - (1 - rarest) * i / letters.length();
      double of = script == Script.EAST_ASIAN ? 1 : flat ? ANY : ranked;
      worth.putIfAbsent(letters.charAt(i), of);
    }
    return new Language(script, encodings, worth);
  }

  /** How much better an encoding has to read than the likeliest, as so few files have it today. */
  static double rarity(String encoding) {
    boolean old = encoding.startsWith("IBM") || encoding.startsWith("x-Mac");
    return old ? 0.15 : encoding.equals("windows-1252") ? 0 : 0.02;
  }

  /** The languages of each encoding; the encodings in the order in which they are thought of. */
  static Map<String, List<Language>> byEncoding() {
    Map<String, List<Language>> found = new LinkedHashMap<>();
    for (Language language : all()) {
      language
          .encodings()
          .forEach(e -> found.computeIfAbsent(e, n -> new ArrayList<>()).add(language));
    }
    return found;
  }
}
