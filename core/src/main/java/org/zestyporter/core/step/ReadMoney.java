package org.zestyporter.core.step;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Codes;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueReader;

/** Reads a text as a number with a currency. */
final class ReadMoney extends Operation {
  private static final Pattern CURRENCY = Pattern.compile("[\\p{L}\\p{Sc}]+[./]?");

  ReadMoney() {
    super(
        Group.READ,
        "Read as money",
        "a number with a currency, which must be the one named if one is",
        Setting.choice("decimal", ",", ".").open(),
        Setting.text("currency").open());
  }

  @Override
  StepFunction compile(Step step, Names names) {
    String decimal = step.setting("decimal", names.locale().decimal());
    String currency = step.setting("currency");
    Object wanted = currency == null ? null : Codes.currency(currency);
    return StepFunction.toNumber(
        text -> {
          Object amount = ValueReader.number(text, decimal);
          Matcher sign = CURRENCY.matcher(text);
          if (amount instanceof Problem
              || wanted == null
              || !sign.find()
              || Codes.currency(sign.group()).equals(wanted)) {
            return amount;
          }
          String doubt = "“" + sign.group() + "” is not sure to be " + wanted;
          return new Problem(ProblemCode.WRONG_TYPE, text, doubt);
        });
  }
}
