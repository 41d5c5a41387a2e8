package org.zestyporter.core.formula;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/** Arithmetic in decimal numbers: sums and products of up to 34 digits are exact. */
final class Numbers {
  static final MathContext EXACT = MathContext.DECIMAL128;

  /** Quotients and what is computed by series keep so many digits. */
  static final MathContext ROUNDED = new MathContext(20);

  static final int MOST_DIGITS = 300;
  private static final BigDecimal SECONDS_A_DAY = BigDecimal.valueOf(86_400);
  private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);

  private Numbers() {}

  static Object arithmetic(String sign, BigDecimal a, BigDecimal b) {
    return switch (sign) {
      case "+" -> kept(a.add(b, EXACT));
      case "-" -> kept(a.subtract(b, EXACT));
      case "*" -> kept(a.multiply(b, EXACT));
      case "/" -> divide(a, b);
      default -> power(a, b);
    };
  }

  static Object divide(BigDecimal a, BigDecimal b) {
    return b.signum() == 0
        ? problem(ProblemCode.FORMULA, Values.plain(a), "divided by zero")
        : kept(a.divide(b, ROUNDED));
  }

  static Object power(BigDecimal base, BigDecimal exponent) {
    try {
      int whole = exponent.intValueExact();
      if (whole >= 0 && whole <= 999 && base.precision() * (long) whole <= 1_000_000) {
        return kept(base.pow(whole, EXACT));
      }
    } catch (ArithmeticException e) {
      // not a whole number: computed below
    }
    return ofDouble(Math.pow(base.doubleValue(), exponent.doubleValue()), base);
  }

  static BigDecimal percent(BigDecimal number) {
    return number.divide(HUNDRED, EXACT);
  }

  /**
   * A computed number, or the problem that there is none; {@code of} is what it was computed from.
   */
  static Object ofDouble(double number, Object of) {
    return Double.isNaN(number) || Double.isInfinite(number)
        ? problem(ProblemCode.FORMULA, Values.text(of), "there is no such number")
        : kept(new BigDecimal(number, new MathContext(15)));
  }

  /** The number if it can be written down, without needless zeros. */
  static Object kept(BigDecimal number) {
    if (Math.abs((long) number.precision() - number.scale()) > MOST_DIGITS
        || number.scale() > MOST_DIGITS) {
      return problem(
          ProblemCode.FORMULA, number.round(new MathContext(5)).toString(), "too many digits");
    }
    return number;
  }

  static BigDecimal round(BigDecimal number, int places, RoundingMode mode) {
    return number.setScale(places, mode);
  }

  /** A date some days on; a fraction of a day makes it a date with a time. */
  static Object shift(Object date, BigDecimal days) {
    if (days.abs().compareTo(BigDecimal.valueOf(4_000_000)) > 0) {
      return problem(ProblemCode.FORMULA, Values.text(date), "no year that far away");
    }
    BigDecimal whole = days.setScale(0, RoundingMode.FLOOR);
    long seconds =
        days.subtract(whole).multiply(SECONDS_A_DAY).setScale(0, RoundingMode.HALF_UP).longValue();
    if (date instanceof LocalDate day && seconds == 0) {
      return day.plusDays(whole.longValue());
    }
    return Reads.moment(date).plusDays(whole.longValue()).plusSeconds(seconds);
  }

  /** Days from one date to another. */
  static BigDecimal days(Object from, Object to) {
    if (from instanceof LocalDate a && to instanceof LocalDate b) {
      return BigDecimal.valueOf(b.toEpochDay() - a.toEpochDay());
    }
    LocalDateTime start = Reads.moment(from);
    long seconds = Duration.between(start, Reads.moment(to)).toSeconds();
    return BigDecimal.valueOf(seconds).divide(SECONDS_A_DAY, ROUNDED);
  }

  static Problem problem(ProblemCode code, String value, String reason) {
    return new Problem(code, value, reason);
  }
}
