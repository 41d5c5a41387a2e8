package org.zestyporter.core.value;

import java.security.SecureRandom;
import java.util.Arrays;

/**
 * Texts, each with a place from 0 on in the order in which they came. They are told apart by 96
 * bits of hashes with a seed that nobody knows, and not kept themselves: about 30 bytes each,
 * however long they are. For use by several threads.
 */
public final class HashedTexts {
  private static final SecureRandom RANDOM = new SecureRandom();
  private static final Hash HASH = new Hash(RANDOM.nextLong());
  private static final Hash CHECK = new Hash(RANDOM.nextLong());

  /** What leads from a hash to another one, where two texts have the same. */
  private static final long NEXT = 0x9E3779B97F4A7C15L;

  private static final int FIRST = 16;

  private final LongIndex places = new LongIndex();
  private final Utf8 scratch = new Utf8(64);
  private int[] checks = new int[FIRST];

  /** The place of a text; -1 if it is none of them. */
  public synchronized int place(String text) {
    return find(text, false);
  }

  /** The place of a text, which is one of them from now on. */
  public synchronized int put(String text) {
    return find(text, true);
  }

  public synchronized boolean contains(String text) {
    return find(text, false) >= 0;
  }

  public synchronized int size() {
    return places.size();
  }

  private int find(String text, boolean puts) {
    scratch.clear().put(text);
    int check = (int) CHECK.of(scratch.array(), scratch.size());
    long hash = HASH.of(scratch.array(), scratch.size());
    int place = places.get(hash);
    while (place >= 0 && checks[place] != check) {
      hash = hash + NEXT == 0 ? NEXT : hash + NEXT;
      place = places.get(hash);
    }
    if (place < 0 && puts) {
      place = places.size();
      places.put(hash, place);
      if (place == checks.length) {
        checks = Arrays.copyOf(checks, place * 2);
      }
      checks[place] = check;
    }
    return place;
  }
}
