package org.zestyporter.core.value;

import java.text.Normalizer;
import java.util.HashMap;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What a Cyrillic or Greek word is in Latin letters, in a form that is the same however it is
 * transliterated: {@code прізвище} is {@code prizvyshche} or {@code prizvische}.
 */
final class LatinSounds {
  private static final Map<Character, String> LETTERS = letters();

  /** Greek and Cyrillic letters lie between these. */
  private static final char FIRST = '\u0370';

  private static final char LAST = '\u04FF';

  /** Sounds of several letters, by one that is no small one; the longest first. */
  private static final String[][] SOUNDS = {
    {"shch", "SC"},
    {"sch", "SC"},
    {"sh", "S"},
    {"zh", "Z"},
    {"ch", "C"},
    {"kh", "h"},
    {"th", "t"},
    {"ph", "f"},
    {"ts", "c"},
    {"tz", "c"},
    {"x", "ks"},
    {"w", "v"},
    {"g", "h"}
  };

  /** Two vowels that are spoken, or written, as one. */
  private static final String[][] VOWELS = {{"ou", "u"}, {"ai", "e"}, {"ei", "i"}, {"oi", "i"}};

  private static final Pattern YA = Pattern.compile("[yij]+a");
  private static final Pattern YU = Pattern.compile("[yij]+u");
  private static final Pattern YE = Pattern.compile("[yij]+e");
  private static final Pattern Y = Pattern.compile("[yj]");
  private static final Pattern TWICE = Pattern.compile("(.)\\1+");

  private static final Memo<String> FORMS = new Memo<>(LatinSounds::form);

  private LatinSounds() {}

  private static Map<Character, String> letters() {
    String from =
        "а a б b в v г h ґ h д d е e є ye ж zh з z и i й i і i ї i к k л l м m н n о o п p р r с s т t у u ў u"
            + " ф f х kh ц ts ч ch ш sh щ shch ъ - ы y ь - э e ю yu я ya ј j љ l њ n ђ dj ћ ch џ dzh"
            + " α a β v γ g δ d ε e ζ z η i θ th ι i κ k λ l μ m ν n ξ x ο o π p ρ r σ s ς s τ t υ y"
            + " φ f χ h ψ ps ω o č ch ć ch š sh ž zh đ dj";
    String[] pairs = from.split(" ");
    Map<Character, String> letters = new HashMap<>();
    for (int i = 0; i < pairs.length; i += 2) {
      letters.put(pairs[i].charAt(0), pairs[i + 1].replace("-", ""));
    }
    return Map.copyOf(letters);
  }

  /** True for a word that another script writes than the Latin one. */
  static boolean isOther(String word) {
    char first = word.isEmpty() ? 0 : word.charAt(0);
    return first >= FIRST && first <= LAST;
  }

  /** The form of a word without accents, in small letters; empty if it is of a third script. */
  static String of(String word) {
    return FORMS.of(word);
  }

  private static String form(String word) {
    StringBuilder latin = new StringBuilder();
    String spoken = word.replace("ου", "u");
    for (int i = 0; i < spoken.length(); i++) {
      String letter = letter(spoken.charAt(i));
      if (letter == null) {
        return "";
      }
      latin.append(letter);
    }
    String form = replaced(latin.toString(), SOUNDS);
    form = YE.matcher(YU.matcher(YA.matcher(form).replaceAll("A")).replaceAll("U")).replaceAll("e");
    return TWICE.matcher(replaced(Y.matcher(form).replaceAll("i"), VOWELS)).replaceAll("$1");
  }

  /** With its accent if that makes another letter of it, as in Serbian; null of a third script. */
  private static @Nullable String letter(char c) {
    String letter = c < 0x80 ? String.valueOf(c) : LETTERS.get(c);
    char plain = Normalizer.normalize(String.valueOf(c), Normalizer.Form.NFD).charAt(0);
    return letter != null || plain == c ? letter : letter(plain);
  }

  private static String replaced(String text, String[][] pairs) {
    String replaced = text;
    for (String[] pair : pairs) {
      replaced = replaced.replace(pair[0], pair[1]);
    }
    return replaced;
  }
}
