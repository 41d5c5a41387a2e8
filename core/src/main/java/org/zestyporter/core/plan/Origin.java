package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonValue;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Comparison;

/**
 * Where a fill's value comes from.
 *
 * <p>A link is looked up by a value that comes from a column, a template, a formula or a fixed
 * value, whichever is given.
 *
 * @param kind which of the others is used
 * @param column the source's column
 * @param template columns in brackets with texts between them; a text beside a blank column is left
 *     out
 * @param value the fixed value
 * @param formula the formula
 * @param generator what makes a generated value
 * @param series how a number series goes
 * @param link where a link is looked up
 */
@RecordBuilder
public record Origin(
    Kind kind,
    @Nullable String column,
    @Nullable String template,
    @Nullable String value,
    @Nullable String formula,
    @Nullable Generator generator,
    @Nullable Series series,
    @Nullable Link link)
    implements OriginBuilder.With {

  /** The kinds of origins. */
  public enum Kind {
    COLUMN,
    JOINED,
    FIXED,
    FORMULA,
    GENERATED,
    LINK,
    DATABASE;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** What makes a generated value. */
  public enum Generator {
    /** The name of the person who starts the run. */
    WHO,
    /** Date and time at which the run starts; all rows get the same. */
    RUN_TIME,
    FILE_NAME,
    /** The row's line number in the file. */
    LINE,
    /** Number of the row among the records of the file, from 1. */
    ROW,
    /** The run's number; the word “rehearsal” before there is a run. */
    RUN,
    /** A random identifier (RFC 9562, version 4), another one in each run. */
    UUID,
    /** Numbers that go on from row to row. */
    SERIES;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  /**
   * A series of numbers, a step a row of the file.
   *
   * @param start the first number; null to go on after the highest in the table
   * @param step from one row to the next, not 0
   * @param prefix stands before the number
   * @param width fewest digits, filled up with zeros
   */
  public record Series(
      @Nullable Long start, @Nullable Long step, @Nullable String prefix, @Nullable Integer width) {
    public long stepOrOne() {
      return step == null ? 1 : step;
    }
  }

  /**
   * Where a link is looked up.
   *
   * @param by the field of the linked table that holds the source's value
   * @param also further fields of the linked table that must hold what columns say
   * @param ignoring what is ignored when values are compared
   * @param whenMissing what happens when no record has the value
   * @param create how the other fields of a missing record are filled, if it is created
   */
  public record Link(
      String by,
      List<Also> also,
      List<Comparison.Ignore> ignoring,
      WhenMissing whenMissing,
      List<Fill> create) {
    public Link {
      also = also == null ? List.of() : List.copyOf(also);
      ignoring = ignoring == null ? List.of() : List.copyOf(ignoring);
      whenMissing = whenMissing == null ? WhenMissing.REJECT : whenMissing;
      create = create == null ? List.of() : List.copyOf(create);
    }

    public Link(String by, List<Comparison.Ignore> ignoring, WhenMissing whenMissing) {
      this(by, null, ignoring, whenMissing, null);
    }
  }

  /** A further field that a linked record is found by, and the column that holds its value. */
  public record Also(String field, String column) {}

  /** What happens when no record of the linked table has the value. */
  public enum WhenMissing {
    /** It is a question; its rows wait for the answer. */
    ASK,
    REJECT,
    BLANK,
    /** The record is made. */
    CREATE;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  public static final Origin DATABASE = of(Kind.DATABASE);

  private static Origin of(Kind kind) {
    return new Origin(kind, null, null, null, null, null, null, null);
  }

  public static Origin column(String column) {
    return of(Kind.COLUMN).withColumn(column);
  }

  public static Origin joined(String template) {
    return of(Kind.JOINED).withTemplate(template);
  }

  public static Origin fixed(String value) {
    return of(Kind.FIXED).withValue(value);
  }

  public static Origin formula(String formula) {
    return of(Kind.FORMULA).withFormula(formula);
  }

  public static Origin generated(Generator generator) {
    return of(Kind.GENERATED).withGenerator(generator);
  }

  public static Origin series(Series series) {
    return generated(Generator.SERIES).withSeries(series);
  }

  public static Origin link(String column, String by, Comparison.Ignore... ignoring) {
    return linked(column, new Link(by, List.of(ignoring), null));
  }

  public static Origin linked(String column, Link link) {
    return of(Kind.LINK).withColumn(column).withLink(link);
  }

  /** True if the value is taken from a single column of the source. */
  public boolean readsColumn() {
    return (kind == Kind.COLUMN || kind == Kind.LINK) && column != null;
  }
}
