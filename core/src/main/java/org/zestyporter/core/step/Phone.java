package org.zestyporter.core.step;

import com.google.i18n.phonenumbers.NumberParseException;
import com.google.i18n.phonenumbers.PhoneNumberUtil;
import com.google.i18n.phonenumbers.PhoneNumberUtil.PhoneNumberFormat;
import com.google.i18n.phonenumbers.Phonenumber;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Codes;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/** Brings a phone number to the international form (ITU-T E.123 and E.164). */
final class Phone extends Operation {

  Phone() {
    super(
        Group.KNOWN,
        "Phone number",
        "to the international form, +44 20 7946 0018",
        Setting.text("country"),
        Setting.choice("form", "spaced", "plain").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    String country = step.setting("country");
    PhoneNumberUtil numbers = PhoneNumberUtil.getInstance();
    if (!(Codes.country(country) instanceof String region)
        || !numbers.getSupportedRegions().contains(region)) {
      throw refused("“" + country + "” is no country; write its name or its code, such as GB");
    }
    PhoneNumberFormat form =
        "plain".equals(step.setting("form"))
            ? PhoneNumberFormat.E164
            : PhoneNumberFormat.INTERNATIONAL;
    return (value, row) -> {
      String text = Values.text(value);
      try {
        Phonenumber.PhoneNumber number = numbers.parse(text, region);
        return numbers.isValidNumber(number) ? numbers.format(number, form) : unknown(text, region);
      } catch (NumberParseException e) {
        return new Problem(ProblemCode.NOT_A_PHONE_NUMBER, text, "not written as a phone number");
      }
    };
  }

  @Override
  List<Map<String, String>> worthTrying(Occasion occasion) {
    return List.of(Map.of("country", "GB"));
  }

  private static Problem unknown(String text, String region) {
    return new Problem(
        ProblemCode.NOT_A_PHONE_NUMBER,
        text,
        "no number that exists in " + new Locale("", region).getDisplayCountry(Locale.ENGLISH));
  }
}
