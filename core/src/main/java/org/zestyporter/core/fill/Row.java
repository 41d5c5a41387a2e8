package org.zestyporter.core.fill;

import org.zestyporter.core.formula.Scope;
import org.zestyporter.core.value.Cell;

/** The row at hand, as fills see it. */
public interface Row extends Scope {

  /** The cell of a column. */
  Cell cell(int column);

  /** Index of the row among the records of the file, from 0. */
  long index();

  /** The run that it is part of. */
  RunContext run();

  @Override
  default Object column(int index) {
    return cell(index).value();
  }

  @Override
  default java.time.LocalDateTime now() {
    return run().time();
  }

  @Override
  default String who() {
    return run().who();
  }

  @Override
  default String fileName() {
    return run().fileName();
  }
}
