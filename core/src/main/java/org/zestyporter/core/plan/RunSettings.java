package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonValue;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * How a run goes.
 *
 * @param mode what becomes of the others when the database refuses a row
 * @param whenAltered what it means that the application keeps another value than it was given
 * @param rows what becomes of a row's other records when one of them is rejected
 * @param batchRows rows that are made lasting together, at least, if that is done in batches
 * @param stopAfter rejected rows up to which a run goes on; null if any number is borne
 * @param stopAfterPercent the same, as a share of the file's rows, from 0 to 100
 * @param whenDifferent what it means that rows come out otherwise than they were rehearsed
 * @param tryInDatabase true if a rehearsal has the database try everything, and takes it back
 */
@RecordBuilder
public record RunSettings(
    Mode mode,
    WhenAltered whenAltered,
    Rows rows,
    Integer batchRows,
    @Nullable Integer stopAfter,
    @Nullable Integer stopAfterPercent,
    WhenDifferent whenDifferent,
    boolean tryInDatabase)
    implements RunSettingsBuilder.With {

  /** What becomes of a row's other records when one of them is rejected. */
  public enum Rows {
    /** None is written. */
    WHOLE,
    /** They are written, but for those that belong to it. */
    EACH;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** What becomes of the others when the database refuses a row. */
  public enum Mode {
    /** A single refusal takes everything back. */
    ALL_OR_NOTHING,
    /** The row is rejected, and the others are written, all of them together. */
    SET_ASIDE,
    /** The same, but some thousand rows are made lasting at a time. */
    BATCHES;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  /**
   * What it means that the application (a trigger, a rule) keeps another value than it was given.
   */
  public enum WhenAltered {
    /** That is its right: the ledger and the books tell it. */
    ACCEPT,
    /** Nothing is written. */
    REFUSE;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** What it means that rows come out otherwise than they were rehearsed. */
  public enum WhenDifferent {
    /** They are written as they come out, and told. */
    GO_ON,
    /** Nothing is written. */
    REFUSE;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  /** Rows that are made lasting together if the plan does not say. */
  public static final int BATCH_ROWS = 10_000;

  private static final int MOST_BATCH_ROWS = 10_000_000;
  private static final int HUNDRED = 100;

  public static final RunSettings ALL_OR_NOTHING = new RunSettings(null, null);

  public RunSettings(Mode mode, WhenAltered whenAltered) {
    this(mode, whenAltered, null, null, null, null, null, false);
  }

  /**
   * Throws if a number makes no sense.
   *
   * @throws PorterException with code {@code number}
   */
  public void require() {
    if (batchRows < 1 || batchRows > MOST_BATCH_ROWS) {
      throw ErrorCode.NUMBER.error(
          "A batch has from 1 to " + MOST_BATCH_ROWS + " rows, and not " + batchRows + ".");
    }
    if (stopAfter != null && stopAfter < 0) {
      throw ErrorCode.NUMBER.error("A run can't bear " + stopAfter + " rejected rows.");
    }
    if (stopAfterPercent != null && (stopAfterPercent < 0 || stopAfterPercent > HUNDRED)) {
      throw ErrorCode.NUMBER.error(
          "A run bears from 0 to 100 % of rejected rows, and not " + stopAfterPercent + " %.");
    }
  }

  public RunSettings {
    mode = mode == null ? Mode.ALL_OR_NOTHING : mode;
    whenAltered = whenAltered == null ? WhenAltered.ACCEPT : whenAltered;
    rows = rows == null ? Rows.WHOLE : rows;
    batchRows = batchRows == null ? BATCH_ROWS : batchRows;
    whenDifferent = whenDifferent == null ? WhenDifferent.GO_ON : whenDifferent;
  }
}
