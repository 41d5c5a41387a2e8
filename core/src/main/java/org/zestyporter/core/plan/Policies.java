package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/**
 * What happens to rows by what they match.
 *
 * @param onMatch the row matches one record
 * @param onNone the row matches none
 * @param onSeveral the row matches more than one
 * @param onRepeat several rows of the file have the same key
 */
public record Policies(OnMatch onMatch, OnNone onNone, OnSeveral onSeveral, OnRepeat onRepeat) {

  /** For rows that match one record. */
  public enum OnMatch {
    UPDATE,
    SKIP,
    REJECT;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** For rows that match no record. */
  public enum OnNone {
    ADD,
    SKIP,
    REJECT;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** For rows that match several records. */
  public enum OnSeveral {
    SKIP,
    REJECT;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** For rows of the file that have the same key. */
  public enum OnRepeat {
    KEEP_LAST,
    KEEP_FIRST,
    REJECT;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  public static final Policies DEFAULT = new Policies(null, null, null, null);

  public Policies {
    onMatch = onMatch == null ? OnMatch.UPDATE : onMatch;
    onNone = onNone == null ? OnNone.ADD : onNone;
    onSeveral = onSeveral == null ? OnSeveral.REJECT : onSeveral;
    onRepeat = onRepeat == null ? OnRepeat.KEEP_LAST : onRepeat;
  }
}
