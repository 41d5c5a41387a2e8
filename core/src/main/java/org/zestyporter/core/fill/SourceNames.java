package org.zestyporter.core.fill;

import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.source.Columns;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.ValueType;

/** What steps and formulas may refer to: the source's columns, its locale, phrasebooks. */
final class SourceNames implements Names {
  private final Columns source;
  private final Phrases phrases;
  private final int own;

  /**
   * @param own the column whose locale values are read in; under 0 for the source's
   */
  SourceNames(Columns source, Phrases phrases, int own) {
    this.source = source;
    this.phrases = phrases;
    this.own = own;
  }

  @Override
  public List<String> columns() {
    return source.columns();
  }

  @Override
  public int column(String title) {
    return source.column(title);
  }

  @Override
  public ValueType type(int column) {
    return source.type(column);
  }

  @Override
  public LocaleSettings locale(int column) {
    return source.locale(column);
  }

  @Override
  public LocaleSettings locale() {
    return source.locale(own);
  }

  @Override
  public UnaryOperator<String> phrasebook(String name) {
    return phrases.has(name) ? word -> translated(name, word) : null;
  }

  @SuppressWarnings("OptionalAssignedToNull")
  private String translated(String book, String word) {
    Optional<String> found = phrases.find(book, word);
    return found == null ? null : found.orElse("");
  }
}
