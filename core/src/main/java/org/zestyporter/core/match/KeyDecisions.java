package org.zestyporter.core.match;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.plan.Decision;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/** What somebody has decided about rows, by the values of one match key. */
final class KeyDecisions {
  private final PreparedKey key;

  /** True if what the key finds is only near: other rows may hold the same, and find nothing. */
  private final boolean isNear;

  private final Map<String, Decision> byText = new HashMap<>();
  private final Map<String, Decision.Act> ofRepeats = new HashMap<>();

  /**
   * @param all decisions of the plan; those about the values of other fields are passed over
   */
  KeyDecisions(PreparedKey key, boolean isNear, List<Decision> all) {
    this.key = key;
    this.isNear = isNear;
    for (Decision decision : all) {
      String text = key.text(decision.of());
      if (text != null && decision.act().isOfRepeats()) {
        ofRepeats.put(text, decision.act());
      } else if (text != null) {
        byText.put(text, decision);
      }
    }
  }

  /**
   * What is found for a row, seeing what was decided about it. A decision for a record that is not
   * found any more has lapsed.
   */
  Match applied(Match match, ValueColumn[] byField, int row) {
    if (byText.isEmpty() && ofRepeats.isEmpty()) {
      return match;
    }
    String text = key.text(byField, row);
    Decision decision = text == null ? null : byText.get(text);
    Decision.Act keep = text == null || !match.repeated() ? null : ofRepeats.get(text);
    Match.Repeats repeats = keep == null ? match.repeats() : match.repeats().keeping(keep);
    Match undecided = match.repeating(repeats);
    if (decision == null || isNear && decision.act() != Decision.Act.OTHER && !match.isFound()) {
      return undecided;
    }
    List<List<Object>> records = match.records();
    if (decision.act() == Decision.Act.TAKE) {
      records = records.stream().filter(r -> isRecord(r, decision.record())).toList();
      if (records.isEmpty()) {
        return undecided;
      }
    } else if (decision.act() == Decision.Act.OTHER) {
      records = records.stream().filter(r -> isBeside(r, decision)).toList();
      if (!records.isEmpty()) {
        return new Match(match.key(), records, List.of(), repeats, null, match.nearness());
      }
    }
    // whoever speaks of a row has seen what it is like
    return new Match(match.key(), records, List.of(), repeats, decision.act(), match.nearness());
  }

  /** True if anything was decided about the key of a row. */
  boolean speaksOf(ValueColumn[] byField, int row) {
    if (byText.isEmpty() && ofRepeats.isEmpty()) {
      return false;
    }
    String text = key.text(byField, row);
    return text != null && (byText.containsKey(text) || ofRepeats.containsKey(text));
  }

  /** True for a record that was not there when it was said that rows speak of another one. */
  private static boolean isBeside(List<Object> key, Decision decision) {
    return decision.not() != null && decision.not().stream().noneMatch(r -> isRecord(key, r));
  }

  private static boolean isRecord(List<Object> key, @Nullable List<String> record) {
    return record != null && key.stream().map(Values::text).toList().equals(record);
  }
}
