package org.zestyporter.core.application;

/** What became of a transaction. */
public enum Settled {
  COMMITTED,
  TAKEN_BACK,
  /** It has not ended yet. */
  GOING
}
