package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.measure.IncommensurableException;
import javax.measure.Unit;
import javax.measure.UnitConverter;
import org.jspecify.annotations.Nullable;
import tech.units.indriya.unit.Units;

/**
 * Units of measure: by the names of OpenFormula's CONVERT (ODF 1.2 part 2, 6.16.18) and by those
 * that stand in headings. The measures themselves are those of JSR 385.
 */
public final class Measures {
  private static final MathContext DIGITS = MathContext.DECIMAL128;

  /** Digits of a converted measure that mean something. */
  private static final MathContext SHOWN = new MathContext(15);

  private static final int PLACES = 12;
  private static final Map<String, Measure> BY_NAME = new HashMap<>();
  private static final Map<String, Measure> MEASURES = new LinkedHashMap<>();

  private static final Pattern NUMBER_AND_UNIT =
      Pattern.compile(
          "\\G\\s*(?:and|,)?\\s*([0-9][0-9.,\\u00A0 ]*?|[0-9]*\\s?[0-9]+/[0-9]+)\\s*"
              + "('{1,2}|’{1,2}|\"|″|′|”|°|\\p{L}[\\p{L}²³]*\\.?)(?=[\\s0-9,]|$)");

  static {
    length();
    other();
  }

  private Measures() {}

  /**
   * A unit of measure.
   *
   * @param symbol its short name, {@code ft}
   * @param title its name in the plural, {@code feet}
   */
  public record Measure(String symbol, String title, Unit<?> unit) {}

  /**
   * From one unit to another: {@code value * factor + offset}.
   *
   * @param factor how many of the other one make one
   */
  public record Conversion(BigDecimal factor, BigDecimal offset) {
    public BigDecimal apply(BigDecimal value) {
      BigDecimal converted = value.multiply(factor).add(offset);
      if (converted.precision() <= SHOWN.getPrecision() && converted.scale() <= PLACES) {
        return converted;
      }
      // what the factor's own last digits leave behind is no part of the measure
      BigDecimal bare =
          offset.signum() == 0
              ? converted.round(SHOWN)
              : converted.setScale(PLACES, RoundingMode.HALF_UP);
      bare = bare.stripTrailingZeros();
      return bare.scale() < 0 ? bare.setScale(0) : bare;
    }
  }

  private static void length() {
    Unit<?> metre = Units.METRE;
    add("m", "metres", metre, "metre", "meter", "meters", "mtr");
    add("mm", "millimetres", metre.divide(1000), "millimetre", "millimeters");
    add("cm", "centimetres", metre.divide(100), "centimetre", "centimeters");
    add("km", "kilometres", metre.multiply(1000), "kilometre", "kilometers");
    add("ft", "feet", metre.multiply(3048).divide(10_000), "foot", "'", "′", "’");
    add("in", "inches", metre.multiply(254).divide(10_000), "inch", "\"", "″", "”", "''", "’’");
    add("yd", "yards", metre.multiply(9144).divide(10_000), "yard");
    add("mi", "miles", metre.multiply(1_609_344).divide(1000), "mile");
    add("Nmi", "nautical miles", metre.multiply(1852), "nm", "nmi", "sm");
    add("fathom", "fathoms", metre.multiply(18_288).divide(10_000));
    Unit<?> square = Units.SQUARE_METRE;
    add("m2", "square metres", square, "m²", "sqm", "m^2");
    add(
        "ft2",
        "square feet",
        square.multiply(9_290_304).divide(100_000_000),
        "ft²",
        "sqft",
        "ft^2");
    add("ha", "hectares", square.multiply(10_000));
    add("ac", "acres", square.multiply(40_468_564_224L).divide(10_000_000), "acre", "us_acre");
  }

