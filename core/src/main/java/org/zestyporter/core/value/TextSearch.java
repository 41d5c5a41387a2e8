package org.zestyporter.core.value;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.BitSet;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Finds a text in values as they are shown, ignoring capitals, without making a text of each.
 *
 * <pre>{@code
 * BitSet found = new BitSet();
 * new TextSearch("müll").find(column, found);
 * }</pre>
 */
public final class TextSearch {
  private static final String OF_NUMBERS = "0123456789-.";
  private static final String OF_DAYS = "0123456789-+";

  /** Days of years with four figures end here. */
  private static final long FOUR_FIGURES = LocalDate.of(9999, 12, 31).toEpochDay();

  private static final Pattern FIVE_FIGURES = Pattern.compile(".*\\d{5}.*");

  private final String sought;

  /** In small letters; null if it holds more than plain characters. */
  private final byte @Nullable [] plain;

  private final boolean maybeNumber;
  private final boolean maybeDay;
  private final boolean maybeUsualDay;

  /**
   * @param sought not empty
   */
  public TextSearch(String sought) {
    String small = Texts.small(sought);
    this.sought = small.isEmpty() ? sought : small;
    boolean isPlain = this.sought.chars().allMatch(c -> c < 128);
    this.plain = isPlain ? this.sought.getBytes(StandardCharsets.US_ASCII) : null;
    this.maybeNumber = this.sought.chars().allMatch(c -> OF_NUMBERS.indexOf(c) >= 0);
    this.maybeDay = this.sought.chars().allMatch(c -> OF_DAYS.indexOf(c) >= 0);
    this.maybeUsualDay = maybeDay && !FIVE_FIGURES.matcher(this.sought).matches();
  }

  /** True if a text holds it. */
  public boolean isIn(@Nullable String text) {
    return text != null && Texts.small(text).contains(sought);
  }

  /** Adds the rows of a column whose values hold it. */
  public void find(ValueColumn column, BitSet rows) {
    ValueColumn.Form form = column.form();
    if (form == ValueColumn.Form.NUMBER && !maybeNumber
        || form == ValueColumn.Form.DATE && !maybeDay) {
      return;
    }
    BitSet entries = new BitSet();
    Utf8 scratch = new Utf8(64);
    for (int entry = 0; entry < column.entries(); entry++) {
      if (!column.isBlankEntry(entry) && isIn(column, entry, scratch)) {
        entries.set(entry);
      }
    }
    for (int row = 0; !entries.isEmpty() && row < column.rows(); row++) {
      if (entries.get(column.entry(row))) {
        rows.set(row);
      }
    }
  }

  private boolean isIn(ValueColumn column, int entry, Utf8 scratch) {
    if (column.form() == ValueColumn.Form.TEXT) {
      column.textOf(entry, scratch.clear());
      Boolean found = isIn(scratch.array(), scratch.size());
      return found == null ? isIn(scratch.toString()) : found;
    }
    if (column.form() == ValueColumn.Form.NUMBER) {
      scratch.clear().putDecimal(column.numberOf(entry), column.scale());
      return Boolean.TRUE.equals(isIn(scratch.array(), scratch.size()));
    }
    if (column.form() == ValueColumn.Form.DATE
        && !maybeUsualDay
        && Math.abs(column.numberOf(entry)) < FOUR_FIGURES) {
      return false;
    }
    return isIn(Values.text(column.valueOf(entry)));
  }

  /**
   * True if the bytes hold it; null if they hold more than plain characters, so that it can't be
   * told.
   */
  private @Nullable Boolean isIn(byte[] text, int size) {
    boolean isPlain = true;
    int last = plain == null ? -1 : size - plain.length;
    for (int at = 0; at < size; at++) {
      isPlain &= text[at] >= 0;
      if (at <= last && small(text[at]) == plain[0] && continues(text, at)) {
        return true;
      }
    }
    return isPlain ? Boolean.FALSE : null;
  }

  private boolean continues(byte[] text, int at) {
    for (int i = 1; i < plain.length; i++) {
      if (small(text[at + i]) != plain[i]) {
        return false;
      }
    }
    return true;
  }

  private static int small(byte b) {
    return b >= 'A' && b <= 'Z' ? b + ('a' - 'A') : b;
  }
}
