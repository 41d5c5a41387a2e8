package org.zestyporter.core.step;

import java.time.LocalTime;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ValueReader;

/** Reads a text as a time of day. */
final class ReadTime extends Operation {
  private static final Pattern CLOCK =
      Pattern.compile(
          "(?i)(\\d{1,2})(?:[:.h](\\d{2}))?(?:[:.](\\d{2}))?\\s*([ap])?\\.?(?:m\\.?)?h?");
  private static final Pattern DIGITS = Pattern.compile("\\d{4}|\\d{6}");

  ReadTime() {
    super(Group.READ, "Read as time", "9:30, 0930, 9.30 pm");
  }

  @Override
  StepFunction compile(Step step, Names names) {
    return (value, row) -> value instanceof String text ? time(text) : value;
  }

  private static Object time(String text) {
    String trimmed = text.strip();
    Object plain = ValueReader.time(trimmed);
    if (!(plain instanceof Problem)) {
      return plain;
    }
    String spread =
        DIGITS.matcher(trimmed).matches() ? trimmed.replaceAll("(\\d\\d)(?=\\d)", "$1:") : trimmed;
    Matcher clock = CLOCK.matcher(spread);
    if (!clock.matches() || (clock.group(2) == null && clock.group(4) == null)) {
      return plain;
    }
    int hour = Integer.parseInt(clock.group(1));
    int minute = clock.group(2) == null ? 0 : Integer.parseInt(clock.group(2));
    int second = clock.group(3) == null ? 0 : Integer.parseInt(clock.group(3));
    if (clock.group(4) != null) {
      if (hour < 1 || hour > 12) {
        return plain;
      }
      hour = hour % 12 + (clock.group(4).equalsIgnoreCase("p") ? 12 : 0);
    }
    return hour < 24 && minute < 60 && second < 60 ? LocalTime.of(hour, minute, second) : plain;
  }
}
