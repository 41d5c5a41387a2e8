package org.zestyporter.server.run;

import java.time.LocalDateTime;
import org.jspecify.annotations.Nullable;

/**
 * A rehearsal or run as it is kept.
 *
 * @param batches number of batches that stand
 * @param batchRows rows that they took in, of which {@code reportJson} are the books
 * @param nextRows rows up to the end of the batch that is being committed, of which {@code
 *     nextReportJson} are the books
 * @param begun how often it was begun, since the server ended before it had done anything
 */
record ExecutionRecord(
    Long id,
    String kind,
    String number,
    long planId,
    int revision,
    long sourceId,
    Long rehearsalId,
    String state,
    String startedBy,
    LocalDateTime startedAt,
    LocalDateTime finishedAt,
    String reportJson,
    String code,
    String message,
    String mark,
    Long undoesId,
    int batches,
    long batchRows,
    Long nextRows,
    String nextReportJson,
    int begun) {

  /** One that is about to begin. */
  static ExecutionRecord beginning(
      String kind,
      long planId,
      int revision,
      long sourceId,
      @Nullable Long rehearsalId,
      String startedBy,
      LocalDateTime startedAt,
      @Nullable Long undoesId) {
    return new ExecutionRecord(
        null,
        kind,
        null,
        planId,
        revision,
        sourceId,
        rehearsalId,
        "going",
        startedBy,
        startedAt,
        null,
        null,
        null,
        null,
        null,
        undoesId,
        0,
        0,
        null,
        null,
        1);
  }

  /** What a file about it is called, without its ending, such as {@code returns-2026-0003}. */
  String fileName(String what) {
    return what + "-" + (number == null ? "rehearsal-" + id : number);
  }

  /** True if it is not over. */
  boolean isGoing() {
    return state.equals("going") || state.equals("committing");
  }

  /** True if it was cut off between two batches, so that it can go on. */
  boolean isCutOff() {
    return state.equals("paused") || state.equals("interrupted");
  }

  /** True if records that it wrote stand, as far as it is known. */
  boolean hasWritten() {
    return state.equals("done") || isCutOff();
  }
}
