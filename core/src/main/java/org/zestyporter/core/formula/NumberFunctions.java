package org.zestyporter.core.formula;

import static org.zestyporter.core.formula.Function.Group.NUMBER;
import static org.zestyporter.core.formula.Functions.refuse;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.function.BinaryOperator;
import java.util.function.DoubleUnaryOperator;

/** Numbers and rounding (ODF 1.2 part 2, 6.16 and 6.18). */
final class NumberFunctions {
  private static final int MOST_PLACES = 100;

  private NumberFunctions() {}

  private static Function.Builder number(String name, String parameters) {
    return Function.named(name, NUMBER, parameters, Kind.NUMBER);
  }

  static List<Function> all() {
    return List.of(
        number("ABS", "number N")
            .says("without its sign")
            .example("ABS(-3.5)", "3.5")
            .does((a, s) -> n(a, 0).abs()),
        number("SIGN", "number N")
            .says("1, 0 or -1")
            .example("SIGN(-3.5)", "-1")
            .does((a, s) -> BigDecimal.valueOf(n(a, 0).signum())),
        number("ROUND", "number N, places N?")
            .says("rounded to so many decimals, half away from zero; to tens with -1")
            .example("ROUND([LOA (ft)] * 0.3048; 2)", "11.73")
            .example("ROUND(1250; -2)", "1300")
            .does((a, s) -> round(a, RoundingMode.HALF_UP)),
        number("ROUNDUP", "number N, places N?")
            .says("rounded away from zero")
            .example("ROUNDUP(11.731; 2)", "11.74")
            .does((a, s) -> round(a, RoundingMode.UP)),
        number("ROUNDDOWN", "number N, places N?")
            .says("rounded towards zero")
            .example("ROUNDDOWN(11.739; 2)", "11.73")
            .does((a, s) -> round(a, RoundingMode.DOWN)),
        number("TRUNC", "number N, places N?")
            .says("cut off after so many decimals")
            .example("TRUNC(-11.739)", "-11")
            .does((a, s) -> round(a, RoundingMode.DOWN)),
        number("INT", "number N")
            .says("the next whole number below")
            .example("INT(-11.2)", "-12")
            .does((a, s) -> n(a, 0).setScale(0, RoundingMode.FLOOR)),
        number("EVEN", "number N")
            .says("the next even number away from zero")
            .example("EVEN(3)", "4")
            .does((a, s) -> awayTo(n(a, 0), false)),
        number("ODD", "number N")
            .says("the next odd number away from zero")
            .example("ODD(2)", "3")
            .does((a, s) -> awayTo(n(a, 0), true)),
        number("CEILING", "number N, step N?")
            .says("up to the next multiple of a step, one if not said")
            .example("CEILING([LOA (ft)]; 5)", "40")
            .does((a, s) -> multiple(a, RoundingMode.CEILING)),
        number("FLOOR", "number N, step N?")
            .says("down to the next multiple of a step, one if not said")
            .example("FLOOR([LOA (ft)]; 5)", "35")
            .does((a, s) -> multiple(a, RoundingMode.FLOOR)),
        number("MROUND", "number N, step N")
            .says("to the nearest multiple of a step")
            .example("MROUND([LOA (ft)]; 5)", "40")
            .does((a, s) -> multiple(a, RoundingMode.HALF_UP)),
        number("MOD", "number N, by N")
            .says("what a division leaves over, with the sign of the divisor")
            .example("MOD(-7; 3)", "2")
            .does((a, s) -> mod(n(a, 0), n(a, 1))),
        number("QUOTIENT", "number N, by N")
            .says("the whole part of a division")
            .example("QUOTIENT(7; 3)", "2")
            .does(
                (a, s) ->
                    n(a, 1).signum() == 0
                        ? refuse(a[0], "divided by zero")
                        : n(a, 0).divideToIntegralValue(n(a, 1))),
        number("SUM", "number N*")
            .says("the sum; blank ones are passed over")
            .example("SUM([LOA (ft)]; [Berth]; 1)", "39.5")
            .does((a, s) -> fold(a, BigDecimal::add)),
        number("PRODUCT", "number N*")
            .says("the product; blank ones are passed over")
            .example("PRODUCT(2; 3; 4)", "24")
            .does((a, s) -> product(a)),
        number("AVERAGE", "number N*")
            .says("the mean; blank ones are passed over")
            .example("AVERAGE(2; 3; 7)", "4")
            .does((a, s) -> average(a)),
        number("MEDIAN", "number N*")
            .says("the one in the middle, or the mean of the two in the middle")
            .example("MEDIAN(2; 3; 7)", "3")
            .does((a, s) -> median(a)),
        number("MIN", "number N*")
            .says("the least; blank ones are passed over")
            .example("MIN([LOA (ft)]; 30)", "30")
            .does((a, s) -> fold(a, BigDecimal::min)),
        number("MAX", "number N*")
            .says("the greatest; blank ones are passed over")
            .example("MAX([LOA (ft)]; 30)", "38.5")
            .does((a, s) -> fold(a, BigDecimal::max)),
        number("COUNT", "value A*")
            .says("how many of the values are numbers")
            .example("COUNT(1; \"x\"; 2)", "2")
            .does((a, s) -> count(a, v -> v instanceof BigDecimal)),
        number("COUNTA", "value A*")
            .says("how many of the values are not blank")
            .example("COUNTA([Kind]; [Berth]; [Boat name])", "2")
            .does((a, s) -> count(a, v -> v != null && !v.equals(""))),
        number("COUNTBLANK", "value A*")
            .says("how many of the values are blank")
            .example("COUNTBLANK([Kind]; [Berth])", "1")
            .does((a, s) -> count(a, v -> v == null || v.equals(""))),
        number("POWER", "base N, exponent N")
            .says("as ^ does")
            .example("POWER(2; 10)", "1024")
            .does((a, s) -> Numbers.power(n(a, 0), n(a, 1))),
        series("SQRT", "the square root", "SQRT(9)", "3", Math::sqrt),
        series("EXP", "e to a power", "ROUND(EXP(1); 4)", "2.7183", Math::exp),
        series("LN", "the natural logarithm", "ROUND(LN(10); 4)", "2.3026", Math::log),
        series("LOG10", "the logarithm to base 10", "LOG10(1000)", "3", Math::log10),
        number("LOG", "number N, base N?")
            .says("the logarithm to a base, 10 if not said")
            .example("LOG(8; 2)", "3")
            .does((a, s) -> logarithm(a)),
        number("PI", "")
            .says("3.14159265358979")
            .example("ROUND(PI(); 4)", "3.1416")
            .does((a, s) -> new BigDecimal("3.14159265358979")),
        number("GCD", "number N, more N*")
            .says("the greatest common divisor")
            .example("GCD(12; 18)", "6")
            .does((a, s) -> divisor(a)),
        number("LCM", "number N, more N*")
            .says("the least common multiple")
            .example("LCM(4; 6)", "12")
            .does((a, s) -> commonMultiple(a)));
  }

