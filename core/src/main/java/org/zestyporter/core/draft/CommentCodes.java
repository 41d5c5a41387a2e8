package org.zestyporter.core.draft;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.Memo;

/**
 * What the codes of a field stand for, as its description in the database says: {@code gender: 0 =
 * male, 1 = female}, {@code Status (A-active; C-closed)}, {@code 性别 0男 1女}.
 *
 * @param about the description before them
 * @param meanings the codes by the words
 */
record CommentCodes(String about, Map<String, String> meanings) {
  /** So many steps that replace a word are still looked through. */
  private static final int MOST = 12;

  /** Longer descriptions are essays. */
  private static final int LONGEST = 1_000;

  /** Share of a column's rows that must hold one of the words. */
  private static final double ENOUGH = 0.6;

  private static final String CODE = "(?<code>-?\\d{1,4}|\\p{Lu}{1,3})";

  /** Signs that are written as they are spoken, without anything between words and numbers. */
  private static final String SPOKEN = "[\\p{IsHan}\\p{IsHiragana}\\p{IsKatakana}\\p{IsHangul}]";

  private static final String WORDS = "(?<word>\\p{L}[\\p{L}\\p{M} '’-]{0,40})";
  private static final String EQUALS = "\\s*(?:[:：=＝]|[-–—>→]+|[.、)）](?=\\s|" + SPOKEN + "))\\s*";

  /** Where a code or a word may begin. */
  private static final String BEGINS = "(?<![\\p{L}\\p{N}])";

  private static final List<Pattern> FORMS =
      List.of(
          Pattern.compile(BEGINS + CODE + EQUALS + WORDS),
          Pattern.compile("(?<code>\\d{1,2})\\s?(?<word>" + SPOKEN + "{1,20})"),
          Pattern.compile(BEGINS + WORDS + "\\s*[:：=＝]\\s*" + CODE + "(?![\\p{L}\\p{N}])"),
          Pattern.compile("(?<word>" + SPOKEN + "{1,20})\\s?[:：=＝]?\\s?(?<code>\\d{1,2})"));

  /** What may stand between two of them. */
  private static final Pattern BETWEEN = Pattern.compile("[\\s,，;；、/|.。]*");

  private static final CommentCodes NONE = new CommentCodes("", Map.of());
  private static final Memo<CommentCodes> READ = new Memo<>(CommentCodes::read);

  /** The description of a field without its codes; null if it has none. */
  static @Nullable String about(FieldInfo field) {
    String comment = field.comment();
    return comment == null || READ.of(comment) == NONE ? comment : READ.of(comment).about();
  }

  /** What a field's codes stand for, if a column holds such words; null if it doesn't. */
  static @Nullable CommentCodes of(FieldInfo field, DistinctValues column) {
    String comment = field.comment();
    if (comment == null || field.type() != FieldType.TEXT && field.type() != FieldType.WHOLE) {
      return null;
    }
    CommentCodes codes = READ.of(comment);
    boolean isRead =
        codes != NONE
            && codes.meanings().values().stream().allMatch(code -> canHold(field, code))
            && codes.overlap(column).share() >= ENOUGH;
    return isRead ? codes : null;
  }

  private static boolean canHold(FieldInfo field, String code) {
    boolean isAllowed = field.choices() == null || field.choices().contains(code);
    return isAllowed
        && (field.type() == FieldType.TEXT || Character.isDigit(code.charAt(code.length() - 1)));
  }

  /** How many rows of a column hold one of the words. */
  Overlap overlap(DistinctValues column) {
    return LinkValues.choices(List.copyOf(meanings.keySet()), column);
  }

  private static CommentCodes read(String comment) {
    CommentCodes best = NONE;
    for (Pattern form : comment.length() > LONGEST ? List.<Pattern>of() : FORMS) {
      CommentCodes found = read(comment, form.matcher(comment));
      if (found.meanings().size() > best.meanings().size()) {
        best = found;
      }
    }
    int size = best.meanings().size();
    return size < 2 || size > MOST ? NONE : best;
  }

  /** Those that stand one behind the other. */
  private static CommentCodes read(String comment, Matcher pairs) {
    Map<String, String> meanings = new LinkedHashMap<>();
    int begin = 0;
    int end = -1;
    while (pairs.find()) {
      boolean follows =
          end >= 0 && BETWEEN.matcher(comment.substring(end, pairs.start())).matches();
      if (!follows) {
        if (meanings.size() > 1) {
          break;
        }
        meanings.clear();
        begin = pairs.start();
      }
      meanings.putIfAbsent(pairs.group("word").strip(), pairs.group("code"));
      end = pairs.end();
    }
    boolean told = meanings.values().stream().distinct().count() == meanings.size();
    String about = comment.substring(0, begin).replaceAll("[\\s(（:：,，=-]+$", "");
    return told ? new CommentCodes(about, meanings) : NONE;
  }
}
