package org.zestyporter.core.source.parse;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.Values;

/**
 * What a cell's number format (ECMA-376 part 1, 18.8.31) makes of its number: a date, a time, an
 * amount, or digits with zeros before them.
 */
enum NumberFormat {
  PLAIN,
  DATE,
  TIME,
  DURATION,
  PERCENT,
  MONEY,
  ZERO_PADDED;

  /** Spreadsheets keep and show 15 significant digits. */
  private static final MathContext SHEET_DIGITS = new MathContext(15);

  private static final int SECONDS_A_DAY = 86_400;
  private static final LocalDate DAY_ZERO = LocalDate.of(1899, 12, 31);
  private static final LocalDate DAY_ZERO_1904 = LocalDate.of(1904, 1, 1);

  /** The 1900 system counts a 29 February 1900 that there never was. */
  private static final int PHANTOM_DAY = 60;

  /** 31 December 9999. */
  private static final BigDecimal LAST_DAY = new BigDecimal(2_958_466);

  private static final Pattern LITERALS =
      Pattern.compile("\"[^\"]*\"|\\\\.|_.|\\*.|\\[(?!h+]|m+]|s+]|\\$)[^]]*]");
  private static final Pattern CURRENCY = Pattern.compile("\\p{Sc}|\\[\\$[^]-][^]]*]");
  private static final Map<String, NumberFormat> KNOWN = new ConcurrentHashMap<>();

  /** The kind of a format; null stands for the general one. */
  static NumberFormat of(String format) {
    return format == null ? PLAIN : KNOWN.computeIfAbsent(format, NumberFormat::find);
  }

  private static NumberFormat find(String format) {
    String first = format.split(";", 2)[0];
    String bare = LITERALS.matcher(first.toLowerCase(Locale.ROOT)).replaceAll("");
    if (bare.matches("0{2,}")) {
      return ZERO_PADDED;
    }
    if (bare.contains("general") || bare.equals("@")) {
      return PLAIN;
    }
    if (CURRENCY.matcher(format).find()) {
      return MONEY;
    }
    if (bare.contains("%")) {
      return PERCENT;
    }
    String letters = bare.replaceAll("\\[\\$[^]]*]|am/pm|a/p", "");
    if (letters.matches("(?s).*\\[(h+|m+|s+)].*")) {
      return DURATION;
    }
    boolean day = letters.matches("(?s).*[dy].*");
    boolean clock = letters.matches("(?s).*[hs].*");
    boolean month = !clock && letters.indexOf('m') >= 0 && !letters.matches(".*[0#].*");
    if (day || month) {
      return DATE;
    }
    return clock ? TIME : PLAIN;
  }

  private static boolean isTelling(String format) {
    return format != null && !format.equalsIgnoreCase("General") && !format.equals("@");
  }

  /**
   * Gives a number to the sink as what its format makes of it.
   *
   * @param written the number as the file has it
   * @param date1904 true if days are counted from 1904
   */
  static void put(RowSink sink, int column, BigDecimal written, String format, boolean date1904) {
    if (!isSane(written)) {
      sink.cell(column, new Cell(Cell.Kind.ERROR, "#NUM!"));
      return;
    }
    NumberFormat kind = of(format);
    BigDecimal number = rounded(sink, column, written);
    boolean moment = number.signum() >= 0 && number.compareTo(LAST_DAY) < 0;
    boolean isClock = kind == DATE || kind == TIME;
    if (isClock ? moment : kind != DURATION && kind != ZERO_PADDED && isTelling(format)) {
      sink.format(column, isClock, format);
    }
    switch (kind) {
      case DATE -> sink.cell(column, moment ? date(number, date1904) : plain(number));
      case TIME -> sink.cell(column, moment ? time(number, date1904) : plain(number));
      case DURATION -> duration(sink, column, number);
      case ZERO_PADDED -> padded(sink, column, number, format);
      case PERCENT -> {
        String shown = Values.plain(number.movePointRight(2)) + " %";
        sink.note(NoteCode.PERCENT, column, shown);
        sink.cell(column, plain(number));
      }
      case MONEY -> {
        sink.note(NoteCode.MONEY, column, format);
        sink.cell(column, plain(number));
      }
      default -> sink.cell(column, plain(number));
    }
  }

  /** True for what IEEE 754 binary numbers of 64 bits can hold, as a sheet's numbers are. */
  static boolean isSane(BigDecimal number) {
    return number.precision() < 1_000 && Math.abs((long) number.precision() - number.scale()) < 400;
  }

  private static BigDecimal rounded(RowSink sink, int column, BigDecimal number) {
    boolean whole = number.stripTrailingZeros().scale() <= 0;
    if (!whole) {
      return number.round(SHEET_DIGITS);
    }
    if (number.precision() - number.scale() > 15) {
      sink.note(NoteCode.TOO_MANY_DIGITS, column, Values.plain(number));
    }
    return number;
  }

  private static Cell plain(BigDecimal number) {
    return new Cell(Cell.Kind.NUMBER, Values.plain(number));
  }

  private static Cell date(BigDecimal serial, boolean date1904) {
    long seconds = seconds(serial);
    long days = seconds / SECONDS_A_DAY;
    LocalTime clock = LocalTime.ofSecondOfDay(seconds % SECONDS_A_DAY);
    LocalDate day =
        date1904
            ? DAY_ZERO_1904.plusDays(days)
            : DAY_ZERO.plusDays(days > PHANTOM_DAY ? days - 1 : days);
    if (days == 0 && !date1904 && clock.toSecondOfDay() > 0) {
      return new Cell(Cell.Kind.TIME, clock.toString());
    }
    return clock.toSecondOfDay() == 0
        ? new Cell(Cell.Kind.DATE, day.toString())
        : new Cell(Cell.Kind.DATETIME, Values.text(LocalDateTime.of(day, clock)));
  }

  private static Cell time(BigDecimal serial, boolean date1904) {
    return serial.compareTo(BigDecimal.ONE) < 0
        ? new Cell(Cell.Kind.TIME, LocalTime.ofSecondOfDay(seconds(serial)).toString())
        : date(serial, date1904);
  }

  private static void duration(RowSink sink, int column, BigDecimal days) {
    long seconds = seconds(days.abs());
    String text =
        String.format(
            Locale.ROOT,
            "%s%d:%02d%s",
            days.signum() < 0 ? "-" : "",
            seconds / 3600,
            seconds / 60 % 60,
            seconds % 60 == 0 ? "" : String.format(Locale.ROOT, ":%02d", seconds % 60));
    if (seconds >= SECONDS_A_DAY) {
      sink.note(NoteCode.DURATION, column, text);
    }
    sink.cell(column, Cell.text(text));
  }

  private static void padded(RowSink sink, int column, BigDecimal number, String format) {
    boolean whole = number.signum() >= 0 && number.stripTrailingZeros().scale() <= 0;
    int width = (int) format.chars().filter(c -> c == '0').count();
    String digits = Values.plain(number);
    if (whole && digits.length() < width) {
      String shown = "0".repeat(width - digits.length()) + digits;
      sink.note(NoteCode.ZERO_PADDED, column, shown);
      sink.cell(column, Cell.text(shown));
    } else if (whole) {
      sink.cell(column, Cell.text(digits));
    } else {
      sink.cell(column, plain(number));
    }
  }

  private static long seconds(BigDecimal days) {
    return days.multiply(BigDecimal.valueOf(SECONDS_A_DAY))
        .setScale(0, RoundingMode.HALF_UP)
        .longValue();
  }
}