  private static BigDecimal n(Object[] arguments, int at) {
    return (BigDecimal) arguments[at];
  }

  private static Function series(
      String name, String says, String example, String gives, DoubleUnaryOperator of) {
    return number(name, "number N")
        .says(says)
        .example(example, gives)
        .does((a, s) -> Numbers.ofDouble(of.applyAsDouble(n(a, 0).doubleValue()), a[0]));
  }

  private static Object round(Object[] a, RoundingMode mode) {
    int places = TextFunctions.whole(a, 1, 0);
    return Math.abs(places) > MOST_PLACES
        ? refuse(a[1], "at most 100 places")
        : n(a, 0).setScale(places, mode);
  }

  private static BigDecimal awayTo(BigDecimal number, boolean odd) {
    BigDecimal whole = number.setScale(0, RoundingMode.UP);
    boolean isOdd = whole.toBigInteger().testBit(0);
    BigDecimal step = BigDecimal.valueOf(whole.signum() < 0 ? -1 : 1);
    return isOdd == odd ? whole : whole.add(step);
  }

  private static Object multiple(Object[] a, RoundingMode mode) {
    BigDecimal step = a.length > 1 && a[1] != null ? n(a, 1).abs() : BigDecimal.ONE;
    if (step.signum() == 0) {
      return BigDecimal.ZERO;
    }
    BigDecimal times = n(a, 0).divide(step, Numbers.ROUNDED).setScale(0, mode);
    return Numbers.kept(times.multiply(step));
  }

