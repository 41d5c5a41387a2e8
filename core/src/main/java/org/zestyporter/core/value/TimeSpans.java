package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Lengths of time in months, days and a part of a day, which say nothing of each other: a month has
 * no certain number of days, a day no certain number of hours.
 *
 * <p>Read as ISO 8601 writes them ({@code P1Y2M3DT4H5M6.5S}) and in words ({@code 1 day 02:30},
 * {@code 2 Tage, 3 Std.}), written in the latter in English.
 */
final class TimeSpans {
  private static final long MICROS = 1_000_000;
  private static final long HOUR = 3_600 * MICROS;
  private static final int MOST_DIGITS = 12;

  /** What a unit is in months, days or microseconds: one of the three. */
  private record Unit(int months, int days, long micros) {}

  private static final Map<String, Unit> UNITS =
      Map.ofEntries(
          Map.entry("year", new Unit(12, 0, 0)),
          Map.entry("mon", new Unit(1, 0, 0)),
          Map.entry("month", new Unit(1, 0, 0)),
          Map.entry("week", new Unit(0, 7, 0)),
          Map.entry("day", new Unit(0, 1, 0)),
          Map.entry("hour", new Unit(0, 0, HOUR)),
          Map.entry("hr", new Unit(0, 0, HOUR)),
          Map.entry("min", new Unit(0, 0, 60 * MICROS)),
          Map.entry("minute", new Unit(0, 0, 60 * MICROS)),
          Map.entry("sec", new Unit(0, 0, MICROS)),
          Map.entry("second", new Unit(0, 0, MICROS)));

  private static final Map<Character, Unit> BEFORE_TIME =
      Map.of(
          'Y', UNITS.get("year"),
          'M', UNITS.get("month"),
          'W', UNITS.get("week"),
          'D', UNITS.get("day"));
  private static final Map<Character, Unit> OF_TIME =
      Map.of('H', UNITS.get("hour"), 'M', UNITS.get("minute"), 'S', UNITS.get("second"));

  private static final Pattern ISO = Pattern.compile("(-?\\d+(?:\\.\\d+)?)([YMWDHS])|(T)");

  /** What may stand between two parts. */
  private static final String BETWEEN = ", ?|(?:and|und|et|y|e|en|ve|och|og|i|a|ja|és) (?=\\d)";

  private static final Pattern WORD =
      Pattern.compile(
          "([-+]?\\d+(?:[.,]\\d+)?) ?(\\p{L}[\\p{L}\\p{M}]*)\\.? ?(?:" + BETWEEN + ")?");
  private static final Pattern CLOCK =
      Pattern.compile("([-+]?)(\\d{1,9}):([0-5]\\d)(?::([0-5]\\d(?:\\.\\d{1,6})?))?");

  private long months;
  private long days;
  private long micros;

  private TimeSpans() {}

  /** A length of time as it is kept; null if the text is none. */
  static @Nullable String canonical(String text) {
    TimeSpans span = new TimeSpans();
    String bare = text.strip();
    boolean read =
        bare.startsWith("P")
            ? bare.length() > 1 && span.iso(bare.substring(1))
            : span.words(bare.toLowerCase(Locale.ROOT));
    return read ? span.toString() : null;
  }

  private boolean iso(String text) {
    Matcher part = ISO.matcher(text);
    Map<Character, Unit> units = BEFORE_TIME;
    int end = 0;
    while (part.find() && part.start() == end) {
      end = part.end();
      if (part.group(3) != null) {
        units = OF_TIME;
      } else if (!add(part.group(1), units.get(part.group(2).charAt(0)))) {
        return false;
      }
    }
    return end == text.length();
  }

  private boolean words(String text) {
    int at = 0;
    Matcher word = WORD.matcher(text);
    while (word.region(at, text.length()).lookingAt()) {
      if (!add(number(word.group(1)), unit(word.group(2)))) {
        return false;
      }
      at = word.end();
    }
    Matcher clock = CLOCK.matcher(text).region(at, text.length());
    if (clock.matches()) {
      BigDecimal seconds =
          new BigDecimal(clock.group(4) == null ? "0" : clock.group(4))
              .add(BigDecimal.valueOf(Long.parseLong(clock.group(2)) * 3_600))
              .add(BigDecimal.valueOf(Long.parseLong(clock.group(3)) * 60));
      boolean isUnder = clock.group(1).equals("-");
      return add((isUnder ? seconds.negate() : seconds).toPlainString(), UNITS.get("second"));
    }
    return at > 0 && at == text.length();
  }

  private static @Nullable Unit unit(String word) {
    Unit known = UNITS.get(word);
    if (known == null && word.endsWith("s")) {
      known = UNITS.get(word.substring(0, word.length() - 1));
    }
    String meant = known == null ? TimeWords.unit(word) : null;
    return meant == null ? known : UNITS.get(meant);
  }

  /** A comma is a decimal sign, unless it may part thousands; null then. */
  private static @Nullable String number(String text) {
    return text.matches(".*,\\d{3}") ? null : text.replace(',', '.');
  }

  private boolean add(@Nullable String number, @Nullable Unit unit) {
    if (unit == null || number == null || number.length() > MOST_DIGITS + 9) {
      return false;
    }
    BigDecimal many = new BigDecimal(number);
    if (many.precision() - many.scale() > MOST_DIGITS) {
      return false;
    }
    BigDecimal whole = many.setScale(0, java.math.RoundingMode.DOWN);
    BigDecimal rest = many.subtract(whole);
    if (unit.micros() > 0) {
      micros += many.multiply(BigDecimal.valueOf(unit.micros())).longValue();
      return true;
    }
    if (rest.signum() != 0 && unit.days() != 1) {
      // nobody knows how long half a month is
      return false;
    }
    months += whole.longValue() * unit.months();
    days += whole.longValue() * unit.days();
    micros += rest.multiply(BigDecimal.valueOf(24 * HOUR)).longValue();
    return true;
  }

  /** As PostgreSQL's interval style of its own name writes it. */
  @Override
  public String toString() {
    StringBuilder out = new StringBuilder();
    boolean isUnder = part(out, months / 12, "year", false);
    isUnder = part(out, months % 12, "mon", isUnder);
    isUnder = part(out, days, "day", isUnder);
    if (micros != 0 || out.isEmpty()) {
      long rest = Math.abs(micros);
      out.append(out.isEmpty() ? "" : " ").append(micros < 0 ? "-" : isUnder ? "+" : "");
      long seconds = rest / MICROS;
      out.append(
          String.format(
              Locale.ROOT, "%02d:%02d:%02d", seconds / 3_600, seconds / 60 % 60, seconds % 60));
      if (rest % MICROS != 0) {
        out.append(String.format(Locale.ROOT, ".%06d", rest % MICROS).replaceFirst("0+$", ""));
      }
    }
    return out.toString();
  }

  /** True if the last part that was written is under 0. */
  private static boolean part(StringBuilder out, long value, String unit, boolean isUnder) {
    if (value == 0) {
      return isUnder;
    }
    out.append(out.isEmpty() ? "" : " ").append(isUnder && value > 0 ? "+" : "").append(value);
    out.append(' ').append(unit).append(value == 1 ? "" : "s");
    return value < 0;
  }
}
