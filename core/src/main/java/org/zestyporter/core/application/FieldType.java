package org.zestyporter.core.application;

import com.fasterxml.jackson.annotation.JsonValue;
import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Storage;

/** The kinds of fields that can be filled. */
public enum FieldType {
  TEXT(Storage.Kind.TEXT),
  WHOLE(Storage.Kind.NUMBER),
  DECIMAL(Storage.Kind.NUMBER),
  DATE(Storage.Kind.DATE),
  DATETIME(Storage.Kind.MOMENT),
  TIME(Storage.Kind.TIME),
  BOOLEAN(Storage.Kind.BOOLEAN),
  OTHER(Storage.Kind.OTHER);

  private static final int LONGEST_NUMBER = 1_000;

  private final Storage.Kind usual;

  FieldType(Storage.Kind usual) {
    this.usual = usual;
  }

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }

  public boolean isNumber() {
    return this == WHOLE || this == DECIMAL;
  }

  /**
   * A value that {@link org.zestyporter.core.value.Values#text} has written.
   *
   * @return null if the text can be no value of this type
   */
  public @Nullable Object read(String text) {
    try {
      return switch (this) {
        case TEXT, OTHER -> text;
        case WHOLE, DECIMAL -> text.length() > LONGEST_NUMBER ? null : number(text);
        case DATE -> LocalDate.parse(text);
        case DATETIME ->
            text.matches(".*(Z|[+-]\\d\\d:\\d\\d)")
                ? OffsetDateTime.parse(text)
                : LocalDateTime.parse(text);
        case TIME -> LocalTime.parse(text);
        case BOOLEAN -> text.equals("true") || text.equals("false") ? Boolean.valueOf(text) : null;
      };
    } catch (NumberFormatException | DateTimeException e) {
      return null;
    }
  }

  private static @Nullable BigDecimal number(String text) {
    BigDecimal number = new BigDecimal(text);
    return Math.abs((long) number.scale()) > LONGEST_NUMBER ? null : number;
  }

  public Storage.Kind usualStorage() {
    return usual;
  }
}
