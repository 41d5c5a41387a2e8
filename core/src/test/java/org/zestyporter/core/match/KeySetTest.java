package org.zestyporter.core.match;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

class KeySetTest {

  /** Hashes that are spread, and such that share their beginnings or differ in one bit. */
  @Test
  void eachHashHasAPlaceOfItsOwnAndRepeatsAreTold() {
    Random random = new Random(17);
    for (int round = 0; round < 42; round++) {
      // so many are shared out among the processors
      int count = round >= 40 ? 150_000 : random.nextInt(1 << random.nextInt(17));
      long[] hashes = new long[count];
      Map<Long, Integer> times = new HashMap<>();
      for (int i = 0; i < count; i++) {
        hashes[i] =
            switch (random.nextInt(5)) {
              case 0 -> 0;
              case 1 -> random.nextInt(50) - 25;
              case 2 -> i == 0 ? 1 : hashes[random.nextInt(i)];
              case 3 -> i == 0 ? -1 : hashes[random.nextInt(i)] ^ 1L << random.nextInt(64);
              default -> random.nextLong();
            };
        if (hashes[i] != 0) {
          times.merge(hashes[i], 1, Integer::sum);
        }
      }
      Set<Long> repeated = new HashSet<>();
      int[] placeOf = new int[count];
      KeySet set =
          new KeySet(
              pieces(hashes, 1 + random.nextInt(round >= 40 ? 50_000 : 500)),
              count,
              repeated::add,
              placeOf);
      BitSet places = new BitSet();
      times.forEach(
          (hash, n) -> {
            int place = set.place(hash);
            assertThat(place).isBetween(0, times.size() - 1);
            assertThat(places.get(place)).isFalse();
            places.set(place);
            assertThat(repeated.contains(hash)).isEqualTo(n > 1);
            for (int bit = 0; bit < Long.SIZE; bit += 7) {
              long near = hash ^ 1L << bit;
              assertThat(set.place(near) >= 0).isEqualTo(times.containsKey(near));
            }
          });
      assertThat(set.size()).isEqualTo(times.size());
      long[] asked = Arrays.copyOf(hashes, count + random.nextInt(200));
      for (int i = count; i < asked.length; i++) {
        asked[i] = random.nextLong();
      }
      int[] found = new int[asked.length];
      assertThat(set.isPlaced()).isTrue();
      assertThat(placeOf)
          .containsExactly(
              Arrays.stream(hashes).mapToInt(h -> h == 0 ? -1 : set.place(h)).toArray());
      set.places(asked, found);
      assertThat(found)
          .containsExactly(
              Arrays.stream(asked).mapToInt(h -> h == 0 ? -1 : set.place(h)).toArray());
    }
  }

  @Test
  void whereEachWentIsNotToldOfKeysThatTooManyHave() {
    long[] hashes = new long[200_000];
    Random random = new Random(8);
    for (int i = 0; i < hashes.length; i++) {
      hashes[i] = i % 2 == 0 ? 77 : random.nextLong();
    }
    Set<Long> repeated = new HashSet<>();
    KeySet set =
        new KeySet(new long[][] {hashes}, hashes.length, repeated::add, new int[hashes.length]);
    assertThat(set.isPlaced()).isFalse();
    assertThat(repeated).containsExactly(77L);
    assertThat(set.size()).isEqualTo(100_001);
    assertThat(set.place(77)).isNotNegative();
  }

  private static long[][] pieces(long[] all, int length) {
    long[][] pieces = new long[all.length / length + 1][length];
    for (int i = 0; i < all.length; i++) {
      pieces[i / length][i % length] = all[i];
    }
    return pieces;
  }
}
