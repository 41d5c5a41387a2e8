package org.zestyporter.core.fill;

import com.google.i18n.phonenumbers.NumberParseException;
import com.google.i18n.phonenumbers.PhoneNumberUtil;
import com.google.i18n.phonenumbers.PhoneNumberUtil.PhoneNumberFormat;
import com.google.i18n.phonenumbers.Phonenumber;
import java.util.Locale;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zestyporter.core.plan.Step;
import org.zestyporter.core.value.Codes;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/** Steps that know phone numbers, e-mail addresses and the codes of the ISO. */
final class KnownSteps {
  private static final Pattern NAMED = Pattern.compile("[^<>]*<([^<>]+)>");

  /** The forms of RFC 5322 that people use: no quoted local parts, no comments. */
  private static final Pattern ADDRESS =
      Pattern.compile(
          "[\\p{L}\\p{N}!#$%&'*+/=?^_`{|}~-]+(?:\\.[\\p{L}\\p{N}!#$%&'*+/=?^_`{|}~-]+)*"
              + "@(?:[\\p{L}\\p{N}](?:[\\p{L}\\p{N}-]{0,61}[\\p{L}\\p{N}])?\\.)+[\\p{L}][\\p{L}\\p{N}-]{1,62}");

  private static final int LONGEST_ADDRESS = 254;

  private KnownSteps() {}

  static StepFunction compile(Step step) {
    String form = step.setting("form");
    return switch (step.kind()) {
      case PHONE -> phone(step.setting("country"), "plain".equals(form));
      case EMAIL -> (value, row) -> email(Values.text(value));
      case COUNTRY ->
          code(
              Codes::country,
              "three-letter".equals(form)
                  ? Codes::longCountry
                  : "number".equals(form) ? Codes::countryNumber : c -> c);
      case LANGUAGE ->
          code(Codes::language, "three-letter".equals(form) ? Codes::longLanguage : c -> c);
      case CURRENCY -> code(Codes::currency, c -> c);
      default -> throw new IllegalArgumentException(step.kind().word());
    };
  }

  private static StepFunction code(
      java.util.function.Function<String, Object> find, UnaryOperator<String> form) {
    return (value, row) -> {
      Object found = find.apply(Values.text(value));
      return found instanceof String code ? form.apply(code) : found;
    };
  }

  private static StepFunction phone(String country, boolean plain) {
    PhoneNumberUtil numbers = PhoneNumberUtil.getInstance();
    if (!(Codes.country(country) instanceof String region)
        || !numbers.getSupportedRegions().contains(region)) {
      throw ErrorCode.STEP_SETTINGS.error(
          "Phone number: “" + country + "” is no country; write its name or its code, such as GB.");
    }
    return (value, row) -> {
      String text = Values.text(value);
      try {
        Phonenumber.PhoneNumber number = numbers.parse(text, region);
        return numbers.isValidNumber(number)
            ? numbers.format(
                number, plain ? PhoneNumberFormat.E164 : PhoneNumberFormat.INTERNATIONAL)
            : new Problem(
                ProblemCode.NOT_A_PHONE_NUMBER,
                text,
                "no number that exists in "
                    + new Locale("", region).getDisplayCountry(Locale.ENGLISH));
      } catch (NumberParseException e) {
        return new Problem(ProblemCode.NOT_A_PHONE_NUMBER, text, "not written as a phone number");
      }
    };
  }

  private static Object email(String text) {
    String address = text.replaceAll("^[\\s'\",;]+|[\\s'\".,;]+$", "");
    Matcher named = NAMED.matcher(address);
    if (named.matches()) {
      address = named.group(1);
    }
    address = address.replaceFirst("(?i)^mailto:", "").replaceAll("\\s*@\\s*", "@");
    address = Steps.trim(address).toLowerCase(Locale.ROOT);
    if (address.length() <= LONGEST_ADDRESS && ADDRESS.matcher(address).matches()) {
      return address;
    }
    return new Problem(
        ProblemCode.NOT_AN_EMAIL,
        text,
        address.indexOf('@') < 0
            ? "has no @"
            : address.indexOf('@') != address.lastIndexOf('@')
                ? "two addresses, or an @ too many"
                : "not written as an e-mail address");
  }
}