  private static Object mod(BigDecimal number, BigDecimal by) {
    if (by.signum() == 0) {
      return refuse(number, "divided by zero");
    }
    BigDecimal rest = number.remainder(by);
    return rest.signum() != 0 && rest.signum() != by.signum() ? rest.add(by) : rest;
  }

  private static List<BigDecimal> numbers(Object[] values) {
    List<BigDecimal> numbers = new ArrayList<>();
    for (Object value : values) {
      if (value instanceof BigDecimal number) {
        numbers.add(number);
      }
    }
    return numbers;
  }

  /** Of no numbers at all the answer is blank, so that no 0 is written which nobody typed. */
  private static Object fold(Object[] values, BinaryOperator<BigDecimal> function) {
    return numbers(values).stream().reduce(function).map(Numbers::kept).orElse(null);
  }

  private static Object product(Object[] values) {
    Object product = null;
    for (BigDecimal number : numbers(values)) {
      product =
          product == null
              ? number
              : Numbers.kept(((BigDecimal) product).multiply(number, Numbers.EXACT));
      if (!(product instanceof BigDecimal)) {
        return product;
      }
    }
    return product;
  }

  private static Object average(Object[] values) {
    List<BigDecimal> numbers = numbers(values);
    return numbers.isEmpty()
        ? null
        : Numbers.divide(
            numbers.stream().reduce(BigDecimal.ZERO, BigDecimal::add),
            BigDecimal.valueOf(numbers.size()));
  }

  private static Object median(Object[] values) {
    List<BigDecimal> sorted = numbers(values).stream().sorted(Comparator.naturalOrder()).toList();
    if (sorted.isEmpty()) {
      return null;
    }
    BigDecimal upper = sorted.get(sorted.size() / 2);
    BigDecimal lower = sorted.get((sorted.size() - 1) / 2);
    return Numbers.divide(lower.add(upper), BigDecimal.valueOf(2));
  }

  private static BigDecimal count(Object[] values, java.util.function.Predicate<Object> which) {
    return BigDecimal.valueOf(Arrays.stream(values).filter(which).count());
  }

  private static Object logarithm(Object[] a) {
    double base = a.length > 1 && a[1] != null ? n(a, 1).doubleValue() : 10;
    return Numbers.ofDouble(Math.log(n(a, 0).doubleValue()) / Math.log(base), a[0]);
  }

  private static Object divisor(Object[] values) {
    return whole(values, BigInteger::gcd, BigInteger.ZERO);
  }

  private static Object commonMultiple(Object[] values) {
    return whole(
        values,
        (a, b) ->
            a.signum() == 0 || b.signum() == 0
                ? BigInteger.ZERO
                : a.divide(a.gcd(b)).multiply(b).abs(),
        BigInteger.ONE);
  }

  private static Object whole(
      Object[] values, BinaryOperator<BigInteger> function, BigInteger start) {
    BigInteger result = start;
    for (BigDecimal number : numbers(values)) {
      if (number.signum() < 0) {
        return refuse(number, "under 0");
      }
      result = function.apply(result, number.setScale(0, RoundingMode.DOWN).toBigInteger());
      if (result.bitLength() > 1_000) {
        return refuse(number, "too many digits");
      }
    }
    return new BigDecimal(result);
  }
}
