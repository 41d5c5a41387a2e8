package org.zestyporter.core.formula;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** The types that a formula computes with; {@link #ANY} is told only when a row is at hand. */
public enum Kind {
  ANY("any value"),
  TEXT("a text"),
  NUMBER("a number"),
  /** A day, with or without a time of day. */
  DATE("a date"),
  /** A time of day. */
  TIME("a time"),
  LOGICAL("true or false");

  private final String phrase;

  Kind(String phrase) {
    this.phrase = phrase;
  }

  String phrase() {
    return phrase;
  }

  /** True if values of it may be true or false. */
  public boolean mayBeLogical() {
    return this == LOGICAL || this == ANY;
  }

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
