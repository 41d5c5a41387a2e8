package org.zestyporter.core.draft;

import java.util.regex.Pattern;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** What stands before people's names and is none of them: Dr., Prof., Frau. */
final class Salutations {
  /** Short words with a point, and some that are written without one. */
  private static final String BEFORE =
      "^(?:\\pL[\\pL\\pM]{1,4}\\.\\s*|(?i:Dr|Prof|Ing|Mag|Mr|Mrs|Ms|Miss|Herrn?|Frau|Mme|Mlle|Sra?|Sig)\\s+)+";

  private static final Pattern PATTERN = Pattern.compile(BEFORE);

  private Salutations() {}

  /** A name without what stands before it. */
  static String without(String name) {
    return PATTERN.matcher(name).replaceFirst("");
  }

  /** The step that leaves it out. */
  static Step step() {
    return Step.of(StepKind.REPLACE_PATTERN, "pattern", BEFORE, "to", "");
  }
}
