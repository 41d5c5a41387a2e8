package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonValue;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.step.Step;

/**
 * How one field gets its value: an origin, then steps, then what a blank or a bad value means.
 *
 * @param field name of the field
 * @param origin where the value comes from
 * @param steps what is done to it, in order
 * @param whenBlank what a blank value means for a new record
 * @param blankOnMatch what a blank value means for an existing record
 * @param whenBad what a value that can't be taken means
 * @param defaultValue the value for {@code whenBlank} or {@code whenBad} = default, in the form in
 *     which the field is shown
 * @param onlyNew true if existing records keep what they have
 * @param never a direction in which the number or day of an existing record is not changed; null
 *     for none
 * @param farOff numbers and days that are right though they are far from all others, as a person
 *     says; {@value #ANY} if any may be
 * @param guess true if a draft chose the column on slight evidence and nobody has confirmed it;
 *     such a fill is rehearsed, but nothing is written by it
 */
@RecordBuilder
public record Fill(
    String field,
    Origin origin,
    List<Step> steps,
    WhenBlank whenBlank,
    BlankOnMatch blankOnMatch,
    WhenBad whenBad,
    @Nullable String defaultValue,
    boolean onlyNew,
    @Nullable Never never,
    @Nullable List<String> farOff,
    @Nullable Boolean guess)
    implements FillBuilder.With {

  /** Says that a value may be far from all others. */
  public static final String ANY = "*";

  /** What a blank value means for a new record. */
  public enum WhenBlank {
    /** The database's default, or nothing. */
    LEAVE,
    DEFAULT,
    REJECT;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** What a blank value means for an existing record. */
  public enum BlankOnMatch {
    KEEP,
    CLEAR;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** How a number or a day of an existing record is not changed. */
  public enum Never {
    LOWER,
    RAISE;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /** What a value that can't be taken means. */
  public enum WhenBad {
    /** Words that are not among the field's choices are questions; anything else is rejected. */
    ASK,
    REJECT,
    BLANK,
    DEFAULT;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  public Fill {
    steps = steps == null ? List.of() : List.copyOf(steps);
    whenBlank = whenBlank == null ? WhenBlank.LEAVE : whenBlank;
    blankOnMatch = blankOnMatch == null ? BlankOnMatch.KEEP : blankOnMatch;
    whenBad = whenBad == null ? WhenBad.REJECT : whenBad;
    farOff = farOff == null || farOff.isEmpty() ? null : List.copyOf(farOff);
    guess = Boolean.TRUE.equals(guess) ? Boolean.TRUE : null;
  }

  /** A fill with the usual policies. */
  public static Fill of(String field, Origin origin, Step... steps) {
    return new Fill(field, origin, List.of(steps), null, null, null, null, false, null, null, null);
  }

  /** True unless the field is left to the database. */
  @JsonIgnore
  public boolean isGiven() {
    return !(origin instanceof Origin.Database);
  }

  /** True if nobody has confirmed that the field is filled so. */
  public boolean awaitsConfirmation() {
    return guess != null;
  }

  /** The columns that it reads: by its origin, its steps, and for the records that it makes. */
  public Stream<String> columnsRead() {
    Origin.Link link = origin.link();
    Stream<String> read =
        Stream.concat(origin.columns().stream(), steps.stream().flatMap(Step::columnsRead));
    return link == null
        ? read
        : Stream.of(
                read,
                link.also().stream().map(Origin.Also::column),
                link.create().stream().flatMap(Fill::columnsRead))
            .flatMap(columns -> columns);
  }

  public Fill rejectBlank() {
    return withWhenBlank(WhenBlank.REJECT);
  }

  public Fill forNewOnly() {
    return withOnlyNew(true);
  }
}
