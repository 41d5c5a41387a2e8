package org.zestyporter.core.fill;

import org.jspecify.annotations.Nullable;

/**
 * A record that the run will make, in the place of its key. It is a value like any other until the
 * application has numbered it.
 */
public interface Pending {

  /** The key that the application gave it; null as long as it is not made. */
  @Nullable Object key();
}
