package org.zestyporter.core.run;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.KeyText;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Values;

/**
 * What happened to one row in one destination.
 *
 * @param line the row's line number in the file
 * @param row index of the row among the source's rows, from 0; folded rows share a line
 * @param part number of the entry among those of its row, from 0
 * @param matchedBy number of the match key that found the record, from 1; 0 if none did
 * @param recordKey primary key of the record, a {@link KeyText}; null if there is none
 * @param after what each fill gave, as text, in the order of the ledger's fields
 * @param before what the record held in these fields; null if there was no record
 * @param changed positions of the fields that are written differently
 * @param notes why it was rejected or skipped, and values that the plan let go
 */
public record LedgerEntry(
    long line,
    long row,
    int part,
    Outcome outcome,
    int matchedBy,
    @Nullable String recordKey,
    List<String> after,
    @Nullable List<String> before,
    List<Integer> changed,
    List<Note> notes) {

  /** True if a row is rejected only as long as nobody answers what it asks. */
  public static boolean isWaiting(Outcome outcome, List<Note> notes) {
    boolean asks = false;
    for (Note note : notes) {
      if (!note.softened() && !note.question()) {
        return false;
      }
      asks |= note.question();
    }
    return asks && outcome == Outcome.REJECTED;
  }

  /** The same of this row. */
  @JsonIgnore
  public boolean awaitsAnswer() {
    return isWaiting(outcome, notes);
  }

  /**
   * A remark about a row.
   *
   * @param code what kind
   * @param field the field; null for the row as a whole
   * @param value the value that could not be taken; null if none
   * @param softened true if the row went on without it, as the plan says
   * @param question true if one answer settles it for all rows with this value; of what befalls a
   *     row because of another record, if that one waits for an answer
   */
  public record Note(
      ProblemCode code,
      @Nullable String field,
      @Nullable String value,
      String reason,
      boolean softened,
      boolean question) {
    public Note(
        ProblemCode code,
        @Nullable String field,
        @Nullable String value,
        String reason,
        boolean softened) {
      this(code, field, value, reason, softened, false);
    }

    /** The application keeps another value than it was given. */
    public static Note altered(String field, @Nullable Object given, @Nullable Object held) {
      String reason =
          held == null
              ? "the application made it blank"
              : "the application made it “" + Values.text(held) + "”";
      return new Note(ProblemCode.ALTERED, field, Values.text(given), reason, true);
    }
  }
}
