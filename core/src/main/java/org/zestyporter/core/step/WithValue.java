package org.zestyporter.core.step;

import java.time.LocalDateTime;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.formula.Scope;

/**
 * A row in which the value so far is one more column.
 *
 * @param at index of that column
 */
record WithValue(Scope row, int at, @Nullable Object value) implements Scope {

  @Override
  public @Nullable Object column(int index) {
    return index == at ? value : row.column(index);
  }

  @Override
  public long line() {
    return row.line();
  }

  @Override
  public LocalDateTime now() {
    return row.now();
  }

  @Override
  public String who() {
    return row.who();
  }

  @Override
  public String fileName() {
    return row.fileName();
  }
}
