package org.zestyporter.core.run;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.math.BigDecimal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ProblemCode;

/**
 * The books of a rehearsal or run.
 *
 * @param plan the plan's name
 * @param source the file's name
 * @param run the run's number; null for a rehearsal
 * @param state {@code done} once every row is accounted for; {@code going} for the books of what
 *     stands of a run in batches
 * @param read rows of the source
 * @param created records of linked tables that were made, or would be; of each table the first
 *     thousand
 * @param createdIn how many these are in all, by table
 * @param balanced true if rows and control totals agree
 * @param seconds how long it took
 * @param rowsPerSecond rows read a second
 */
public record RunReport(
    String plan,
    String source,
    @Nullable String run,
    String state,
    long read,
    List<DestinationReport> destinations,
    List<Question> questions,
    List<ProblemGroup> problems,
    List<ControlTotal> controlTotals,
    List<MadeRecord> created,
    List<MadeCount> createdIn,
    boolean balanced,
    double seconds,
    long rowsPerSecond) {

  /**
   * Outcomes in one destination.
   *
   * @param table what the destination is called, the name of its table if it has no other
   * @param fieldsChanged how many changed records differ in each field, most first
   * @param rows rows, and parts of rows, that came to it
   * @param removed records that were taken away by an undo; null if it is none
   * @param waiting of the rejected, those that nothing keeps back but a question; null if none
   */
  public record DestinationReport(
      String table,
      @JsonProperty("new") long added,
      long changed,
      long unchanged,
      long skipped,
      long rejected,
      List<FieldCount> fieldsChanged,
      long rows,
      @JsonInclude(JsonInclude.Include.NON_NULL) @Nullable Long removed,
      @JsonInclude(JsonInclude.Include.NON_NULL) @Nullable Long waiting) {
    public DestinationReport {
      // reports from before there were several tables don't say it
      rows = rows == 0 ? added + changed + unchanged + skipped + rejected : rows;
    }

    public long total() {
      long gone = removed == null ? 0 : removed;
      return added + changed + unchanged + skipped + rejected + gone;
    }
  }

  /** A field and a number of records. */
  public record FieldCount(String field, long records) {}

  public RunReport {
    created = created == null ? List.of() : created;
    if (createdIn == null) {
      // reports from before it was counted tell all of them
      Created all = new Created();
      created.forEach(all::add);
      createdIn = all.counts();
    }
  }

  /** Records of a linked table that were made, or would be. */
  public record MadeCount(String table, long records) {}

  /**
   * A record of a linked table that a row needed.
   *
   * @param value what it is looked up by
   * @param key its primary key; null before it is made
   * @param row line of the row that needed it first
   */
  public record MadeRecord(String table, String value, @Nullable String key, long row) {}

  /** Something that one answer settles for all its rows. */
  public record Question(
      ProblemCode code, String destination, String field, String value, long rows) {}

  /**
   * Rows with the same kind of problem in the same field.
   *
   * @param field null if it concerns the row as a whole
   * @param softened true if the rows went on without the value, as the plan says
   * @param values the values behind it, most frequent first, at most 12
   */
  public record ProblemGroup(
      ProblemCode code,
      String destination,
      @Nullable String field,
      String reason,
      boolean softened,
      long rows,
      Sample sample,
      List<Sample> values) {}

  /**
   * A value in trouble.
   *
   * @param row line of the first row that has it
   * @param rows how many rows have it
   */
  public record Sample(long row, String value, String reason, long rows) {}

  /**
   * The sum of a number field over all rows that are new, changed or unchanged.
   *
   * @param source what the fills gave
   * @param altered what the application added to it or took from it, as by a trigger; source and
   *     this together are what is written
   * @param written what the table holds, read back after a run
   */
  public record ControlTotal(
      String destination, String field, BigDecimal source, BigDecimal altered, BigDecimal written) {
    public ControlTotal {
      altered = altered == null ? BigDecimal.ZERO : altered;
    }
  }

  /** True if every row is accounted for and none is rejected. */
  @com.fasterxml.jackson.annotation.JsonIgnore
  public boolean clean() {
    return questions.isEmpty() && destinations.stream().allMatch(d -> d.rejected() == 0);
  }
}
