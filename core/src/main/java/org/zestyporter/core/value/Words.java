package org.zestyporter.core.value;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** Compares the names of columns and fields as a person would. */
public final class Words {
  private static final Set<String> EMPTY =
      Set.of(
          "of", "the", "a", "an", "in", "on", "at", "for", "no", "nr", "num", "number", "id", "s");

  /** Everyday words that mean the same in headings. */
  private static final List<Set<String>> ALIKE =
      List.of(
          Set.of("kind", "type", "category", "class", "sort"),
          Set.of("boat", "vessel", "ship", "yacht", "craft"),
          Set.of("phone", "telephone", "mobile", "tel", "cell"),
          Set.of("email", "mail"),
          Set.of("no", "nr", "num", "number"),
          Set.of("postcode", "zip", "plz"),
          Set.of("town", "city", "place"),
          Set.of("begin", "start", "from"),
          Set.of("end", "until", "till"),
          Set.of("price", "amount", "cost", "fee", "rate"),
          Set.of("note", "notes", "remark", "remarks", "comment", "comments"),
          Set.of("arrival", "arrived", "arrives"),
          Set.of("owner", "holder", "keeper"),
          Set.of("surname", "family", "last"),
          Set.of("forename", "given", "first"));

  private Words() {}

  /** The telling words of a name: small letters, no fillers, no units. */
  public static List<String> of(String name) {
    List<String> words = new ArrayList<>();
    List<String> fillers = new ArrayList<>();
    for (String word : split(name)) {
      if (EMPTY.contains(word)) {
        fillers.add(word);
      } else if (UnitWords.find(word) == null) {
        words.add(word);
      }
    }
    return words.isEmpty() ? (fillers.isEmpty() ? split(name) : fillers) : words;
  }

  public static List<String> split(String name) {
    String spaced =
        name.replaceAll("(?i)e-mail", "email")
            .replaceAll("(\\p{Ll})(\\p{Lu})", "$1 $2")
            .toLowerCase(Locale.ROOT);
    List<String> words = new ArrayList<>();
    for (String word : spaced.split("[^\\p{L}\\p{N}]+")) {
      if (!word.isEmpty()) {
        words.add(word);
      }
    }
    return words;
  }

  /** How well two names agree, 0 to 100. */
  public static int agreement(List<String> a, List<String> b) {
    if (a.isEmpty() || b.isEmpty()) {
      return 0;
    }
    if (a.equals(b)) {
      return 100;
    }
    double matched = 0;
    for (String word : a) {
      matched += b.stream().mapToDouble(other -> alike(word, other)).max().orElse(0);
    }
    return (int) Math.round(95 * matched * 2 / (a.size() + b.size()));
  }

  public static double alike(String a, String b) {
    if (a.equals(b)) {
      return 1;
    }
    for (Set<String> group : ALIKE) {
      if (group.contains(a) && group.contains(b)) {
        return 0.9;
      }
    }
    String shorter = a.length() < b.length() ? a : b;
    String longer = shorter.equals(a) ? b : a;
    if (shorter.length() >= 3 && longer.startsWith(shorter)) {
      return 0.9;
    }
    int common = 0;
    while (common < shorter.length() && a.charAt(common) == b.charAt(common)) {
      common++;
    }
    return common >= 4 && common * 3 >= longer.length() * 2 ? 0.8 : 0;
  }

  /** The first letters of the words of a text, fillers included. */
  public static String initials(String text) {
    StringBuilder initials = new StringBuilder();
    split(text).forEach(word -> initials.append(word.charAt(0)));
    return initials.toString();
  }
}
