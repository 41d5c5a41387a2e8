package org.zestyporter.core.value;

import java.lang.ref.SoftReference;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Something that takes much memory: made once somebody asks for it, and again if memory was short
 * meanwhile. For one thread at a time.
 */
public final class Softly<T> {
  private @Nullable SoftReference<T> kept;

  /** Gives it, and makes it if it is not kept. */
  public T get(Supplier<T> made) {
    T thing = kept == null ? null : kept.get();
    if (thing == null) {
      thing = made.get();
      kept = new SoftReference<>(thing);
    }
    return thing;
  }

  /** True if it is kept just now. */
  public boolean isKept() {
    return kept != null && kept.get() != null;
  }

  /** Has it made again the next time. */
  public void forget() {
    kept = null;
  }
}
