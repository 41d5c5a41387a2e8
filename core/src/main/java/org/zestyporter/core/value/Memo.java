package org.zestyporter.core.value;

import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentMap;
import java.util.function.Function;

/**
 * Remembers what was found out about some thousand words, for whoever asks very often and from
 * several threads; forgets all of it when it is full.
 */
public final class Memo<T> {
  private static final int MOST = 20_000;

  private final ConcurrentMap<String, T> known = new ConcurrentHashMap<>();
  private final Function<String, T> find;

  public Memo(Function<String, T> find) {
    this.find = find;
  }

  public T of(String word) {
    T found = known.get(word);
    if (found == null) {
      if (known.size() >= MOST) {
        known.clear();
      }
      found = find.apply(word);
      known.put(word, found);
    }
    return found;
  }
}
