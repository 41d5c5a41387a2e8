package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.value.Storage;

/**
 * The type of a field in the database's own catalogue, which tells more than JDBC does.
 *
 * @param name the type in the database's own words
 * @param limit most characters of a text, most digits of a number; null if unlimited
 * @param scale digits after the decimal sign; null if unlimited, or if it is no number
 * @param bits size of a binary whole number; 0 if it is none
 * @param choices the values of an enumeration; null if it is none
 * @param domain what its domain adds; null if it is of none
 * @param always true if the database alone gives it values
 * @param unfillable why no value can be given to it; null if one can
 */
record NativeType(
    String name,
    FieldType type,
    Storage storage,
    @Nullable Integer limit,
    @Nullable Integer scale,
    int bits,
    @Nullable List<String> choices,
    @Nullable Domain domain,
    boolean always,
    @Nullable String unfillable) {

  /** What a domain adds to the type it stands for. */
  record Domain(boolean required, boolean hasDefault, @Nullable CheckRule rule) {}

  static NativeType of(String name, FieldType type, Storage.Kind kind) {
    return new NativeType(name, type, Storage.of(kind), null, null, 0, null, null, false, null);
  }

  static NativeType text(String name, Storage.Kind kind, @Nullable Integer length) {
    return new NativeType(
        name, FieldType.TEXT, Storage.of(kind), length, null, 0, null, null, false, null);
  }

  static NativeType whole(String name, int bits) {
    return new NativeType(
        name,
        FieldType.WHOLE,
        Storage.of(Storage.Kind.NUMBER),
        null,
        0,
        bits,
        null,
        null,
        false,
        null);
  }

  /** An exact number; one without decimals is whole. */
  static NativeType exact(String name, @Nullable Integer precision, @Nullable Integer scale) {
    FieldType type = scale != null && scale == 0 ? FieldType.WHOLE : FieldType.DECIMAL;
    return new NativeType(
        name, type, Storage.of(Storage.Kind.NUMBER), precision, scale, 0, null, null, false, null);
  }

  static NativeType timed(String name, FieldType type, Storage.Kind kind, int digits) {
    return new NativeType(
        name, type, new Storage(kind, digits), null, null, 0, null, null, false, null);
  }

  /** A type that is shown and left alone. */
  static NativeType leftAlone(String name) {
    return of(name, FieldType.OTHER, Storage.Kind.OTHER)
        .unfillable("fields of the type " + name + " can't be filled from a file yet");
  }

  NativeType withChoices(List<String> labels) {
    return new NativeType(
        name, type, storage, limit, scale, bits, labels, domain, always, unfillable);
  }

  NativeType inDomain(String shown, Domain added) {
    return new NativeType(
        shown, type, storage, limit, scale, bits, choices, added, always, unfillable);
  }

  /** The database gives every value itself, for a reason. */
  NativeType always(String reason) {
    return new NativeType(name, type, storage, limit, scale, bits, choices, domain, true, reason);
  }

  private NativeType unfillable(String reason) {
    return new NativeType(name, type, storage, limit, scale, bits, choices, domain, always, reason);
  }

  /** The least and the greatest whole number of its size; nulls if it has none. */
  BigDecimal[] range() {
    if (bits == 0) {
      return new BigDecimal[2];
    }
    BigDecimal power = BigDecimal.valueOf(2).pow(bits - 1);
    return new BigDecimal[] {power.negate(), power.subtract(BigDecimal.ONE)};
  }
}
