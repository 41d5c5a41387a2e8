package org.zestyporter.core.value;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Votes on how a sender writes numbers and dates, in rows.
 *
 * @param eitherSign rows with a number such as 1.204, whose sign may part thousands or decimals
 * @param eitherWay rows with a date that reads in both orders, but not alike
 */
public record Votes(
    long comma, long point, long eitherSign, long dayFirst, long monthFirst, long eitherWay) {
  /** Thousands parted by a sign that is no decimal sign anywhere. */
  private static final String SPACED = "\\d{1,3}(?:[ \\u00A0\\u202F'’]\\d{3})+";

  private static final Pattern COMMA_DECIMAL =
      Pattern.compile("[^\\d-]{0,4}-?(?:" + SPACED + "|[\\d.]*\\d),(\\d{1,2}|\\d{4,})[^\\d]{0,4}");
  private static final Pattern POINT_DECIMAL =
      Pattern.compile(
          "[^\\d-]{0,4}-?(?:" + SPACED + "|[\\d,]*\\d)\\.(\\d{1,2}|\\d{4,})[^\\d]{0,4}");
  private static final Pattern GROUPED_POINT = Pattern.compile("-?\\d{1,3}(\\.\\d{3}){2,}");
  private static final Pattern GROUPED_COMMA = Pattern.compile("-?\\d{1,3}(,\\d{3}){2,}");

  /** What a number is of. */
  private static final String UNIT = "(?:\\s?(?:kg|g|t|mm|cm|m|km|ml|l|ft|lb|oz)|\\s\\p{L}{1,4})?";

  private static final Pattern ONE_SIGN = Pattern.compile("-?[1-9]\\d{0,2}[.,]\\d{3}" + UNIT);
  private static final Pattern BELOW_ONE = Pattern.compile("-?0([.,])\\d{3}" + UNIT);

  /** Signs of currencies that several countries share, all of them without places. */
  private static final String SHARED_WITHOUT_PLACES = "¥元";

  private static final int LONGEST_NUMBER = 30;

  public static final Votes NONE = new Votes(0, 0, 0, 0, 0, 0);

  public Votes plus(Votes o) {
    return new Votes(
        comma + o.comma,
        point + o.point,
        eitherSign + o.eitherSign,
        dayFirst + o.dayFirst,
        monthFirst + o.monthFirst,
        eitherWay + o.eitherWay);
  }

  /** The decimal sign that most speak for; the given one if none does. */
  public String decimal(String otherwise) {
    return comma == point ? otherwise : comma > point ? "," : ".";
  }

  /** The order that most dates speak for; the given one if none does. */
  public DateOrder dateOrder(DateOrder otherwise) {
    if (dayFirst == monthFirst) {
      return otherwise;
    }
    return dayFirst > monthFirst ? DateOrder.DAY_MONTH_YEAR : DateOrder.MONTH_DAY_YEAR;
  }

  /** What numbers say that have a comma before decimals, or else a point. */
  public static Votes ofSign(boolean isComma, long rows) {
    return new Votes(isComma ? rows : 0, isComma ? 0 : rows, 0, 0, 0, 0);
  }

  /** What a date says whose first two numbers are these. */
  static Votes ofDate(int first, int second, long rows) {
    if (first > 12 && first <= 31 && second <= 12) {
      return new Votes(0, 0, 0, rows, 0, 0);
    }
    if (second > 12 && second <= 31 && first <= 12) {
      return new Votes(0, 0, 0, 0, rows, 0);
    }
    // the same number twice reads alike either way
    return new Votes(0, 0, 0, 0, 0, first == second ? 0 : rows);
  }

  /** What a text says that may be a number. */
  public static Votes ofNumber(String written, long rows) {
    String text = AsciiSigns.of(written);
    boolean comma = text.indexOf(',') >= 0;
    boolean point = text.indexOf('.') >= 0;
    if (!comma && !point || text.length() > LONGEST_NUMBER) {
      return NONE;
    }
    PlainAmount amount = PlainAmount.of(text);
    if (amount != null && amount.behind() != 3) {
      // groups of three and behind them other than three can only be decimals
      boolean clear = amount.last() != amount.grouping();
      return !clear
          ? NONE
          : amount.last() == ','
              ? new Votes(rows, 0, 0, 0, 0, 0)
              : amount.last() == '.' ? new Votes(0, rows, 0, 0, 0, 0) : NONE;
    }
    String currency = NumberReader.currencyOf(text);
    String bare = currency == null ? text : bare(text);
    if (currency != null) {
      // a short word may have a point of its own
      comma = bare.indexOf(',') >= 0;
      point = bare.indexOf('.') >= 0;
    }
    boolean whole = currency != null && hasNoPlaces(currency) && ONE_SIGN.matcher(bare).matches();
    boolean decimalComma =
        comma && COMMA_DECIMAL.matcher(bare).matches()
            || !comma && (whole || GROUPED_POINT.matcher(bare).matches());
    boolean decimalPoint =
        point && POINT_DECIMAL.matcher(bare).matches()
            || !point
                && (whole
                    || GROUPED_COMMA.matcher(bare).matches()
                    || currency != null
                        && CurrencySigns.hasCommasForThousands(currency)
                        && ONE_SIGN.matcher(bare).matches());
    if (decimalComma || decimalPoint) {
      return ofSign(decimalComma, rows);
    }
    Matcher below = BELOW_ONE.matcher(bare);
    if (below.matches()) {
      return ofSign(below.group(1).equals(","), rows);
    }
    return ONE_SIGN.matcher(bare).matches() ? new Votes(0, 0, rows, 0, 0, 0) : NONE;
  }

  /** The number without what stands beside it. */
  private static String bare(String text) {
    return text.replaceAll("^[^\\d-]+|\\D+$", "").replaceFirst("^(-)?\\D+", "$1");
  }

  /** True for a currency whose amounts have no places, so that any sign in one parts thousands. */
  private static boolean hasNoPlaces(String sign) {
    Integer places = CurrencySigns.places(sign);
    return places == null ? SHARED_WITHOUT_PLACES.contains(sign) : places == 0;
  }
}
