package org.zestyporter.server.plan;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.draft.KeySuggestion;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.preview.KeyAdvice;
import org.zestyporter.core.preview.MatchSurvey;
import org.zestyporter.core.run.Classing;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.run.Remembered;
import org.zestyporter.core.value.PorterException;

/** Tells which match keys would do for a plan, by what they find. */
final class KeyAdvisor {
  /** Of larger files no key is tried that nobody has chosen. */
  private static final long ROWS_TRIED = 3_000_000;

  /** The same of keys that find what is only near. */
  private static final long ROWS_TRIED_NEAR = 300_000;

  /** Smaller tables are read in no time without an index. */
  private static final long RECORDS_WITHOUT_INDEX = 50_000;

  private KeyAdvisor() {}

  /**
   * @param suggested keys that could be added
   * @param unindexed keys of the plan for whose fields the table has no index, though it is large
   */
  record Keys(List<Suggested> suggested, List<Unindexed> unindexed) {}

  /**
   * A key that could be added.
   *
   * @param unique true if no two records can share its values
   * @param values distinct values in the file; null if they are not of one column
   * @param rows rows of the file that hold one
   * @param one rows that it would find one record for, alone; null if that was not tried
   * @param several rows that it would find several for
   * @param similar rows for which it would find records that are only near, after the plan's own
   */
  record Suggested(
      MatchKey key,
      boolean unique,
      @Nullable Long values,
      @Nullable Long rows,
      @Nullable Long one,
      @Nullable Long several,
      @Nullable Long similar) {}

  /**
   * A key without an index.
   *
   * @param key its number, from 1
   * @param records records that are read to find those of a few rows
   * @param statement what would make an index
   */
  record Unindexed(int key, long records, String statement) {}

  static Keys of(PlanService.Opened opened, String who, Remembered remembered) {
    Destination destination = opened.destination();
    TableInfo table = opened.database().table(destination.table());
    OpenedPlan now = opened.now(who);
    List<Suggested> suggested =
        KeySuggestion.of(table, destination, now.source(), now.parentField(destination)).stream()
            .map(s -> tried(s, opened, now.context(), remembered))
            .toList();
    return new Keys(suggested, unindexed(opened, table, destination));
  }

  private static Suggested tried(
      KeySuggestion suggestion,
      PlanService.Opened opened,
      RunContext context,
      Remembered remembered) {
    MatchSurvey.KeyFinds finds = null;
    Destination destination = opened.destination();
    boolean isNear = suggestion.key().isNear();
    long most = isNear ? ROWS_TRIED_NEAR : ROWS_TRIED;
    if (opened.rows().rowCount() <= most && destination.parent() == null) {
      try {
        // what is only near is asked about where none of the others finds anything
        List<MatchKey> keys = new ArrayList<>(isNear ? destination.keys() : List.of());
        keys.add(suggestion.key());
        OpenedPlan with =
            new OpenedPlan(
                opened.database(),
                opened.rows(),
                opened
                    .plan()
                    .withDestinations(
                        List.of(
                            destination
                                .withKeys(keys)
                                .withDecisions(isNear ? destination.decisions() : null))),
                context,
                opened.shared());
        Classing classing = Classing.of(with, 0, remembered);
        finds = MatchSurvey.finds(classing.counted(), keys.size() - 1);
      } catch (PorterException e) {
        // what can't be rehearsed yet has no figures
      }
    }
    return new Suggested(
        suggestion.key(),
        suggestion.unique(),
        suggestion.values(),
        suggestion.rows(),
        finds == null ? null : finds.one(),
        finds == null ? null : finds.several(),
        finds == null ? null : finds.similar());
  }

  private static List<Unindexed> unindexed(
      PlanService.Opened opened, TableInfo table, Destination destination) {
    List<Unindexed> unindexed = new ArrayList<>();
    List<MatchKey> keys = destination.keys();
    boolean isLarge = !keys.isEmpty() && opened.database().count(table) >= RECORDS_WITHOUT_INDEX;
    for (int k = 0; k < keys.size() && isLarge; k++) {
      MatchKey key = keys.get(k);
      // what is compared loosely is compared here, so that no index of theirs would be asked
      boolean exact =
          !key.isNear() && key.fields().stream().allMatch(f -> key.ignoring(f).isEmpty());
      String statement =
          exact && key.fields().stream().allMatch(f -> table.find(f) != null)
              ? opened.database().missingIndex(table, table.fields(key.fields()))
              : null;
      if (statement != null) {
        unindexed.add(new Unindexed(k + 1, opened.database().count(table), statement));
      }
    }
    return unindexed;
  }

  /** Fields that would tell apart records of which a key finds several. */
  static List<KeyAdvice> further(PlanService.Opened opened, MatchSurvey survey) {
    TableInfo table = opened.table();
    Map<String, List<Object>> keys = new HashMap<>();
    for (LedgerEntry entry : survey.shown()) {
      for (String key : MatchSurvey.candidates(entry)) {
        List<Object> parts = table.key(key);
        if (parts != null) {
          keys.put(key, parts);
        }
      }
    }
    Records found = opened.database().fetch(table, List.copyOf(keys.values()));
    Map<String, Object[]> records = new HashMap<>();
    keys.forEach((key, parts) -> records.put(key, found.values(parts)));
    return KeyAdvice.of(
        table, opened.destination().keys(), survey.fields(), survey.shown(), records);
  }
}
