package org.zestyporter.core.value;

import java.lang.Character.UnicodeScript;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** What everyday words of titles and field names mean, by the list {@code words.txt}. */
final class Vocabulary {
  private static final int SHORTEST_COMPOUND = 7;
  private static final int SHORTEST_PART = 3;

  /** Behind what is counted: Kundennr, Medlemsnr. */
  private static final String NUMBER = "nr";

  /** Shorter words of one language are too often another's. */
  private static final int SHORTEST_SOUND = 3;

  private static final char FIRST_OTHER = 0x80;

  /** What makes several of one in some languages, or links the parts of a compound. */
  private static final List<Ending> ENDINGS =
      List.of(
          new Ending("s", ""),
          new Ending("n", ""),
          new Ending("en", ""),
          new Ending("es", ""),
          new Ending("er", ""),
          new Ending("e", ""),
          new Ending("ies", "y"));

  /** What stands at the end of several, and of one in its place. */
  private record Ending(String of, String one) {}

  /** What Arabic and Hebrew write as one with a noun: السعر is سعر, the price. */
  private static final Pattern ARTICLES =
      Pattern.compile("(?<!\\p{L})(?:ال(?=\\p{L}{2})|ה+(?=\\p{L}{3}))");

  static final Vocabulary INSTANCE = new Vocabulary();

  private final Set<String> currencies =
      CurrencySigns.words().stream().map(Vocabulary::bare).collect(Collectors.toUnmodifiableSet());

  /** By word, the numbers of its meanings. */
  private final Map<String, BitSet> meanings = new HashMap<>();

  /** The same for how words of other scripts sound in Latin letters. */
  private final Map<String, BitSet> bySound = new HashMap<>();

  /** The same for words as they were asked for; empty where a word has none. */
  private final Memo<BitSet> looked = new Memo<>(this::look);

  private final Map<String, List<String>> shortForms = new HashMap<>();
  private final Set<String> fillers = new HashSet<>();

  private final int longest;

  private Vocabulary() {
    int meaning = 0;
    for (String line : WordLists.lines(Vocabulary.class, "words.txt")) {
      take(line, meaning++);
    }
    meanings.forEach(
        (word, of) -> {
          String sound = LatinSounds.isOther(word) ? LatinSounds.of(word) : "";
          if (sound.length() >= SHORTEST_SOUND) {
            bySound.computeIfAbsent(sound, s -> new BitSet()).or(of);
          }
        });
    int ending = ENDINGS.stream().mapToInt(e -> e.of().length()).max().orElse(0);
    this.longest = ending + meanings.keySet().stream().mapToInt(String::length).max().orElse(0);
  }

  private void take(String line, int meaning) {
    int colon = line.indexOf(':');
    if (line.startsWith("-")) {
      fillers.addAll(List.of(bare(line.substring(1).strip()).split(" ")));
    } else if (colon > 0) {
      shortForms.put(
          line.substring(0, colon), List.of(line.substring(colon + 1).strip().split(" ")));
    } else {
      for (String word : bare(line).split(" ")) {
        meanings.computeIfAbsent(word, w -> new BitSet()).set(meaning);
      }
    }
  }

  /**
   * Small letters without accents and articles, each in the one form that is the same for wide and
   * narrow.
   */
  static String bare(String text) {
    String small = Texts.small(text);
    String plain = Texts.withoutAccents(Normalizer.normalize(small, Normalizer.Form.NFKD));
    return ARTICLES.matcher(plain).replaceAll("");
  }

  /** Letters of the longest word that is known. */
  int longest() {
    return longest;
  }

  /** True for what a currency is called, which a title says beside what it is about. */
  boolean isCurrency(String word) {
    return currencies.contains(word);
  }

  /** True for a word that says nothing by itself. */
  boolean isFiller(String word) {
    return fillers.contains(word);
  }

  boolean meanTheSame(String a, String b) {
    BitSet of = looked.of(a);
    return !of.isEmpty() && of.intersects(looked.of(b));
  }

