package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * What happens to rows by what they match.
 *
 * @param onMatch the row matches one record
 * @param onNone the row matches none
 * @param onSeveral the row matches more than one
 * @param onRepeat several rows of the file have the same key
 * @param latestBy the field that tells which of several records is the latest, for {@link
 *     OnSeveral#LATEST}
 */
public record Policies(
    OnMatch onMatch,
    OnNone onNone,
    OnSeveral onSeveral,
    OnRepeat onRepeat,
    @Nullable String latestBy) {

  /** For rows that match one record. */
  public enum OnMatch {
    UPDATE,
    /** Only fields in which the record has nothing take a value. */
    FILL_BLANKS,
    SKIP,
    REJECT,
    /** Whether it is the record is for a person to say. */
    ASK;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  /** For rows that match no record. */
  public enum OnNone {
    ADD,
    SKIP,
    REJECT,
    /** Whether it is a new record is for a person to say. */
    ASK;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  /** For rows that match several records. */
  public enum OnSeveral {
    /** Which of them is meant is for a person to say. */
    ASK,
    /** The one with the highest value in a field. */
    LATEST,
    SKIP,
    REJECT;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  /** For rows of the file that have the same key. */
  public enum OnRepeat {
    KEEP_LAST,
    KEEP_FIRST,
    /** One record of them all: each field takes the first value that is not blank. */
    MERGE,
    REJECT,
    /** Which of them is right is for a person to say, where they differ; else the last is kept. */
    ASK;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  public static final Policies DEFAULT = new Policies(null, null, null, null, null);

  /** What a draft proposes: which of several records or of several rows is meant is asked. */
  public static final Policies DRAFTED = new Policies(null, null, OnSeveral.ASK, OnRepeat.ASK);

  public Policies {
    onMatch = onMatch == null ? OnMatch.UPDATE : onMatch;
    onNone = onNone == null ? OnNone.ADD : onNone;
    onSeveral = onSeveral == null ? OnSeveral.REJECT : onSeveral;
    onRepeat = onRepeat == null ? OnRepeat.KEEP_LAST : onRepeat;
  }

  public Policies(OnMatch onMatch, OnNone onNone, OnSeveral onSeveral, OnRepeat onRepeat) {
    this(onMatch, onNone, onSeveral, onRepeat, null);
  }
}
