package org.zestyporter.core.draft;

import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Words;

/**
 * How whole names of people are parted, by what they look like and what stands above them.
 *
 * @param first the steps that take the first name
 * @param middle the steps that take what stands between or behind the two, such as the name of the
 *     father; null if that stays with the first name
 * @param last the steps that take that of the family
 * @param familyStands where it seems to stand, in words
 */
record NameParts(
    List<Step> first, @Nullable List<Step> middle, List<Step> last, String familyStands) {
  /** Of a hundred values so many have to be names of several words. */
  private static final int MOST = 80;

  private static final int LONGEST = 60;
  private static final int WORDS_MOST = 6;

  /** Words of capitals at the beginning; a group for the steps that take it. */
  private static final String CAPITALS = "^((?:\\p{Lu}[\\p{Lu}'’-]+)(?:\\s+\\p{Lu}[\\p{Lu}'’-]+)*)";

  /** The last word with the small ones before it: {@code van der Berg}, {@code De Rossi}. */
  private static final String LAST =
      "(?:(?:\\p{Ll}\\S*|(?i:van|von|der|den|de|del|della|di|da|dos|du|la|le|ten|ter|zu|al|el|bin"
          + "|ibn|ben))\\s+)*\\S+";

  /** A name with that of the family in front of a comma, where others are written without one. */
  private static final String TURNED = "^(" + LAST + ")\\s*,\\s*([^,]+)$";

  private static final Pattern IN_CAPITALS = Pattern.compile(CAPITALS + "\\s+\\p{Lu}.*\\p{Ll}.*");

  /** Scripts whose names begin with that of the family. */
  private static final Pattern FAMILY_FIRST =
      Pattern.compile(".*[\\p{IsHan}\\p{IsHangul}\\p{IsHiragana}\\p{IsKatakana}].*");

  /**
   * Words for a name in languages that put the family's in front, and write it in Latin letters.
   */
  private static final Set<String> FAMILY_FIRST_TITLES = Set.of("nev", "neve", "ho");

  /** Names of fathers, with which a name ends that begins with that of the family. */
  private static final Pattern FATHERS =
      Pattern.compile(".*\\s(?:\\p{IsCyrillic}{2,}(?:вич|ьич|мич|тич|кич|вна|чна)|оглы|кызы)");

  private static final Step TIDY = Step.of(StepKind.COLLAPSE_SPACES);

  /**
   * How the names of a column are parted; null if these are no such names.
   *
   * @param names without spaces at their ends, with single ones within
   * @param hasMiddle true if there is a field of its own for a name beside the first one
   */
  static @Nullable NameParts of(String title, List<String> names, boolean hasMiddle) {
    if (!areWhole(names)) {
      return null;
    }
    boolean familyFirst = isFamilyFirst(title, names);
    if (familyFirst && most(names, NameParts::hasComma)) {
      Step others = at(",", 2);
      return new NameParts(
          hasMiddle ? List.of(others, take("^(\\S+)")) : List.of(others),
          hasMiddle ? List.of(others, take("^\\S+\\s+(.+)$")) : null,
          List.of(at(",", 1)),
          "in front of the comma");
    }
    Step like = likeOthers(names, familyFirst);
    if (like != null) {
      String to = like.setting("to");
      List<String> alike = names.stream().map(t -> t.replaceAll(TURNED, to)).toList();
      return of(title, alike, hasMiddle, familyFirst).after(like);
    }
    return of(title, names, hasMiddle, familyFirst);
  }

  private static NameParts of(
      String title, List<String> names, boolean hasMiddle, boolean familyFirst) {
    String where = familyFirst ? "first" : "last";
    if (hasMiddle) {
      return familyFirst
          ? new NameParts(
              List.of(TIDY, at(" ", 2)),
              List.of(TIDY, take("^\\S+\\s+\\S+\\s+(.+)$")),
              List.of(TIDY, at(" ", 1)),
              where)
          : new NameParts(
              List.of(TIDY, at(" ", 1)),
              List.of(TIDY, without("\\s+" + LAST + "$"), take("^\\S+\\s+(.+)$")),
              List.of(TIDY, take("^.*?\\S\\s+(" + LAST + ")$")),
              where);
    }
    if (names.stream().allMatch(t -> t.split(" ").length <= 2)) {
      return new NameParts(
          List.of(TIDY, at(" ", familyFirst ? 2 : 1)),
          null,
          List.of(TIDY, at(" ", familyFirst ? 1 : 2)),
          where);
    }
    if (!familyFirst) {
      return new NameParts(
          List.of(TIDY, take("^(.*?\\S)(?:\\s+" + LAST + ")?$")),
          null,
          List.of(TIDY, take("^.*?\\S\\s+(" + LAST + ")$")),
          where);
    }
    String family = (most(names, NameParts::isInCapitals) ? CAPITALS : "^(\\S+)") + "(?:\\s+|$)";
    return new NameParts(List.of(TIDY, without(family)), null, List.of(TIDY, take(family)), where);
  }

  /** Writes names with a comma like those without; null if there are none. */
  private static @Nullable Step likeOthers(List<String> names, boolean familyFirst) {
    return names.stream().anyMatch(t -> t.matches(TURNED))
        ? Step.of(
            StepKind.REPLACE_PATTERN, "pattern", TURNED, "to", familyFirst ? "$1 $2" : "$2 $1")
        : null;
  }

  private NameParts after(Step step) {
    return new NameParts(
        behind(step, first),
        middle == null ? null : behind(step, middle),
        behind(step, last),
        familyStands);
  }

  private static List<Step> behind(Step step, List<Step> others) {
    return Stream.concat(Stream.of(TIDY, step), others.stream().filter(s -> !s.equals(TIDY)))
        .toList();
  }

  /** True if texts are nearly all whole names of people. */
  static boolean areWhole(List<String> texts) {
    return most(texts, NameParts::looksLikeName);
  }

  /**
   * The sign at which two parts of cells are parted: that of their title, or the space between two
   * words; null if it is neither.
   *
   * @param sign null if there is only a word
   */
  static @Nullable String between(@Nullable String sign, List<String> texts) {
    if (sign != null
        && most(texts, t -> t.indexOf(sign) > 0 && t.indexOf(sign) == t.lastIndexOf(sign))) {
      return sign;
    }
    return most(texts, t -> t.split(" ").length == 2) ? " " : null;
  }

  /** The steps that take one of several parts of texts. */
  static List<Step> part(String sign, int which, List<String> texts) {
    Step like = sign.equals(" ") ? likeOthers(texts, false) : null;
    return like == null ? List.of(TIDY, at(sign, which)) : behind(like, List.of(at(sign, which)));
  }

  private static boolean isFamilyFirst(String title, List<String> names) {
    int name = place(title, "name");
    int forename = Words.says(title, "forename") ? place(title, "forename") : name;
    int surname = Words.says(title, "surname") ? place(title, "surname") : name;
    return PersonNames.isPart(title) && forename >= 0 && surname >= 0
        ? surname < forename
        : most(names, NameParts::hasComma)
            || most(names, NameParts::isInCapitals)
            || Words.split(title).stream().anyMatch(FAMILY_FIRST_TITLES::contains)
            || most(names, t -> FATHERS.matcher(t).matches())
            || most(names, t -> FAMILY_FIRST.matcher(t).matches());
  }

  private static boolean hasComma(String text) {
    return text.indexOf(',') > 0;
  }

  private static boolean isInCapitals(String text) {
    return IN_CAPITALS.matcher(text).matches();
  }

  private static int place(String title, String part) {
    List<String> words = Words.split(title);
    for (int i = 0; i < words.size(); i++) {
      if (Words.says(words.get(i), part)) {
        return i;
      }
    }
    return -1;
  }

  private static boolean most(List<String> values, Predicate<String> of) {
    return !values.isEmpty() && values.stream().filter(of).count() * 100 >= values.size() * MOST;
  }

  private static boolean looksLikeName(String text) {
    int words = text.split(" ").length;
    return words > 1
        && words <= WORDS_MOST
        && text.length() <= LONGEST
        && text.chars().noneMatch(c -> Character.isDigit(c) || c == '@');
  }

  private static Step take(String pattern) {
    return Step.of(StepKind.TAKE_PATTERN, "pattern", pattern);
  }

  private static Step without(String pattern) {
    return Step.of(StepKind.REPLACE_PATTERN, "pattern", pattern, "to", "");
  }

  private static Step at(String sign, int which) {
    return Step.of(StepKind.SPLIT, "at", sign, "which", String.valueOf(which));
  }
}
