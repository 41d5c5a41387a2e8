package org.zestyporter.core.step;

import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.Codes;
import org.zestyporter.core.value.Values;

/** Brings currencies to their codes (ISO 4217). */
final class Currency extends Operation {

  Currency() {
    super(Group.KNOWN, "Currency to code", "signs, names and codes to the code of ISO 4217");
  }

  @Override
  StepFunction compile(Step step, Names names) {
    return (value, row) -> Codes.currency(Values.text(value));
  }
}
