package org.zestyporter.core.step;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.Values;

/** Tidies an e-mail address and checks its form. */
final class Email extends Operation {
  private static final Pattern NAMED = Pattern.compile("[^<>]*<([^<>]+)>");

  /** The forms of RFC 5322 that people use: no quoted local parts, no comments. */
  private static final Pattern ADDRESS =
      Pattern.compile(
          "[\\p{L}\\p{N}!#$%&'*+/=?^_`{|}~-]+(?:\\.[\\p{L}\\p{N}!#$%&'*+/=?^_`{|}~-]+)*"
              + "@(?:[\\p{L}\\p{N}](?:[\\p{L}\\p{N}-]{0,61}[\\p{L}\\p{N}])?\\.)+[\\p{L}][\\p{L}\\p{N}-]{1,62}");

  private static final int LONGEST_ADDRESS = 254;

  Email() {
    super(Group.KNOWN, "E-mail", "tidied, in small letters, and checked");
  }

  @Override
  StepFunction compile(Step step, Names names) {
    return (value, row) -> address(Values.text(value));
  }

  private static Object address(String text) {
    String address = text.replaceAll("^[\\s'\",;]+|[\\s'\".,;]+$", "");
    Matcher named = NAMED.matcher(address);
    if (named.matches()) {
      address = named.group(1);
    }
    address = address.replaceFirst("(?i)^mailto:", "").replaceAll("\\s*@\\s*", "@");
    address = Texts.trim(address).toLowerCase(Locale.ROOT);
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
