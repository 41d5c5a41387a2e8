package org.zestyporter.core.run;

import org.jspecify.annotations.Nullable;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** How many rejected rows a run bears. */
final class Bearing {
  private static final double PERCENT = 100;

  private final @Nullable Long most;
  private final String told;
  private long borne;

  /**
   * @param rows rows of the source
   */
  Bearing(RunSettings settings, long rows) {
    Integer number = settings.stopAfter();
    Integer percent = settings.stopAfterPercent();
    Long share = percent == null ? null : (long) Math.floor(rows * (percent / PERCENT));
    boolean byShare = share != null && (number == null || share < number);
    this.most = byShare ? share : number == null ? null : Long.valueOf(number);
    this.told =
        byShare
            ? percent + " % of the rows were"
            : number + (number != null && number == 1 ? " row was" : " rows were");
  }

  /** Notes rejected rows that are not counted, since the run has gone on after them. */
  void bore(long rejected) {
    borne = rejected;
  }

  /**
   * Ends a run of which more rows are rejected than the plan bears.
   *
   * @throws PorterException with code {@code too-many-rejected}
   */
  void require(long rejected) {
    if (most != null && rejected - borne > most) {
      throw ErrorCode.TOO_MANY_REJECTED.error(
          "More than " + told + " rejected, which is where the plan stops.",
          "Rehearse to see all of them with their reasons, or let the plan bear more.");
    }
  }
}
