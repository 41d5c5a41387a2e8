package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.TableCheck;

/**
 * What plans share: phrasebooks, and the checks that are kept with a connection.
 *
 * @param checks by the table's name
 */
public record Shared(List<Phrasebook> phrasebooks, Map<String, List<TableCheck>> checks) {
  public static final Shared NONE = new Shared(List.of(), Map.of());

  /** The phrasebooks that a plan may use: its own go before shared ones of the same name. */
  public Phrases phrases(Plan plan) {
    List<Phrasebook> all = new ArrayList<>(phrasebooks);
    all.addAll(plan.phrasebooks());
    return all.isEmpty() ? Phrases.NONE : new Phrases(all);
  }

  public List<TableCheck> checksOf(String table) {
    return checks.getOrDefault(table, List.of());
  }
}
