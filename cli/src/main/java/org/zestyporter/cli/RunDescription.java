package org.zestyporter.cli;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.RunReport;

/**
 * What is said of a run.
 *
 * @param url where it was written to, without user and password
 * @param state {@code going}, {@code committing} while a batch is being made lasting, or {@code
 *     done}
 * @param context who began it, when, and with which file: what its values are made of
 * @param fingerprint what tells its plan and its file from others; null if it can't go on anyway
 * @param stands what stands of it
 * @param next what will stand once the batch is made lasting; null if none is
 * @param mark what tells its transaction from all others; null if nothing does
 * @param undoes number of the run that it takes back; null if it is no undo
 * @param undoneBy number of the undo that took it back; null if it stands
 */
record RunDescription(
    String number,
    String plan,
    String url,
    String state,
    RunContext context,
    @Nullable String fingerprint,
    Part stands,
    @Nullable Part next,
    @Nullable String mark,
    @Nullable String undoes,
    @Nullable String undoneBy,
    List<LedgerLayout> layouts) {
  public RunDescription {
    layouts = layouts == null ? List.of() : List.copyOf(layouts);
  }

  private RunDescription at(String newState, Part now, @Nullable Part then, @Nullable String of) {
    return new RunDescription(
        number,
        plan,
        url,
        newState,
        context,
        fingerprint,
        now,
        then,
        of,
        undoes,
        undoneBy,
        layouts);
  }

  /** A batch is about to be made lasting. */
  RunDescription committing(Part then, @Nullable String of, List<LedgerLayout> all) {
    return new RunDescription(
        number,
        plan,
        url,
        "committing",
        context,
        fingerprint,
        stands,
        then,
        of,
        undoes,
        undoneBy,
        all);
  }

  /** The batch that was being made lasting stands. */
  RunDescription committed(boolean last) {
    return at(last ? "done" : "going", next, null, null);
  }

  /** The batch that was being made lasting does not stand. */
  RunDescription takenBack() {
    return at("going", stands, null, null);
  }

  RunDescription undoneBy(@Nullable String undo) {
    return new RunDescription(
        number, plan, url, state, context, fingerprint, stands, next, mark, undoes, undo, layouts);
  }

  @JsonIgnore
  boolean isDone() {
    return state.equals("done");
  }

  /** True if anything of it stands. */
  @JsonIgnore
  boolean isAny() {
    return isDone() || stands.batches() > 0;
  }

  /**
   * A part of a run from its beginning.
   *
   * @param rows rows of the file that it took in
   * @param bytes what its ledger takes
   * @param report its books; null if it is empty
   */
  record Part(int batches, long rows, long bytes, @Nullable RunReport report) {
    static final Part NOTHING = new Part(0, 0, 0, null);
  }
}
