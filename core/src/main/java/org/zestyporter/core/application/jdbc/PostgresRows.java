package org.zestyporter.core.application.jdbc;

import org.zestyporter.core.value.Utf8;

/** Records in one of the formats of {@code COPY} (PostgreSQL's documentation, part VI). */
interface PostgresRows {

  /** What the statement says of the format. */
  String options();

  /** Writes what comes before the first record. */
  void begin(Utf8 out);

  /** Writes the record of a row. */
  void row(int row, Utf8 out);

  /** Writes what comes after the last record. */
  void end(Utf8 out);
}
