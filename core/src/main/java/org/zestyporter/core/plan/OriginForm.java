package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonValue;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * An origin as a plan writes it: its kind, and beside it what that kind is made of.
 *
 * <p>A link is looked up by a value that comes from a column, a template, a formula or a fixed
 * value, whichever is given.
 */
@RecordBuilder
public record OriginForm(
    Kind kind,
    @Nullable String column,
    @Nullable String template,
    @Nullable String value,
    @Nullable String formula,
    Origin.@Nullable Generator generator,
    Origin.@Nullable Series series,
    Origin.@Nullable Link link)
    implements OriginFormBuilder.With {

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

  private static OriginForm kind(Kind kind) {
    return new OriginForm(kind, null, null, null, null, null, null, null);
  }

  /** What is written for an origin. */
  static OriginForm of(Origin origin) {
    if (origin instanceof Origin.Column of) {
      return kind(Kind.COLUMN).withColumn(of.column());
    }
    if (origin instanceof Origin.Joined of) {
      return kind(Kind.JOINED).withTemplate(of.template());
    }
    if (origin instanceof Origin.Fixed of) {
      return kind(Kind.FIXED).withValue(of.value());
    }
    if (origin instanceof Origin.Formula of) {
      return kind(Kind.FORMULA).withFormula(of.formula());
    }
    if (origin instanceof Origin.Generated of) {
      return kind(Kind.GENERATED).withGenerator(of.generator()).withSeries(of.series());
    }
    if (origin instanceof Origin.Linked of) {
      return (of.from() == null ? kind(Kind.LINK) : of(of.from()))
          .withKind(Kind.LINK)
          .withLink(of.link());
    }
    return kind(Kind.DATABASE);
  }

  /** The origin that is written; null if the kind is left out. */
  @Nullable Origin origin() {
    if (kind == null) {
      return null;
    }
    return switch (kind) {
      case COLUMN -> new Origin.Column(column);
      case JOINED -> new Origin.Joined(template);
      case FIXED -> new Origin.Fixed(value);
      case FORMULA -> new Origin.Formula(formula);
      case GENERATED -> new Origin.Generated(generator, series);
      case LINK -> new Origin.Linked(lookedUpBy(), link);
      case DATABASE -> Origin.DATABASE;
    };
  }

  private @Nullable Origin lookedUpBy() {
    if (column != null) {
      return new Origin.Column(column);
    }
    if (template != null) {
      return new Origin.Joined(template);
    }
    if (formula != null) {
      return new Origin.Formula(formula);
    }
    return value == null ? null : new Origin.Fixed(value);
  }
}
