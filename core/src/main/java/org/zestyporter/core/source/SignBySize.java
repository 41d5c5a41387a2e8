package org.zestyporter.core.source;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.Votes;

/**
 * Tells which sign stands before decimals in a column whose texts leave it open, by the size of its
 * other numbers: among kilograms from 1 to 900, {@code 669,805 kg} is no 669805.
 */
final class SignBySize {
  /** Values of each kind that tell anything. */
  private static final int LEAST = 8;

  /** How much nearer one reading has to be than the other, and how near, in powers of ten. */
  private static final double CLEARLY = 1.5;

  private static final double NEAR = 1;

  private static final Pattern OPEN = Pattern.compile("(\\d{1,3})([.,])(\\d{3})");
  private static final Pattern BARE = Pattern.compile("-?\\d{1,15}");

  private final List<Double> sure = new ArrayList<>();
  private final List<Double> open = new ArrayList<>();
  private long commas;
  private long points;

  private SignBySize() {}

  /**
   * What the numbers of a column say, in rows; nothing if they are few, or of any size.
   *
   * @param values its distinct cells
   */
  static Votes of(DistinctValues values) {
    SignBySize of = new SignBySize();
    values.each((cell, rows, line) -> of.note(cell, rows));
    return of.votes();
  }

  private void note(Cell cell, long rows) {
    String text = cell.text();
    if (cell.kind() == Cell.Kind.NUMBER || BARE.matcher(text).matches()) {
      note(sure, Double.parseDouble(text));
    } else if (Votes.ofNumber(text, 1).eitherSign() > 0) {
      Matcher parts = OPEN.matcher(text);
      if (parts.find()) {
        note(open, Double.parseDouble(parts.group(1) + "." + parts.group(3)));
        commas += parts.group(2).equals(",") ? rows : 0;
        points += parts.group(2).equals(".") ? rows : 0;
      }
    }
  }

  private static void note(List<Double> sizes, double number) {
    if (number != 0) {
      sizes.add(Math.log10(Math.abs(number)));
    }
  }

  private Votes votes() {
    if (sure.size() < LEAST || open.size() < LEAST || commas > 0 && points > 0) {
      return Votes.NONE;
    }
    double asDecimals = Math.abs(middle(open) - middle(sure));
    double asThousands = Math.abs(middle(open) + 3 - middle(sure));
    if (Math.abs(asDecimals - asThousands) < CLEARLY || Math.min(asDecimals, asThousands) > NEAR) {
      return Votes.NONE;
    }
    return Votes.ofSign(commas > 0 == asDecimals < asThousands, commas + points);
  }

  private static double middle(List<Double> sizes) {
    Collections.sort(sizes);
    return sizes.get(sizes.size() / 2);
  }
}
