package org.zestyporter.core.application.jdbc;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.Storage;

/**
 * The type of a field in the database's own catalogue, which tells more than JDBC does.
 *
 * @param name the type in the database's own words
 * @param limit most characters of a text, most digits of a number; null if unlimited
 * @param scale digits after the decimal sign; null if unlimited, or if it is no number
 * @param least the least number that its size allows; null if none
 * @param greatest the greatest number that its size allows; null if none
 * @param choices the values of an enumeration; null if it is none
 * @param domain what its domain adds; null if it is of none
 * @param numbered true if the database numbers new records
 * @param always true if the database alone gives it values
 * @param unfillable why no value can be given to it; null if one can
 * @param ignored what has no meaning where its values must be unique
 * @param letters what texts are kept in; null if all letters have room
 */
@RecordBuilder
record NativeType(
    String name,
    FieldType type,
    Storage storage,
    @Nullable Integer limit,
    @Nullable Integer scale,
    @Nullable BigDecimal least,
    @Nullable BigDecimal greatest,
    @Nullable List<String> choices,
    @Nullable Domain domain,
    boolean numbered,
    boolean always,
    @Nullable String unfillable,
    List<Comparison.Ignore> ignored,
    @Nullable Charset letters)
    implements NativeTypeBuilder.With {

  /**
   * What a domain adds to the type it stands for.
   *
   * @param rule what its checks say of choices and bounds
   * @param checks those that say anything else, of what they call VALUE
   */
  record Domain(
      boolean required, boolean hasDefault, @Nullable CheckRule rule, List<String> checks) {

    /** A domain with these checks, inside another one or none. */
    static Domain of(
        boolean required, boolean hasDefault, List<String> texts, @Nullable Domain inside) {
      CheckRule rule = inside == null ? null : inside.rule();
      List<String> others = new ArrayList<>(inside == null ? List.of() : inside.checks());
      for (String text : texts) {
        CheckRule parsed = CheckRule.parse(text);
        if (parsed == null) {
          others.add(text);
        } else {
          rule = rule == null ? parsed : rule.and(parsed);
        }
      }
      return new Domain(
          required || inside != null && inside.required(),
          hasDefault || inside != null && inside.hasDefault(),
          rule,
          List.copyOf(others));
    }

    /** Its other checks, said of a field. */
    List<String> checksOf(String field) {
      String quoted = "\"" + field.replace("\"", "\"\"") + "\"";
      return checks.stream().map(check -> SqlText.withValue(check, quoted)).toList();
    }
  }

  static NativeType of(String name, FieldType type, Storage storage) {
    return NativeTypeBuilder.builder()
        .name(name)
        .type(type)
        .storage(storage)
        .ignored(List.of())
        .build();
  }

  static NativeType of(String name, FieldType type, Storage.Kind kind) {
    return of(name, type, Storage.of(kind));
  }

  static NativeType text(String name, Storage.Kind kind, @Nullable Integer length) {
    return of(name, FieldType.TEXT, kind).withLimit(length);
  }

  /**
   * A whole number of so many bits.
   *
   * @param signed false if it is never under 0
   */
  static NativeType whole(String name, int bits, boolean signed) {
    BigInteger power = BigInteger.ONE.shiftLeft(signed ? bits - 1 : bits);
    return of(name, FieldType.WHOLE, Storage.Kind.NUMBER)
        .withLeast(new BigDecimal(signed ? power.negate() : BigInteger.ZERO))
        .withGreatest(new BigDecimal(power.subtract(BigInteger.ONE)));
  }

  static NativeType whole(String name, int bits) {
    return whole(name, bits, true);
  }

  /** An exact number; one without decimals is whole. */
  static NativeType exact(String name, @Nullable Integer precision, @Nullable Integer scale) {
    FieldType type = scale != null && scale == 0 ? FieldType.WHOLE : FieldType.DECIMAL;
    return of(name, type, Storage.Kind.NUMBER).withLimit(precision).withScale(scale);
  }

  static NativeType timed(String name, FieldType type, Storage.Kind kind, int digits) {
    return of(name, type, Storage.timed(kind, digits));
  }

  /** A type that is shown and left alone. */
  static NativeType leftAlone(String name) {
    return of(name, FieldType.OTHER, Storage.Kind.OTHER)
        .withUnfillable("fields of the type " + name + " can't be filled from a file yet");
  }

  NativeType inDomain(String shown, Domain added) {
    return withName(shown).withDomain(added);
  }

  boolean isFillable() {
    return unfillable == null;
  }

  /** The database gives every value itself, for a reason. */
  NativeType always(String reason) {
    return withAlways(true).withUnfillable(reason);
  }
}