  private static void other() {
    Unit<?> kilogram = Units.KILOGRAM;
    add("kg", "kilograms", kilogram, "kilo", "kilos", "kilogram");
    add("g", "grams", kilogram.divide(1000), "gram");
    add("t", "tonnes", kilogram.multiply(1000), "tonne", "to");
    add("lbm", "pounds", kilogram.multiply(45_359_237).divide(100_000_000), "lb", "lbs", "pound");
    add("ozm", "ounces", kilogram.multiply(45_359_237).divide(1_600_000_000), "oz", "ounce");
    add("stone", "stone", kilogram.multiply(635_029_318).divide(100_000_000), "st");
    Unit<?> litre = Units.LITRE;
    add("l", "litres", litre, "L", "lt", "ltr", "litre", "liter", "liters");
    add("ml", "millilitres", litre.divide(1000));
    add("m3", "cubic metres", Units.CUBIC_METRE, "m³", "cbm", "m^3");
    add("gal", "US gallons", litre.multiply(3_785_411_784L).divide(1_000_000_000));
    add("uk_gal", "imperial gallons", litre.multiply(454_609).divide(100_000));
    add("pt", "US pints", litre.multiply(473_176_473).divide(1_000_000_000));
    add("uk_pt", "imperial pints", litre.multiply(56_826_125).divide(100_000_000));
    Unit<?> second = Units.SECOND;
    add("sec", "seconds", second, "s", "second", "secs");
    add("min", "minutes", second.multiply(60), "mn", "minute", "mins");
    add("hr", "hours", second.multiply(3600), "h", "hour", "hrs");
    add("day", "days", second.multiply(86_400), "d");
    add("week", "weeks", second.multiply(604_800), "wk");
    add("C", "degrees Celsius", Units.CELSIUS, "cel", "°C", "celsius");
    add(
        "F",
        "degrees Fahrenheit",
        Units.KELVIN.multiply(5).divide(9).shift(45_967L * 1.0 / 100),
        "fah",
        "°F",
        "fahrenheit");
    add("K", "kelvin", Units.KELVIN, "kel");
    add("J", "joules", Units.JOULE, "joule");
    add("Wh", "watt-hours", Units.JOULE.multiply(3600));
    add("kWh", "kilowatt-hours", Units.JOULE.multiply(3_600_000));
    add("MWh", "megawatt-hours", Units.JOULE.multiply(3_600_000_000L));
    add("W", "watts", Units.WATT, "watt");
    add("kW", "kilowatts", Units.WATT.multiply(1000));
    add(
        "HP",
        "horsepower",
        Units.WATT.multiply(74_569_987_158_227_022L).divide(100_000_000_000_000L),
        "hp");
    add("PS", "metric horsepower", Units.WATT.multiply(73_549_875).divide(100_000));
    add("Pa", "pascals", Units.PASCAL);
    add("kPa", "kilopascals", Units.PASCAL.multiply(1000));
    add("bar", "bar", Units.PASCAL.multiply(100_000));
    add(
        "psi",
        "pounds per square inch",
        Units.PASCAL.multiply(6_894_757_293_168L).divide(1_000_000_000));
    add("m/s", "metres per second", Units.METRE_PER_SECOND);
    add(
        "km/h",
        "kilometres per hour",
        Units.METRE_PER_SECOND.multiply(10).divide(36),
        "kmh",
        "kph");
    add("mph", "miles per hour", Units.METRE_PER_SECOND.multiply(44_704).divide(100_000));
    add("kn", "knots", Units.METRE_PER_SECOND.multiply(1852).divide(3600), "kt", "kts", "knot");
  }

  private static void add(String symbol, String title, Unit<?> unit, String... others) {
    Measure measure = new Measure(symbol, title, unit);
    MEASURES.put(symbol, measure);
    BY_NAME.putIfAbsent(symbol, measure);
    BY_NAME.putIfAbsent(symbol.toLowerCase(Locale.ROOT), measure);
    BY_NAME.putIfAbsent(title.toLowerCase(Locale.ROOT), measure);
    for (String other : others) {
      BY_NAME.putIfAbsent(other, measure);
      BY_NAME.putIfAbsent(other.toLowerCase(Locale.ROOT), measure);
    }
  }

  /** All of them, kind by kind. */
  public static List<Measure> all() {
    return List.copyOf(MEASURES.values());
  }

