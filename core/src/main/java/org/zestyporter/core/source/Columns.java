package org.zestyporter.core.source;

import java.util.List;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.ValueType;

/**
 * Names and types of a source's columns: all that a plan has to know of a source to be compiled.
 */
public interface Columns {

  /** Names of the columns, in order. */
  List<String> columns();

  /** Index of a column, ignoring capitals; -1 if there is none of that name. */
  int column(String name);

  /** What a column holds. */
  ValueType type(int column);

  /**
   * The locale in which a column's texts are read.
   *
   * @param column under 0 for the source's own
   */
  LocaleSettings locale(int column);
}
