package org.zestyporter.core.source;

import org.jspecify.annotations.Nullable;

/**
 * Something that does not keep the file from being read but should be known.
 *
 * @param row line number in the file, from 1; 0 if it concerns no single line
 * @param code what it is about
 * @param message what it is, in words
 * @param column name of the column that it concerns
 * @param rows how many rows it concerns; 0 if it concerns the file
 * @param confirm true if a person has to settle it
 */
public record Warning(
    long row,
    WarningCode code,
    String message,
    @Nullable String column,
    long rows,
    boolean confirm) {

  /** By what a person's word on it is remembered. */
  String key() {
    return key(code, column);
  }

  static String key(WarningCode code, @Nullable String column) {
    return code.word() + ":" + (column == null ? "" : column);
  }

  Warning asConfirmed() {
    return new Warning(row, code, message, column, rows, false);
  }
}
