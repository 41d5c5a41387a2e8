package org.zestyporter.core.value;

import java.util.Currency;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Signs and short words of currencies as offices write them beside amounts, with the code of each
 * (ISO 4217). Where letters are meant, their capitals and a point behind them don't matter.
 */
final class CurrencySigns {
  private static final Set<String> CODES =
      Currency.getAvailableCurrencies().stream()
          .map(Currency::getCurrencyCode)
          .collect(Collectors.toUnmodifiableSet());

  /** Codes that are written in small letters too, and are no words or units of anything else. */
  private static final Set<String> SMALL =
      Set.of(
          "eur", "usd", "gbp", "chf", "pln", "czk", "huf", "sek", "nok", "dkk", "isk", "rub", "uah",
          "jpy", "cny", "inr", "brl", "aud", "nzd", "zar", "idr", "myr", "sgd", "hkd", "vnd", "krw",
          "mxn", "bgn", "rsd");

  /** What one currency alone is called, or one is meant by unless it says otherwise. */
  private static final String OWN =
      """
      EUR € euro euros
      GBP £
      USD us$ u$s
      PLN zł zl
      CZK kč
      HUF ft
      RUB ₽ руб
      IRR ریال
      INR ₹
      TRY ₺ tl
      UAH ₴ грн
      BGN лв лева
      JPY 円
      KRW 원 ₩
      ILS ₪
      THB ฿ บาท
      VND ₫ đ vnđ
      KZT ₸ тг тенге
      EGP جنيه
      ALL lek lekë
      GEL ₾ ლარი
      AMD ֏ դրամ
      AZN ₼
      LKR රු
      BRL r$
      AUD a$ au$
      CAD c$ ca$ can$
      NZD nz$
      HKD hk$
      TWD nt$
      SGD s$
      MXN mx$ mex$
      ARS ar$
      CLP clp$
      COP col$
      DOP rd$
      TTD tt$
      JMD j$
      BZD bz$
      FJD fj$
      NAD n$
      UYU $u
      PEN s/
      IDR rp
      MYR rm
      BDT tk
      PYG ₲ gs
      NGN ₦
      PHP ₱
      CRC ₡
      GHS ₵ gh₵
      KES ksh
      TZS tsh
      UGX ush
      AOA kz
      CHF sfr
      DKK dkr
      SEK skr
      NOK nkr
      ISK ikr
      """;

  /** What several currencies are called, so that nobody can tell. */
  private static final Set<String> SHARED =
      Set.of(
          "$", "kr", "¥", "fr", "frs", "lei", "元", "р", "дин", "din", "ден", "rs", "₨", "bs", "cfa",
          "fcfa", "dh", "dhs", "shs", "ريال", "تومان", "دينار", "درهم", "ليرة", "сум", "сом");

  /** Single letters, which are codes of other things unless hundredths stand behind the number. */
  private static final Set<String> LETTERS = Set.of("R", "Q");

  /** Words that stand before amounts only; behind a number they are units of something else. */
  private static final Set<String> BEFORE = Set.of("rm");

  /** What a shared sign stands for where only few currencies share it. */
  private static final Map<String, Set<String>> FEW =
      Map.of("¥", Set.of("JPY", "CNY"), "元", Set.of("CNY", "TWD"));

  /** Currencies whose hundredths are out of use. */
  private static final Set<String> HARDLY_ANY = Set.of("IDR", "COP", "KZT", "UZS", "HUF");

  private static final Set<String> POINT_DECIMALS =
      Set.of(
          "$", "us$", "a$", "au$", "c$", "ca$", "can$", "nz$", "hk$", "nt$", "s$", "mx$", "£", "₹",
          "rs", "₨", "usd", "gbp", "aud", "cad", "nzd", "hkd", "sgd", "inr", "pkr", "₱", "rm", "฿");

  private static final Map<String, String> BY_SIGN = bySign();
  private static final int LONGEST =
      BY_SIGN.keySet().stream().mapToInt(String::length).max().orElse(0);

  private CurrencySigns() {}

  private static Map<String, String> bySign() {
    Map<String, String> codes = new HashMap<>();
    OWN.lines()
        .map(line -> line.split(" "))
        .forEach(
            words -> {
              for (int i = 1; i < words.length; i++) {
                codes.put(words[i], words[0]);
              }
            });
    return Map.copyOf(codes);
  }

  /** Signs by the code of the only currency that each is of. */
  static Map<String, String> codes() {
    return BY_SIGN;
  }

  /** The words and short forms of them all, for titles. */
  static Set<String> words() {
    Set<String> words = new HashSet<>(SMALL);
    words.addAll(BY_SIGN.keySet());
    words.addAll(SHARED);
    words.removeIf(word -> word.length() < 2 || !word.chars().allMatch(Texts::isLetter));
    return words;
  }

  /** True if several currencies are called so. */
  static boolean isShared(String written) {
    return SHARED.contains(plain(written));
  }

  /** The codes of the few currencies that a sign may stand for; empty if these are many, or one. */
  static Set<String> few(String sign) {
    return FEW.getOrDefault(sign, Set.of());
  }

  /**
   * True if what stands beside a number says that it is an amount.
   *
   * @param number as it is written
   * @param before true if it stands before the number
   */
  static boolean isBeside(String written, String number, boolean before) {
    if (LETTERS.contains(written)) {
      int end = number.length();
      return end > 3 && ".,".indexOf(number.charAt(end - 3)) >= 0;
    }
    return isKnown(written) && (before || !BEFORE.contains(plain(written)));
  }

  /** True if it is a currency's sign, code or short word. */
  static boolean isKnown(String written) {
    if (Character.getType(written.charAt(written.length() - 1)) == Character.CURRENCY_SYMBOL
        && written.length() == 1) {
      return true;
    }
    String plain = plain(written);
    return CODES.contains(written)
        || plain.length() <= LONGEST
            && (BY_SIGN.containsKey(plain) || SHARED.contains(plain) || SMALL.contains(plain));
  }

  /** True if an amount may begin or end with these letters. */
  static boolean mayBe(String letters) {
    return LETTERS.contains(letters) || isKnown(letters);
  }

  /** Places that amounts have in practice; null if it is not known of which currency they are. */
  static @Nullable Integer places(String written) {
    String code = CODES.contains(written) ? written : BY_SIGN.get(plain(written));
    if (code == null) {
      return null;
    }
    return HARDLY_ANY.contains(code) ? 0 : Currency.getInstance(code).getDefaultFractionDigits();
  }

  /** True if whoever uses the currency parts thousands by commas, and never decimals. */
  static boolean hasCommasForThousands(String written) {
    return POINT_DECIMALS.contains(written.toLowerCase(Locale.ROOT).replace(".", ""));
  }

  private static String plain(String written) {
    String plain = written.toLowerCase(Locale.ROOT);
    return plain.endsWith(".") ? plain.substring(0, plain.length() - 1) : plain;
  }
}
