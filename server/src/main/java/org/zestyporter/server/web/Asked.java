package org.zestyporter.server.web;

import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** What a request may ask for: numbers within bounds, words of a length. */
public final class Asked {
  private static final int SHOWN = 60;

  private Asked() {}

  /**
   * How many of something are wanted.
   *
   * @return at most {@code most}
   * @throws PorterException if it is under 0
   */
  public static int count(int wanted, int most) {
    if (wanted < 0) {
      throw ErrorCode.NUMBER.error("Nobody can be shown " + wanted + " of them.");
    }
    return Math.min(wanted, most);
  }

  /**
   * From where on something is wanted.
   *
   * @throws PorterException if it is under 0
   */
  public static long from(long offset) {
    if (offset < 0) {
      throw ErrorCode.NUMBER.error("A list begins at 0, not at " + offset + ".");
    }
    return offset;
  }

  /**
   * A text of a length that can be kept.
   *
   * @throws PorterException if it is missing, blank or longer
   */
  public static String text(String what, String text, int longest) {
    if (text == null || text.isBlank() || text.length() > longest) {
      throw ErrorCode.TEXT.error(
          String.format(java.util.Locale.ROOT, "%s has from 1 to %,d characters.", what, longest));
    }
    return text;
  }

  /** A text from a request, short enough to be shown. */
  public static String shown(String text) {
    return text.length() > SHOWN ? text.substring(0, SHOWN) + "…" : text;
  }
}
