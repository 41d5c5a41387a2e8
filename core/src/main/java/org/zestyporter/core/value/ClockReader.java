package org.zestyporter.core.value;

import java.time.LocalTime;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Reads times of day on the clocks of 24 and of 12 hours: 14:30, 2:30:15 pm, 午後2:30, 14時30分. */
final class ClockReader {
  private static final String FIRST_HALF = "a\\.?\\s?m\\.?|π\\.?μ\\.?|午前|上午|오전|ص";
  private static final String SECOND_HALF = "p\\.?\\s?m\\.?|μ\\.?μ\\.?|午後|下午|오후|م";
  private static final Pattern CLOCK =
      Pattern.compile(
          "(?i)(?:(?<before>AM|PM)\\s?)?(?<hour>\\d{1,2})(?::|[時时点點]|시\\s?)(?<minute>\\d{2}|\\d(?=[分분]))"
                  .replace("AM", FIRST_HALF)
                  .replace("PM", SECOND_HALF)
              + "(?:(?::|分|분\\s?)(?<second>\\d{2}|\\d(?=[秒초]))(?:[.,](?<part>\\d{1,9}))?)?[分분秒초]?"
              + "(?:\\s?(?<after>AM|PM))?".replace("AM", FIRST_HALF).replace("PM", SECOND_HALF));
  private static final Pattern SECOND = Pattern.compile("(?i)" + SECOND_HALF);
  private static final int LONGEST = 30;

  private ClockReader() {}

  /** The time; null if the text is none. */
  static @Nullable LocalTime find(String text) {
    if (text.length() < 4 || text.length() > LONGEST) {
      return null;
    }
    LocalTime plain = PlainMoment.time(text);
    if (plain != null) {
      return plain;
    }
    Matcher clock = CLOCK.matcher(text);
    if (!clock.matches() || clock.group("before") != null && clock.group("after") != null) {
      return null;
    }
    int hour = Integer.parseInt(clock.group("hour"));
    int minute = Integer.parseInt(clock.group("minute"));
    int second = clock.group("second") == null ? 0 : Integer.parseInt(clock.group("second"));
    String half = clock.group("before") == null ? clock.group("after") : clock.group("before");
    if (half != null) {
      if (hour > 12) {
        return null;
      }
      hour = hour % 12 + (SECOND.matcher(half).matches() ? 12 : 0);
    }
    if (hour > 23 || minute > 59 || second > 59) {
      return null;
    }
    String part = clock.group("part");
    int nanos = part == null ? 0 : Integer.parseInt((part + "00000000").substring(0, 9));
    return LocalTime.of(hour, minute, second, nanos);
  }

  /**
   * Where a time begins that ends a text: behind a space, a T or a Japanese day; -1 if there is
   * none.
   */
  static int begin(String text) {
    int at = 0;
    while (at < text.length() && ":時时点點시".indexOf(text.charAt(at)) < 0) {
      at++;
    }
    if (at == text.length()) {
      return -1;
    }
    while (at > 0 && Character.isDigit(text.charAt(at - 1))) {
      at--;
    }
    int digits = at;
    while (at > 0 && text.charAt(at - 1) == ' ') {
      at--;
    }
    int words = at;
    while (words > 0
        && (Character.isLetter(text.charAt(words - 1)) || text.charAt(words - 1) == '.')) {
      words--;
    }
    // the half of the day may stand before it
    return words < at && CLOCK.matcher(text.substring(words)).matches() ? words : digits;
  }
}
