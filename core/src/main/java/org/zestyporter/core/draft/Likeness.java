package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.Words;

/**
 * How well the names of a column and a field agree.
 *
 * @param score 0 to 100
 * @param because the evidence in words
 * @param isSame true if the column is called just what the field is, or is described as
 */
record Likeness(int score, String because, boolean isSame) {
  /** A name that says just what the field is called. */
  static final int SAME = 90;

  /** Letters that the plural of a word has more. */
  private static final int ENDING = 3;

  /** Likeness of words whose last letters differ. */
  private static final double INFLECTED = 0.8;

  /** Of a column and a field of a table, by its name and its comment. */
  static Likeness of(TableInfo table, FieldInfo field, String column) {
    return new Title(table, column, column).to(field);
  }

  /** A column's title, made ready to be compared with the fields of a table. */
  static final class Title {
    private static final int BEHIND_A_DOT = 5;
    private static final int BENEATH_OTHERS = 2;

    private final String text;
    private final List<String> words;

    /** Without those that only say what the table holds; null if there are none such. */
    private final @Nullable List<String> own;

    /**
     * Of owner.insured the last part names the value, the others say whose it is; likewise what
     * stands beneath a title that several columns share.
     */
    private final @Nullable Title last;

    /** What it says counts that much less. */
    private final int less;

    /**
     * @param lowest the title without those above it that several columns share
     */
    Title(TableInfo table, String text, String lowest) {
      this.text = text;
      this.words = Words.of(text);
      this.own = words.size() > 1 ? without(Words.of(table.name())) : null;
      int dot = text.lastIndexOf('.');
      boolean parted = dot >= 0 && dot < text.length() - 1;
      String part = parted && lowest.equals(text) ? text.substring(dot + 1) : lowest;
      this.less = lowest.equals(text) ? BEHIND_A_DOT : BENEATH_OTHERS;
      this.last = part.equals(text) ? null : new Title(table, part, part);
    }

    private @Nullable List<String> without(List<String> others) {
      List<String> rest = new ArrayList<>(words);
      boolean any = rest.removeIf(w -> others.stream().anyMatch(o -> Words.alike(w, o) > 0.5));
      return any ? rest : null;
    }

    Likeness to(FieldInfo field) {
      Likeness whole = plain(field);
      Likeness part = last == null ? whole : last.to(field);
      int score = part.score() - less;
      return score > whole.score() ? new Likeness(score, part.because(), part.isSame()) : whole;
    }

    private Likeness plain(FieldInfo field) {
      List<String> fieldWords = Words.of(field.name());
      Likeness best = ofNames(Words.agreement(words, fieldWords));
      int withoutTable = own == null ? 0 : Words.agreement(own, fieldWords) - 3;
      if (withoutTable > best.score()) {
        best = ofNames(withoutTable);
      }
      if (isDated(field)) {
        int withoutDate = undated(field.name());
        if (withoutDate > best.score()) {
          best = ofNames(withoutDate);
        }
      }
      String comment = CommentCodes.about(field);
      if (comment != null && !comment.isEmpty()) {
        String first = Words.split(text).get(0);
        if (first.length() >= 3 && Words.initials(comment).startsWith(first)) {
          return best.score() >= 80 ? best : new Likeness(80, "short for “" + comment + "”", false);
        }
        int said = Words.agreement(words, Words.of(comment));
        if (isDated(field)) {
          said = Math.max(said, undated(comment));
        }
        int score = said * 8 / 10;
        if (score > best.score()) {
          String because = "the field is described as “" + comment + "”";
          best = new Likeness(score, because, said >= SAME);
        }
      }
      return best;
    }

    /** “Born” is the date of birth: that it is a date is said by its values. */
    private int undated(String other) {
      return Words.agreement(Words.undated(text), Words.undated(other)) - 3;
    }
  }

  private static Likeness ofNames(int score) {
    return new Likeness(score, "the names agree", score >= SAME);
  }

  private static boolean isDated(FieldInfo field) {
    return field.type() == FieldType.DATE || field.type() == FieldType.DATETIME;
  }

  /** True if a word is another one with a few letters behind it, as in the plural. */
  static boolean hasEnding(String word, String stem) {
    return word.startsWith(stem) && word.length() - stem.length() <= ENDING;
  }

  /** True if a column is called what the table holds, which may be called by its plural. */
  static boolean isTheTable(TableInfo table, String column) {
    List<String> tableWords = Words.of(table.name());
    List<String> words = Words.of(column);
    if (words.size() != 1) {
      return false;
    }
    String last = tableWords.get(tableWords.size() - 1);
    String word = words.get(0);
    boolean isPlural = word.length() > 2 && hasEnding(last, word);
    // contracts in a title are several of them, in another language it is hardly ever so
    boolean isMeant = !word.startsWith(last) && Words.says(last, word);
    double alike = Words.alike(word, last);
    // Sklypo Nr. of sklypas: the same word with another ending
    boolean isInflected =
        alike >= INFLECTED && !word.startsWith(last) && word.length() <= last.length();
    return isPlural || isMeant || isInflected || alike == 1;
  }
}
