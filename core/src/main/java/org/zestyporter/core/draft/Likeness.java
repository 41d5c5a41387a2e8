package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.Words;

/**
 * How well the names of a column and a field agree.
 *
 * @param score 0 to 100
 * @param because the evidence in words
 */
record Likeness(int score, String because) {

  /** Of a column and a field of a table, by its name and its comment. */
  static Likeness of(TableInfo table, FieldInfo field, String column) {
    Likeness whole = plain(table, field, column);
    int dot = column.lastIndexOf('.');
    if (dot < 0 || dot == column.length() - 1) {
      return whole;
    }
    // of owner.insured the last part names the value, the others say whose it is
    Likeness last = plain(table, field, column.substring(dot + 1));
    return last.score() - 5 > whole.score()
        ? new Likeness(last.score() - 5, last.because())
        : whole;
  }

  private static Likeness plain(TableInfo table, FieldInfo field, String column) {
    List<String> columnWords = new ArrayList<>(Words.of(column));
    List<String> fieldWords = Words.of(field.name());
    List<String> tableWords = Words.of(table.name());
    Likeness best = new Likeness(Words.agreement(columnWords, fieldWords), "the names agree");
    if (columnWords.size() > 1) {
      columnWords.removeIf(w -> tableWords.stream().anyMatch(t -> Words.alike(w, t) > 0.5));
      int withoutTable = Words.agreement(columnWords, fieldWords) - 3;
      if (withoutTable > best.score()) {
        best = new Likeness(withoutTable, "the names agree");
      }
    }
    String comment = field.comment();
    if (comment != null) {
      String first = Words.split(column).get(0);
      if (first.length() >= 3 && Words.initials(comment).startsWith(first)) {
        return best.score() >= 80 ? best : new Likeness(80, "short for “" + comment + "”");
      }
      int said = Words.agreement(Words.of(column), Words.of(comment)) * 8 / 10;
      if (said > best.score()) {
        best = new Likeness(said, "the field is described as “" + comment + "”");
      }
    }
    return best;
  }

  /** True if a column is called what the table holds. */
  static boolean isTheTable(TableInfo table, String column) {
    List<String> tableWords = Words.of(table.name());
    List<String> words = Words.of(column);
    String last = tableWords.get(tableWords.size() - 1);
    return words.size() == 1 && Words.alike(words.get(0), last) == 1;
  }
}
