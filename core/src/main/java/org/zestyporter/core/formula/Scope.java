package org.zestyporter.core.formula;

import java.time.LocalDateTime;

/** The row that a formula is run for, and the run that it is part of. */
public interface Scope {

  /** The value of a column; null if blank, a problem if the file holds an error. */
  Object column(int index);

  /** Number of the row's line in the file. */
  long line();

  /** When the run began; the only clock there is. */
  LocalDateTime now();

  /** The person who started the run. */
  String who();

  String fileName();
}
