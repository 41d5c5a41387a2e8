package org.zestyporter.core.run;

import java.lang.ref.SoftReference;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * What is kept for the next time, in no more than so many bytes: what was asked for longest ago
 * goes first, and all of it where memory is short.
 */
final class KeptThings<K, V> {
  private final long room;

  /** The ones that were asked for last at the end. */
  private final Map<K, Held<V>> kept = new LinkedHashMap<>(16, 0.75f, true);

  private record Held<V>(SoftReference<V> thing, long weight) {}

  /**
   * @param room bytes that all may take
   */
  KeptThings(long room) {
    this.room = room;
  }

  /** Null if it is not kept, or not any more. */
  synchronized @Nullable V get(K key) {
    Held<V> held = kept.get(key);
    return held == null ? null : held.thing.get();
  }

  /**
   * @param weight about how many bytes it takes
   */
  synchronized void keep(K key, V thing, long weight) {
    kept.put(key, new Held<>(new SoftReference<>(thing), weight));
    kept.values().removeIf(held -> held.thing.get() == null);
    long all = kept.values().stream().mapToLong(Held::weight).sum();
    Iterator<Held<V>> oldest = kept.values().iterator();
    while (all > room && oldest.hasNext()) {
      all -= oldest.next().weight;
      oldest.remove();
    }
  }

  synchronized void removeIf(Predicate<V> some) {
    kept.values()
        .removeIf(
            held -> {
              V thing = held.thing.get();
              return thing == null || some.test(thing);
            });
  }

  /** Notes that something was asked for. */
  synchronized void touch(K key) {
    kept.get(key);
  }

  /** All, in the order in which they were asked for last. */
  synchronized Map<K, V> all() {
    Map<K, V> all = new LinkedHashMap<>();
    kept.forEach(
        (key, held) -> {
          V thing = held.thing.get();
          if (thing != null) {
            all.put(key, thing);
          }
        });
    return all;
  }
}
