package org.zestyporter.core.value;

import java.util.regex.Pattern;

/**
 * Texts of tables that are written for spreadsheets. A cell that begins with {@code = + - @}, a tab
 * or a carriage return may be taken for a formula there, and run. Such a cell is written with an
 * apostrophe before it, which makes it a text, and which is taken away when it is read by us; plain
 * numbers are harmless and stay. What begins with apostrophes before such a sign gets one more, so
 * that every text comes back as it was.
 */
public final class HarmlessCells {
  private static final Pattern RISKY = Pattern.compile("(?s)'*[=+\\-@\\t\\r].*");
  private static final Pattern GUARDED = Pattern.compile("(?s)'+[=+\\-@\\t\\r].*");
  private static final Pattern NUMBER = Pattern.compile("[+-]\\d+(?:[.,]\\d+)*");

  private HarmlessCells() {}

  /** A text as it may stand in a cell. */
  public static String guard(String text) {
    boolean risky = text != null && RISKY.matcher(text).matches();
    return risky && !NUMBER.matcher(text).matches() ? "'" + text : text;
  }

  /** The text that {@link #guard} was given. */
  public static String unguard(String cell) {
    return cell != null && GUARDED.matcher(cell).matches() ? cell.substring(1) : cell;
  }
}
