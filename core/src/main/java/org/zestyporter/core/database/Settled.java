package org.zestyporter.core.database;

/** What became of a transaction. */
public enum Settled {
  COMMITTED,
  TAKEN_BACK,
  /** It has not ended yet. */
  GOING
}
