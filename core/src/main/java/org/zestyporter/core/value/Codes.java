package org.zestyporter.core.value;

import com.ibm.icu.util.Currency;
import com.ibm.icu.util.ULocale;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.MissingResourceException;
import java.util.Set;

/**
 * Codes of countries (ISO 3166-1), languages (ISO 639) and currencies (ISO 4217) by their names in
 * the languages of the senders, their signs and their codes.
 */
public final class Codes {
  private static final List<String> LANGUAGES =
      List.of(
          "en", "de", "fr", "nl", "da", "sv", "nb", "fi", "is", "es", "pt", "it", "pl", "cs", "sk",
          "hu", "ro", "sl", "hr", "lt", "lv", "et", "tr", "el", "bg", "ru", "uk", "ca", "ga");

  private static final Map<String, String> COUNTRY_ALIASES =
      Map.ofEntries(
          Map.entry("uk", "GB"),
          Map.entry("england", "GB"),
          Map.entry("scotland", "GB"),
          Map.entry("wales", "GB"),
          Map.entry("great britain", "GB"),
          Map.entry("gb", "GB"),
          Map.entry("northern ireland", "GB"),
          Map.entry("usa", "US"),
          Map.entry("america", "US"),
          Map.entry("holland", "NL"),
          Map.entry("eire", "IE"),
          Map.entry("korea", "KR"),
          Map.entry("czech republic", "CZ"),
          Map.entry("turkey", "TR"),
          Map.entry("russia", "RU"));

  private Codes() {}

  private static final class Countries {
    static final Map<String, String> BY_NAME = byName();

    private static Map<String, String> byName() {
      Map<String, String> names = new HashMap<>();
      for (String code : Locale.getISOCountries()) {
        for (String language : LANGUAGES) {
          String name = ULocale.getDisplayCountry("und_" + code, language);
          names.putIfAbsent(fold(name), code);
        }
        names.put(fold(code), code);
        try {
          names.put(fold(new Locale("", code).getISO3Country()), code);
        } catch (MissingResourceException e) {
          // it has no code of three letters
        }
      }
      names.putAll(COUNTRY_ALIASES);
      return names;
    }
  }

  private static final class Tongues {
    static final Map<String, String> BY_NAME = byName();

    private static Map<String, String> byName() {
      Map<String, String> names = new HashMap<>();
      for (String code : Locale.getISOLanguages()) {
        for (String language : LANGUAGES) {
          names.putIfAbsent(fold(ULocale.getDisplayLanguage(code, language)), code);
        }
        names.putIfAbsent(fold(ULocale.getDisplayLanguage(code, code)), code);
        try {
          names.putIfAbsent(fold(new Locale(code).getISO3Language()), code);
        } catch (MissingResourceException e) {
          // it has no code of three letters
        }
      }
      for (String code : Locale.getISOLanguages()) {
        names.put(code, code);
      }
      return names;
    }
  }

  private static final class Currencies {
    static final Map<String, String> BY_CODE = byCode();

    private static Map<String, String> byCode() {
      Map<String, String> codes = new HashMap<>();
      java.util.Currency.getAvailableCurrencies()
          .forEach(c -> codes.put(fold(c.getCurrencyCode()), c.getCurrencyCode()));
      CurrencySigns.codes().forEach((sign, code) -> codes.put(fold(sign), code));
      codes.put("pounds", "GBP");
      codes.put("dollars", "USD");
      return codes;
    }
  }

  /** Made only for who asks for a name: there are thousands. */
  private static final class CurrencyNames {
    static final Map<String, String> BY_NAME = byName();

    private static Map<String, String> byName() {
      Map<String, String> names = new HashMap<>();
      for (Currency currency : Currency.getAvailableCurrencies()) {
        String code = currency.getCurrencyCode();
        for (String language : LANGUAGES) {
          ULocale locale = new ULocale(language);
          names.putIfAbsent(fold(currency.getName(locale, Currency.LONG_NAME, null)), code);
        }
      }
      return names;
    }
  }

  private static String fold(String name) {
    return Texts.withoutAccents(name)
        .toLowerCase(Locale.ROOT)
        .replaceAll("[.’']", "")
        .replaceAll("[\\s,()-]+", " ")
        .replaceFirst("^the ", "")
        .strip();
  }

  /** The two-letter code of a country, or a {@link Problem}. */
  public static Object country(String text) {
    return find(Countries.BY_NAME, text, "no country of this name or code");
  }

  /** The shortest code of a language, or a {@link Problem}. */
  public static Object language(String text) {
    return find(Tongues.BY_NAME, text, "no language of this name or code");
  }

  /** The code of a currency, or a {@link Problem}. */
  public static Object currency(String text) {
    if (CurrencySigns.isShared(text.strip())) {
      return new Problem(ProblemCode.NOT_A_CODE, text, "several currencies have this sign");
    }
    String code = Currencies.BY_CODE.get(fold(text));
    return code != null
        ? code
        : find(CurrencyNames.BY_NAME, text, "no currency of this name, sign or code");
  }

  /**
   * True if codes and signs may all be of one currency: ¥ beside JPY is that, $ beside USD may be
   * another.
   */
  static boolean mayBeOne(Set<String> written) {
    return written.size() <= 1
        || written.size() == 2
            && written.stream()
                .anyMatch(
                    sign ->
                        written.stream().anyMatch(code -> CurrencySigns.few(sign).contains(code)));
  }

  private static Object find(Map<String, String> names, String text, String reason) {
    String code = names.get(fold(text));
    return code == null ? new Problem(ProblemCode.NOT_A_CODE, text, reason) : code;
  }

  /** The three-letter code for a two-letter one, or the same if there is none. */
  public static String longCountry(String code) {
    return new Locale("", code).getISO3Country();
  }

  /** The number of a country by ISO 3166-1, three digits. */
  public static String countryNumber(String code) {
    return String.format(
        Locale.ROOT, "%03d", com.ibm.icu.util.Region.getInstance(code).getNumericCode());
  }

  /** The three-letter code of a language. */
  public static String longLanguage(String code) {
    return new Locale(code).getISO3Language();
  }
}
