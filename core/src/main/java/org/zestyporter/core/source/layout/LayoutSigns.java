package org.zestyporter.core.source.layout;

import java.nio.charset.StandardCharsets;
import org.zestyporter.core.source.cache.CellSigns;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ColumnProfiler;

/** The signs by which lines are left out, and words for a blank are looked for. */
public final class LayoutSigns implements CellSigns {
  private static final boolean[] BEGINS = new boolean[256];

  static {
    for (int first = 0; first < BEGINS.length; first++) {
      BEGINS[first] = TotalWords.mayBegin(first) || ColumnProfiler.mayBeBlankWord(first);
    }
  }

  @Override
  public boolean mayBegin(int first) {
    return BEGINS[first];
  }

  @Override
  public int of(Cell.Kind kind, byte[] bytes, int from, int to) {
    boolean total = TotalWords.mayBegin(bytes, from, to);
    boolean word = ColumnProfiler.mayBeBlankWord(bytes, from, to);
    if (kind != Cell.Kind.TEXT || !total && !word) {
      return 0;
    }
    String text = new String(bytes, from, to - from, StandardCharsets.UTF_8);
    int signs = total && TotalWords.begins(text) ? TOTAL : 0;
    return word && ColumnProfiler.isBlankWord(Cell.text(text)) ? signs | BLANK_WORD : signs;
  }
}
