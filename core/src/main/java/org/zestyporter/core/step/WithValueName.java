package org.zestyporter.core.step;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.ValueType;

/** The names of a row's columns, and the one by which a formula calls the value so far. */
final class WithValueName implements Names {
  static final String VALUE = "value";

  private final Names names;

  WithValueName(Names names) {
    this.names = names;
  }

  /** Index of the value among the columns: behind the last. */
  int valueIndex() {
    return names.columns().size();
  }

  @Override
  public List<String> columns() {
    List<String> columns = new ArrayList<>(names.columns());
    columns.add(VALUE);
    return columns;
  }

  @Override
  public int column(String title) {
    int found = names.column(title);
    return found < 0 && title.equalsIgnoreCase(VALUE) ? valueIndex() : found;
  }

  @Override
  public ValueType type(int column) {
    return column == valueIndex() ? ValueType.TEXT : names.type(column);
  }

  @Override
  public LocaleSettings locale(int column) {
    return column == valueIndex() ? locale() : names.locale(column);
  }

  @Override
  public LocaleSettings locale() {
    return names.locale();
  }

  @Override
  public UnaryOperator<String> phrasebook(String name) {
    return names.phrasebook(name);
  }
}