  /** The meanings of a word, or of that which it is several of. */
  private BitSet look(String word) {
    String known = meanings.containsKey(word) ? word : one(word, SHORTEST_PART);
    BitSet own = meanings.get(known);
    if (own == null && word.length() > SHORTEST_SOUND && word.charAt(0) < FIRST_OTHER) {
      own = bySound.get(LatinSounds.of(word));
    }
    return own == null ? new BitSet() : own;
  }

  /** A word's meanings as bits, of which several may share one. */
  long traits(String word) {
    BitSet of = looked.of(word);
    long traits = 0;
    for (int m = of.nextSetBit(0); m >= 0; m = of.nextSetBit(m + 1)) {
      traits |= 1L << Words.LETTERS + m % (Long.SIZE - Words.LETTERS);
    }
    return traits;
  }

  /** The words that a short form or a compound is made of; the word itself if it is neither. */
  List<String> parts(String word) {
    List<String> meant = shortForms.get(word);
    if (meant != null) {
      return meant;
    }
    if (isUnspaced(word.charAt(0))) {
      return meanings.containsKey(word) ? List.of(word) : unspaced(word);
    }
    if (word.length() > SHORTEST_COMPOUND && word.endsWith(NUMBER) && !meanings.containsKey(word)) {
      String counted = unlinked(word.substring(0, word.length() - NUMBER.length()));
      if (counted != null) {
        return List.of(counted);
      }
    }
    if (word.length() >= SHORTEST_COMPOUND && !meanings.containsKey(word)) {
      for (int at = SHORTEST_PART; at <= word.length() - SHORTEST_PART; at++) {
        String first = word.substring(0, at);
        String last = word.substring(at);
        String linked = meanings.containsKey(last) ? unlinked(first) : null;
        if (linked != null) {
          return List.of(linked, last);
        }
      }
    }
    return List.of(word);
  }

  private static boolean isUnspaced(char c) {
    return switch (UnicodeScript.of(c)) {
      case HAN, HIRAGANA, KATAKANA, HANGUL, THAI, LAO, KHMER, MYANMAR -> true;
      default -> false;
    };
  }

  /** The known words of a title that has no spaces, the longest first, and what is between them. */
  private List<String> unspaced(String word) {
    List<String> parts = new ArrayList<>();
    int unknown = 0;
    for (int at = 0; at < word.length(); ) {
      int end = Math.min(word.length(), at + longest);
      while (end > at && !isKnown(word.substring(at, end))) {
        end--;
      }
      // a single sign is a word only at the end: 入会日 is a day, 日本語 is not
      end = end == at + 1 && end < word.length() ? at : end;
      if (end == at) {
        at++;
        continue;
      }
      addPart(parts, word.substring(unknown, at));
      addPart(parts, word.substring(at, end));
      at = end;
      unknown = end;
    }
    addPart(parts, word.substring(unknown));
    return parts.isEmpty() ? List.of(word) : parts;
  }

  boolean isKnown(String word) {
    return meanings.containsKey(word) || fillers.contains(word);
  }

  private void addPart(List<String> parts, String part) {
    if (!part.isEmpty() && !fillers.contains(part)) {
      parts.add(part);
    }
  }

  /** The first part of a compound without what links it to the next; null if nobody knows it. */
  private @Nullable String unlinked(String first) {
    if (meanings.containsKey(first)) {
      return first;
    }
    // Geburts-datum, Kunden-nummer
    return one(first, 0);
  }

  /**
   * What a word is several of, or is linked to another by its ending; null if nobody knows it.
   *
   * @param shortest it has more letters
   */
  private @Nullable String one(String word, int shortest) {
    return ENDINGS.stream()
        .filter(ending -> word.endsWith(ending.of()))
        .map(e -> word.substring(0, word.length() - e.of().length()) + e.one())
        .filter(one -> one.length() > shortest && meanings.containsKey(one))
        .findFirst()
        .orElse(null);
  }
}
