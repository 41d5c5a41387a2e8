package org.zestyporter.core.undo;

import java.util.Map;

/**
 * What is decided about records that were edited after the run.
 *
 * @param forAll for those that are not decided one by one
 * @param single by the place of their entries
 */
public record Decisions(Edited forAll, Map<Place, Edited> single) {

  /**
   * The place of an entry in a run's ledger.
   *
   * @param destination number of the destination, as its ledger has it
   * @param row index of the row among the source's rows, from 0
   * @param part number of the entry among those of its row, from 0
   */
  public record Place(int destination, long row, int part) {}

  public Decisions {
    single = Map.copyOf(single);
  }

  /** The same for all. */
  public static Decisions all(Edited edited) {
    return new Decisions(edited, Map.of());
  }

  Edited of(Place place) {
    return single.getOrDefault(place, forAll);
  }
}
