package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.source.Columns;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.ValueType;

/** What steps and formulas may refer to: the source's columns, its locale, phrasebooks. */
final class StepContext implements Names {
  /** The name by which a formula in a step calls the value so far. */
  static final String VALUE = "value";

  private final Columns source;
  private final Phrases phrases;
  private final int own;
  private final boolean withValue;

  /**
   * @param own the column whose locale values are read in; under 0 for the source's
   */
  StepContext(Columns source, Phrases phrases, int own, boolean withValue) {
    this.source = source;
    this.phrases = phrases;
    this.own = own;
    this.withValue = withValue;
  }

  /** The same for the formula of a step, which also knows the value so far as its last column. */
  StepContext inStep() {
    return new StepContext(source, phrases, own, true);
  }

  Phrases phrases() {
    return phrases;
  }

  /** Index of a column. */
  int require(String column) {
    int index = source.column(column);
    if (index < 0) {
      throw ErrorCode.NO_SUCH_COLUMN.error(
          "The file has no column “" + column + "”, which a step reads.");
    }
    return index;
  }

  int valueIndex() {
    return source.columns().size();
  }

  @Override
  public List<String> columns() {
    if (!withValue) {
      return source.columns();
    }
    List<String> columns = new ArrayList<>(source.columns());
    columns.add(VALUE);
    return columns;
  }

  @Override
  public int column(String title) {
    int found = source.column(title);
    return found < 0 && withValue && title.equalsIgnoreCase(VALUE) ? valueIndex() : found;
  }

  @Override
  public ValueType type(int column) {
    return column == valueIndex() ? ValueType.TEXT : source.type(column);
  }

  @Override
  public LocaleSettings locale(int column) {
    return column == valueIndex() ? locale() : source.locale(column);
  }

  @Override
  public LocaleSettings locale() {
    return source.locale(own);
  }

  @Override
  public UnaryOperator<String> phrasebook(String name) {
    return phrases.has(name)
        ? word -> {
          var found = phrases.find(name, word);
          return found == null ? null : found.orElse("");
        }
        : null;
  }
}
