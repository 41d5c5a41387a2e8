package org.zestyporter.core.value;

import java.util.stream.IntStream;

/** Does what does not depend on order on all processors. */
public final class SideBySide {
  private SideBySide() {}

  /** Work on some of a number of things. */
  @FunctionalInterface
  public interface Part {

    /** Works on the things from a number on, up to another one. */
    void go(int from, int to);
  }

  /**
   * Has so many things worked on, in as many parts as there are processors.
   *
   * @param least things that are worth a part of their own
   */
  public static void go(int count, int least, Part part) {
    int most = Runtime.getRuntime().availableProcessors();
    int parts = Math.max(1, Math.min(count / least, most));
    if (parts == 1) {
      part.go(0, count);
      return;
    }
    IntStream.range(0, parts)
        .parallel()
        .forEach(p -> part.go(count * p / parts, count * (p + 1) / parts));
  }
}