  /**
   * The unit of a name, with its capitals or, if that is unknown, without; null if there is none.
   */
  public static Measure find(String name) {
    String bare = name.strip();
    Measure exact = BY_NAME.get(bare);
    return exact != null
        ? exact
        : BY_NAME.get(bare.toLowerCase(Locale.ROOT).replaceFirst("\\.$", ""));
  }

  /** How values are converted; null if a unit is unknown or they measure different things. */
  public static Conversion conversion(String from, String to) {
    Measure a = find(from);
    Measure b = find(to);
    if (a == null || b == null) {
      return null;
    }
    try {
      UnitConverter converter = a.unit().getConverterToAny(b.unit());
      BigDecimal offset = decimal(converter.convert(BigDecimal.ZERO));
      BigDecimal one = decimal(converter.convert(BigDecimal.ONE));
      return new Conversion(one.subtract(offset).stripTrailingZeros(), offset);
    } catch (IncommensurableException e) {
      return null;
    }
  }

  private static BigDecimal decimal(Number number) {
    return number instanceof BigDecimal decimal
        ? decimal.round(DIGITS)
        : number instanceof tech.units.indriya.function.RationalNumber rational
            ? new BigDecimal(rational.getDividend())
                .divide(new BigDecimal(rational.getDivisor()), DIGITS)
            : new BigDecimal(number.toString()).round(DIGITS);
  }

  /**
   * Reads a measure in one or several units, {@code 32' 6"}, {@code 5 ft 3 in}, {@code 1 h 30 min}.
   *
   * @param to the unit that is wanted; a bare number is taken to be in it
   * @param decimal the decimal sign
   * @return a {@link BigDecimal} in the wanted unit, or a {@link Problem}
   */
  public static Object read(String text, String to, String decimal) {
    String trimmed = text.strip();
    Object bare = ValueReader.number(trimmed, decimal);
    if (bare instanceof BigDecimal) {
      return bare;
    }
    Matcher parts = NUMBER_AND_UNIT.matcher(trimmed);
    BigDecimal sum = BigDecimal.ZERO;
    int end = 0;
    while (parts.find()) {
      Object number = quantity(parts.group(1).strip(), decimal);
      if (number instanceof Problem) {
        return new Problem(ProblemCode.NOT_A_NUMBER, text, "no number in “" + parts.group(1) + "”");
      }
      Conversion conversion = conversion(parts.group(2), to);
      if (conversion == null) {
        return new Problem(
            ProblemCode.NOT_A_NUMBER,
            text,
            find(parts.group(2)) == null
                ? "“" + parts.group(2) + "” is no unit that is known"
                : "“" + parts.group(2) + "” can’t be converted to " + find(to).title());
      }
      sum = sum.add(conversion.apply((BigDecimal) number));
      end = parts.end();
    }
    return end > 0 && trimmed.substring(end).isBlank()
        ? sum
        : new Problem(ProblemCode.NOT_A_NUMBER, text, "no number with its unit");
  }

  /** The unit that stands behind the first number of a text; null if there is none. */
  public static @Nullable Measure unitOf(String text) {
    Matcher first = NUMBER_AND_UNIT.matcher(text.strip());
    return first.find() ? find(first.group(2)) : null;
  }

  /** A number, also with a common fraction: 7 1/2. */
  private static Object quantity(String text, String decimal) {
    int slash = text.indexOf('/');
    if (slash < 0) {
      return ValueReader.number(text, decimal);
    }
    int gap = text.lastIndexOf(' ', slash);
    BigDecimal whole = gap < 0 ? BigDecimal.ZERO : new BigDecimal(text.substring(0, gap).strip());
    BigDecimal below = new BigDecimal(text.substring(slash + 1).strip());
    return below.signum() == 0
        ? new Problem(ProblemCode.NOT_A_NUMBER, text, "divided by zero")
        : whole.add(new BigDecimal(text.substring(gap + 1, slash).strip()).divide(below, DIGITS));
  }
}
