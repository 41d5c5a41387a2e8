package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Comparison;

/**
 * Where a fill's value comes from.
 *
 * <p>What an origin is made of may be missing while a plan is written; {@link PlanCheck} says so.
 */
public sealed interface Origin {

  /** The cell of a column. */
  record Column(@Nullable String column) implements Origin {}

  /**
   * Several columns in one text.
   *
   * @param template columns in brackets with texts between them; a text beside a blank column is
   *     left out
   */
  record Joined(@Nullable String template) implements Origin {}

  /** The same value for every row; null or empty for blank. */
  record Fixed(@Nullable String value) implements Origin {}

  /** The result of a formula. */
  record Formula(@Nullable String formula) implements Origin {}

  /**
   * A value that we make.
   *
   * @param series how a number series goes
   */
  record Generated(@Nullable Generator generator, @Nullable Series series) implements Origin {
    @Override
    public boolean isStamp() {
      return generator != null
          && switch (generator) {
            case WHO, RUN_TIME, RUN, UUID -> true;
            default -> false;
          };
    }
  }

  /**
   * The key of a record of another table.
   *
   * @param from gives the value that the record is looked up by: a column, a template, a formula or
   *     a fixed value
   * @param link where it is looked up
   */
  record Linked(@Nullable Origin from, @Nullable Link link) implements Origin {
    @Override
    public @Nullable String column() {
      return from == null ? null : from.column();
    }

    @Override
    public @Nullable Origin lookedUpBy() {
      return from;
    }
  }

  /** Whatever the database has for a field of which nothing is said. */
  record Database() implements Origin {}

  /** True if each run gives another value, whatever the file holds. */
  default boolean isStamp() {
    return false;
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
   * @param with further fields of the linked table whose values stand with it in the same cell, in
   *     whatever order, as the first and the last name of a person do
   * @param also further fields of the linked table that must hold what columns say
   * @param ignoring what is ignored when values are compared
   * @param whenMissing what happens when no record has the value
   * @param create how the other fields of a missing record are filled, if it is created
   * @param createOnly the only values for which one is created, while others are asked about; null
   *     for any
   */
  public record Link(
      String by,
      List<String> with,
      List<Also> also,
      List<Comparison.Ignore> ignoring,
      WhenMissing whenMissing,
      List<Fill> create,
      @Nullable List<String> createOnly) {
    public Link {
      with = with == null ? List.of() : List.copyOf(with);
      also = also == null ? List.of() : List.copyOf(also);
      ignoring = ignoring == null ? List.of() : List.copyOf(ignoring);
      whenMissing = whenMissing == null ? WhenMissing.REJECT : whenMissing;
      create = create == null ? List.of() : List.copyOf(create);
      createOnly = createOnly == null ? null : List.copyOf(createOnly);
    }

    public Link(
        String by,
        List<Also> also,
        List<Comparison.Ignore> ignoring,
        WhenMissing whenMissing,
        List<Fill> create) {
      this(by, null, also, ignoring, whenMissing, create, null);
    }

    public Link(String by, List<Comparison.Ignore> ignoring, WhenMissing whenMissing) {
      this(by, null, ignoring, whenMissing, null);
    }

    /** The fields whose values stand in the source's one, the first of them {@code by}. */
    public List<String> together() {
      return Stream.concat(Stream.of(by), with.stream()).toList();
    }

    /** The same with other fills for a missing record. */
    public Link withCreate(List<Fill> fills) {
      return new Link(by, with, also, ignoring, whenMissing, fills, createOnly);
    }

    /** True if a value of which no record is there is asked about. */
    public boolean asks() {
      return whenMissing == WhenMissing.ASK
          || whenMissing == WhenMissing.CREATE && createOnly != null;
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

  Origin DATABASE = new Database();

  static Origin column(String column) {
    return new Column(column);
  }

  static Origin joined(String template) {
    return new Joined(template);
  }

  static Origin fixed(String value) {
    return new Fixed(value);
  }

  static Origin formula(String formula) {
    return new Formula(formula);
  }

  static Origin generated(Generator generator) {
    return new Generated(generator, null);
  }

  static Origin series(Series series) {
    return new Generated(Generator.SERIES, series);
  }

  static Origin link(String column, String by, Comparison.Ignore... ignoring) {
    return linked(column, new Link(by, List.of(ignoring), null));
  }

  static Origin linked(@Nullable String column, Link link) {
    return new Linked(column == null ? null : new Column(column), link);
  }

  /** An origin as a plan writes it; null if it does not say of which kind. */
  @JsonCreator
  static @Nullable Origin of(OriginForm form) {
    return form.origin();
  }

  /** The way in which a plan writes it. */
  @JsonValue
  default OriginForm form() {
    return OriginForm.of(this);
  }

  /** The only column that the value, or what a link is looked up by, is taken from; else null. */
  default @Nullable String column() {
    return null;
  }

  /** The columns that the value, or what a link is looked up by, is taken from. */
  default List<String> columns() {
    if (lookedUpBy() instanceof Joined joined && joined.template() != null) {
      return Templates.columns(joined.template());
    }
    if (lookedUpBy() instanceof Formula made && made.formula() != null) {
      return org.zestyporter.core.formula.Formula.columnsOf(made.formula());
    }
    return column() == null ? List.of() : List.of(column());
  }

  /** Where it is looked up; null if it is no link. */
  default @Nullable Link link() {
    return null;
  }

  /** The origin without the look-up: itself, or what a link is looked up by. */
  default @Nullable Origin lookedUpBy() {
    return this;
  }
}
