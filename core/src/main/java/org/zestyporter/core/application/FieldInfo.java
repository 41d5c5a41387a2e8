package org.zestyporter.core.application;

import com.fasterxml.jackson.annotation.JsonIgnore;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.sql.Types;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.Storage;

/**
 * A field of a table, as the database describes it.
 *
 * @param length most characters; null if unlimited or not text
 * @param precision most digits; null if not a decimal number, or unlimited
 * @param scale digits after the decimal sign; null if not a decimal number, or unlimited
 * @param nullable true if the field may be blank
 * @param hasDefault true if the database fills it when it is left out
 * @param generated true if the database numbers or computes it
 * @param unique true if no two records may share a value
 * @param comment what the database says of it; null if nothing
 * @param choices the only values allowed; null if any
 * @param least the least number allowed; null if none is said
 * @param greatest the greatest number allowed; null if none is said
 * @param link what it points at; null if it is no link
 * @param jdbcType a constant of {@link java.sql.Types}
 * @param storage how it keeps a value
 * @param typeName the type in the database's own words, a domain with what it stands for
 * @param unfillable why no value can be given to it, without a full stop; null if one can
 * @param ignored what has no meaning for the database where values of it must be unique
 * @param letters what its texts are kept in, so that others than its letters have no room; null if
 *     all have
 */
@RecordBuilder
public record FieldInfo(
    String name,
    FieldType type,
    @Nullable Integer length,
    @Nullable Integer precision,
    @Nullable Integer scale,
    boolean nullable,
    boolean hasDefault,
    boolean generated,
    boolean unique,
    @Nullable String comment,
    @Nullable List<String> choices,
    @Nullable BigDecimal least,
    @Nullable BigDecimal greatest,
    @Nullable LinkInfo link,
    int jdbcType,
    @JsonIgnore Storage storage,
    String typeName,
    @Nullable String unfillable,
    @JsonIgnore List<Comparison.Ignore> ignored,
    @JsonIgnore @Nullable Charset letters)
    implements FieldInfoBuilder.With {

  /** A field that may be blank and of which no more is known than its type. */
  public static FieldInfo of(String name, FieldType type) {
    return FieldInfoBuilder.builder()
        .name(name)
        .type(type)
        .nullable(true)
        .jdbcType(Types.OTHER)
        .storage(Storage.of(type.usualStorage()))
        .typeName(type.word())
        .ignored(List.of())
        .build();
  }

  /** True if a new record can't do without a value for it. */
  public boolean required() {
    return !nullable && !mayBeLeft();
  }

  /** True if the database can tell a value for it that is not given. */
  public boolean mayBeLeft() {
    return hasDefault || generated;
  }

  /** True if a value can be given to it. */
  @JsonIgnore
  public boolean isFillable() {
    return unfillable == null;
  }

  /** True if there is room for all letters of a text. */
  public boolean hasLettersOf(String text) {
    return letters == null || letters.newEncoder().canEncode(text);
  }
}
