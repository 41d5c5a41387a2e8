package org.zestyporter.core.match;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Policies;

/** How a row matches: the one rule by which rows are counted, shown and decided. */
public enum MatchClass {
  ONE,
  NONE,
  SEVERAL,
  /** Records are only near to what it says. */
  SIMILAR,
  /** Another row of the file holds the same key, and it is not the one that is kept. */
  REPEATS,
  /** Somebody has decided that it is left out. */
  DECIDED,
  /** It can't be matched, because a value is in trouble or its keys are blank. */
  TROUBLED;

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }

  /**
   * The class of a row whose own values are in order.
   *
   * @param match what it was found to speak of
   * @param index the row's index among the noted rows
   */
  public static MatchClass of(Match match, int index, Destination destination) {
    if (match.key() == 0 && !destination.keys().isEmpty()) {
      return TROUBLED;
    }
    if (!destination.distinct() && isRepeat(match, index, destination.policies())) {
      return REPEATS;
    }
    if (match.isLeftOut()) {
      return DECIDED;
    }
    if (match.isNear() && !match.isOne()) {
      return SIMILAR;
    }
    return match.records().isEmpty() ? NONE : match.records().size() == 1 ? ONE : SEVERAL;
  }

  private static boolean isRepeat(Match match, int index, Policies policies) {
    boolean isAsked = match.onRepeat(policies) == Policies.OnRepeat.ASK;
    return match.repeated() && match.kept(policies) != index && !(isAsked && match.isLeftOut());
  }
}
