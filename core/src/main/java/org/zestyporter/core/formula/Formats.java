package org.zestyporter.core.formula;

import com.ibm.icu.text.DecimalFormat;
import com.ibm.icu.text.DecimalFormatSymbols;
import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.ResolverStyle;
import java.time.temporal.TemporalAccessor;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;

/** Numbers and dates written in a format such as {@code #,##0.00} or {@code d mmmm yyyy}. */
public final class Formats {
  private static final Pattern PARTS =
      Pattern.compile("(?i)\"[^\"]*\"|y+|m+|d+|h+|s+|am/pm|.", Pattern.DOTALL);
  private static final int LONGEST = 100;
  private static final Map<String, DateTimeFormatter> DATES = new ConcurrentHashMap<>();
  private static final int REMEMBERED = 200;

  private Formats() {}

  /**
   * Writes a value in a format.
   *
   * @return the text, null for null, or a {@link Problem} if the format does not fit
   */
  public static Object write(Object value, String format) {
    if (format.length() > LONGEST) {
      return Functions.refuse(value, "the format is longer than 100 characters");
    }
    if (value == null) {
      return null;
    }
    if (value instanceof BigDecimal number) {
      return number(number, format);
    }
    if (Reads.isDate(value) || value instanceof LocalTime) {
      return date(value, format);
    }
    return value instanceof String text ? text : Functions.refuse(value, "neither number nor date");
  }

  /**
   * Reads a date, or a date with a time, that is written in a format.
   *
   * @return a {@link LocalDate}, a {@link LocalDateTime} or a {@link Problem}
   */
  public static Object readDate(String text, String format) {
    try {
      TemporalAccessor read =
          formatter(format)
              .withResolverStyle(ResolverStyle.STRICT)
              .parseBest(text.strip(), LocalDateTime::from, LocalDate::from);
      return read;
    } catch (IllegalArgumentException e) {
      return new Problem(ProblemCode.NOT_A_DATE, text, "“" + format + "” is no format for a date");
    } catch (DateTimeException e) {
      return new Problem(ProblemCode.NOT_A_DATE, text, "not written as " + format);
    }
  }

  private static Object number(BigDecimal number, String format) {
    try {
      DecimalFormat written =
          new DecimalFormat(format, DecimalFormatSymbols.getInstance(Locale.ROOT));
      written.setRoundingMode(com.ibm.icu.math.BigDecimal.ROUND_HALF_UP);
      return written.format(number);
    } catch (IllegalArgumentException e) {
      return Functions.refuse(number, "“" + format + "” is no format for a number");
    }
  }

  private static Object date(Object date, String format) {
    try {
      return formatter(format)
          .format(
              date instanceof LocalDate day
                  ? day.atStartOfDay()
                  : date instanceof LocalTime time
                      ? LocalDateTime.of(LocalDate.EPOCH, time)
                      : (LocalDateTime) date);
    } catch (IllegalArgumentException | DateTimeException e) {
      return Functions.refuse(date, "“" + format + "” is no format for a date");
    }
  }

  private static DateTimeFormatter formatter(String format) {
    DateTimeFormatter known = DATES.get(format);
    if (known == null) {
      known =
          new DateTimeFormatterBuilder()
              .parseCaseInsensitive()
              .appendPattern(pattern(format))
              .toFormatter(Locale.ENGLISH);
      if (DATES.size() < REMEMBERED) {
        DATES.put(format, known);
      }
    }
    return known;
  }

  /** The pattern of {@link DateTimeFormatter} that does the same; mm behind hours are minutes. */
  private static String pattern(String format) {
    boolean twelve = format.toLowerCase(Locale.ROOT).contains("am/pm");
    StringBuilder pattern = new StringBuilder();
    Matcher parts = PARTS.matcher(format);
    boolean clock = false;
    while (parts.find()) {
      String part = parts.group();
      String lower = part.toLowerCase(Locale.ROOT);
      switch (lower.charAt(0)) {
        case 'y' -> pattern.append(part.length() <= 2 ? "uu" : "uuuu");
        case 'd' -> pattern.append(day(part.length()));
        case 'h' -> pattern.append((twelve ? "h" : "H").repeat(Math.min(2, part.length())));
        case 's' -> pattern.append("s".repeat(Math.min(2, part.length())));
        case 'm' ->
            pattern.append(month(part.length(), clock || isBeforeSeconds(format, parts.end())));
        default -> pattern.append(other(part, lower));
      }
      if (Character.isLetter(lower.charAt(0))) {
        clock = lower.charAt(0) == 'h';
      }
    }
    return pattern.toString();
  }

  private static boolean isBeforeSeconds(String format, int from) {
    return format.substring(from).matches("(?is):s.*");
  }

  private static String day(int letters) {
    return letters <= 2 ? "d".repeat(letters) : letters == 3 ? "EEE" : "EEEE";
  }

  private static String month(int letters, boolean minutes) {
    return minutes ? "m".repeat(Math.min(2, letters)) : "M".repeat(Math.min(4, letters));
  }

  private static String other(String part, String lower) {
    if (lower.equals("am/pm")) {
      return "a";
    }
    String bare = part.length() > 1 ? part.substring(1, part.length() - 1) : part;
    return bare.isEmpty() ? "" : "'" + bare.replace("'", "''") + "'";
  }
}
