package org.zestyporter.core.formula;

import java.util.List;
import java.util.function.UnaryOperator;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.ValueType;

/** What the names in a formula stand for. */
public interface Names {

  /** Titles of the columns. */
  List<String> columns();

  /** Index of a column by its title, ignoring capitals; -1 if there is none. */
  default int column(String title) {
    List<String> columns = columns();
    int same = columns.indexOf(title);
    for (int i = 0; same < 0 && i < columns.size(); i++) {
      if (columns.get(i).equalsIgnoreCase(title)) {
        same = i;
      }
    }
    return same;
  }

  /** What the values of a column are. */
  default ValueType type(int column) {
    return ValueType.TEXT;
  }

  /** How a column's texts are read as numbers and dates. */
  default LocaleSettings locale(int column) {
    return locale();
  }

  /** How texts are read that come from no column. */
  LocaleSettings locale();

  /**
   * The translation of words by a phrasebook, null for unknown ones; null if there is no such book.
   */
  default UnaryOperator<String> phrasebook(String name) {
    return null;
  }

  /** Columns of texts in one locale, and no phrasebooks. */
  static Names of(List<String> columns, LocaleSettings locale) {
    return new Names() {
      @Override
      public List<String> columns() {
        return columns;
      }

      @Override
      public LocaleSettings locale() {
        return locale;
      }
    };
  }
}
