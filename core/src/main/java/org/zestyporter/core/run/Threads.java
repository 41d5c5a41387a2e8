package org.zestyporter.core.run;

import java.util.concurrent.ExecutionException;

/** What the threads of a pipeline have in common. */
final class Threads {
  private Threads() {}

  /** What ended the work of another thread, as it was thrown there. */
  static RuntimeException thrown(ExecutionException e) {
    if (e.getCause() instanceof Error cause) {
      throw cause;
    }
    return e.getCause() instanceof RuntimeException cause
        ? cause
        : new IllegalStateException(e.getCause());
  }
}
