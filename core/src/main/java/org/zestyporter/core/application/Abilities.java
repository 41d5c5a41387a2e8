package org.zestyporter.core.application;

import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * What an application is able to do.
 *
 * @param transactions what is written can be taken back until it is committed
 * @param sets records are written many at a time
 * @param keysBeforehand the keys that it will give new records can be had before they are written
 * @param trial a run can be tried to its end and rolled back
 * @param writes records may be written at all
 */
public record Abilities(
    boolean transactions, boolean sets, boolean keysBeforehand, boolean trial, boolean writes) {

  /** The same, but nothing may be written. */
  public Abilities forReading() {
    return new Abilities(transactions, sets, keysBeforehand, false, false);
  }

  /**
   * Throws if nothing may be written.
   *
   * @throws PorterException with code {@code read-only}
   */
  public void requireWriting() {
    if (!writes) {
      throw ErrorCode.READ_ONLY.error(
          "The connection is for reading only: its records can be looked at, and plans for it"
              + " rehearsed.",
          "To write through it, change that in Connections.");
    }
  }
}
