package org.zestyporter.core.fill;

import java.time.LocalDateTime;

/**
 * What generated values are made of; fixed for a whole rehearsal or run.
 *
 * @param who the person who starts it
 * @param time the only clock that values may see
 * @param fileName name of the source
 * @param number the run's number; “rehearsal” if nothing is written
 */
public record RunContext(String who, LocalDateTime time, String fileName, String number) {

  /** Of a rehearsal. */
  public RunContext(String who, LocalDateTime time, String fileName) {
    this(who, time, fileName, "rehearsal");
  }
}
