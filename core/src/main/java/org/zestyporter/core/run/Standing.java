package org.zestyporter.core.run;

/**
 * What stands of a run that was cut off between two of its batches.
 *
 * @param batches number of batches that were committed
 * @param rows the source's rows that they took in; the run goes on with the next one
 * @param report the books of these rows
 * @param ledger the ledger of these rows
 */
public record Standing(int batches, long rows, RunReport report, KeptLedger ledger) {

  /**
   * What stands of a run, in a sentence.
   *
   * @param rows the source's rows that were taken in
   * @param total all of the source's rows
   */
  public static String told(long rows, long total) {
    return rows == 0
        ? "Nothing was written."
        : String.format(
            "The first %,d of %,d rows were taken in before and stand: go on with the run, or take"
                + " them back.",
            rows, total);
  }
}
