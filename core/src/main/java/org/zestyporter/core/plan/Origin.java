package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Comparison;

/**
 * Where a fill's value comes from.
 *
 * @param kind which of the others is used
 * @param column the source's column, for kinds column and link
 * @param value the fixed value
 * @param generator what makes a generated value
 * @param link where a link is looked up
 */
public record Origin(
    Kind kind,
    @Nullable String column,
    @Nullable String value,
    @Nullable Generator generator,
    @Nullable Link link) {

  /** The kinds of origins. */
  public enum Kind {
    COLUMN,
    FIXED,
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
    LINE;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  /**
   * Where a link is looked up.
   *
   * @param by the field of the linked table that holds the source's value
   * @param ignoring what is ignored when values are compared
   * @param whenMissing what happens when no record has the value
   */
  public record Link(String by, List<Comparison.Ignore> ignoring, WhenMissing whenMissing) {
    public Link {
      ignoring = ignoring == null ? List.of() : List.copyOf(ignoring);
      whenMissing = whenMissing == null ? WhenMissing.REJECT : whenMissing;
    }
  }

  /** What happens when no record of the linked table has the value. */
  public enum WhenMissing {
    REJECT,
    BLANK;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  public static final Origin DATABASE = new Origin(Kind.DATABASE, null, null, null, null);

  public static Origin column(String column) {
    return new Origin(Kind.COLUMN, column, null, null, null);
  }

  public static Origin fixed(String value) {
    return new Origin(Kind.FIXED, null, value, null, null);
  }

  public static Origin generated(Generator generator) {
    return new Origin(Kind.GENERATED, null, null, generator, null);
  }

  public static Origin link(String column, String by, Comparison.Ignore... ignoring) {
    return new Origin(Kind.LINK, column, null, null, new Link(by, List.of(ignoring), null));
  }

  /** True if the value is taken from a column of the source. */
  public boolean readsColumn() {
    return kind == Kind.COLUMN || kind == Kind.LINK;
  }
}
