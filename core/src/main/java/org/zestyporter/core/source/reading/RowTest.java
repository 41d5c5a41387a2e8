package org.zestyporter.core.source.reading;

import com.fasterxml.jackson.annotation.JsonValue;
import java.math.BigDecimal;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.ValueReader;

/**
 * A condition on a cell of a row.
 *
 * @param column name of the column
 * @param test what is asked of the cell
 * @param value what it is compared with; null for blank and filled
 */
public record RowTest(String column, Test test, @Nullable String value) {

  /** What is asked of a cell. Texts are compared without regard to capitals and outer spaces. */
  public enum Test {
    BLANK,
    FILLED,
    IS,
    IS_NOT,
    CONTAINS,
    BEGINS,
    LESS,
    MORE,
    NO_NUMBER;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  public RowTest {
    if (column == null || test == null) {
      throw ErrorCode.CONDITION.error("A condition needs a column and a test.");
    }
    boolean alone = test == Test.BLANK || test == Test.FILLED || test == Test.NO_NUMBER;
    if (!alone && value == null) {
      throw ErrorCode.CONDITION.error(
          "The condition “" + test.word() + "” on " + column + " needs a value.");
    }
  }

  /** True if the cell is such. */
  public boolean holds(Cell cell, LocaleSettings locale) {
    String text = Texts.small(cell.text().strip());
    String other = value == null ? "" : Texts.small(value.strip());
    return switch (test) {
      case BLANK -> text.isEmpty();
      case FILLED -> !text.isEmpty();
      case IS -> text.equals(other);
      case IS_NOT -> !text.equals(other);
      case CONTAINS -> text.contains(other);
      case BEGINS -> text.startsWith(other);
      case LESS -> compare(cell, locale) < 0;
      case MORE -> compare(cell, locale) > 0;
      case NO_NUMBER -> number(cell, locale) == null;
    };
  }

  /** Compares as numbers; 0 if one of the two is none. */
  private int compare(Cell cell, LocaleSettings locale) {
    BigDecimal left = number(cell, locale);
    Object right = ValueReader.number(value, value.indexOf(',') >= 0 ? "," : ".");
    return left != null && right instanceof BigDecimal number ? left.compareTo(number) : 0;
  }

  private static BigDecimal number(Cell cell, LocaleSettings locale) {
    Object value =
        cell.kind() == Cell.Kind.TEXT
            ? ValueReader.number(cell.text(), locale.decimal())
            : cell.value();
    return value instanceof BigDecimal number ? number : null;
  }
}
