package org.zestyporter.core.fill;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.function.BiPredicate;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.HashedTexts;
import org.zestyporter.core.value.Values;

/**
 * Which values a link has asked for, and the keys of the records that were found for them: as many
 * as a file has distinct values, so they are kept small, about 40 bytes each. For use by several
 * threads.
 */
final class LinkAnswers {
  /** Stands for the keys of several records. */
  static final Object SEVERAL = new Object();

  private static final int FIRST = 16;

  private final HashedTexts texts = new HashedTexts();
  private final BitSet asked = new BitSet();
  private final BitSet found = new BitSet();
  private int size;

  /** Keys that are whole numbers, by the places of their texts, and all others. */
  private long[] numbers = new long[FIRST];

  private final BitSet isNumber = new BitSet();
  private final Map<Integer, Object> others = new HashMap<>();
  private final BiPredicate<Object, Object> isSame;

  /**
   * @param isSame true for two keys of the same record
   */
  LinkAnswers(BiPredicate<Object, Object> isSame) {
    this.isSame = isSame;
  }

  /** True if it was asked for. */
  synchronized boolean isAsked(String text) {
    int place = texts.place(text);
    return place >= 0 && asked.get(place);
  }

  /** Notes that some were asked for. */
  synchronized void ask(Collection<String> some) {
    some.forEach(text -> asked.set(texts.put(text)));
  }

  /** Notes the key of a record. */
  synchronized void find(String text, Object key) {
    int place = texts.put(text);
    if (!found.get(place)) {
      found.set(place);
      size++;
      put(place, key);
    } else if (!isSame(get(place), key)) {
      put(place, SEVERAL);
    }
  }

  private boolean isSame(Object one, Object other) {
    return one != SEVERAL && isSame.test(one, other);
  }

  /** The key of the record that was found; {@link #SEVERAL} if several were, null if none was. */
  synchronized @Nullable Object key(String text) {
    int place = texts.place(text);
    return place >= 0 && found.get(place) ? get(place) : null;
  }

  /** Number of values for which records were found. */
  synchronized int size() {
    return size;
  }

  private Object get(int place) {
    return isNumber.get(place) ? BigDecimal.valueOf(numbers[place]) : others.get(place);
  }

  private void put(int place, Object key) {
    boolean isWhole = key instanceof BigDecimal number && Values.isLong(number);
    isNumber.set(place, isWhole);
    if (isWhole) {
      if (place >= numbers.length) {
        numbers = Arrays.copyOf(numbers, Math.max(place + 1, numbers.length * 2));
      }
      numbers[place] = ((BigDecimal) key).longValue();
    } else {
      others.put(place, key);
    }
  }
}
