package org.zestyporter.core.value;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * What was asked for last, by its key. Nothing is made ready before somebody asks: a command that
 * never does starts a tenth of a second sooner.
 */
public final class Lately<K, V> {
  private final long most;
  private @Nullable Cache<K, V> kept;

  /**
   * @param most how many are kept
   */
  public Lately(long most) {
    this.most = most;
  }

  private synchronized Cache<K, V> kept() {
    if (kept == null) {
      kept = Caffeine.newBuilder().maximumSize(most).executor(Runnable::run).build();
    }
    return kept;
  }

  /** Gives what belongs to a key, and makes it if it is not kept. */
  public V get(K key, Function<K, V> made) {
    return kept().get(key, made);
  }

  /** Keeps none of them. */
  public synchronized void clear() {
    if (kept != null) {
      kept.invalidateAll();
    }
  }
}
