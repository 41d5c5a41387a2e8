package org.zestyporter.core.match;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.value.LongMap;

class KeyNotesTest {
  @Test
  void repeatsHaveTheirFirstAndLastRowAndTheOthersAreKnown() {
    Random random = new Random(3);
    KeyNotes notes = new KeyNotes();
    Map<Long, int[]> rows = new HashMap<>();
    for (int row = 0; row < 200_000; row++) {
      // 0 is a row without a key
      long hash = random.nextInt(10) == 0 ? 0 : random.nextInt(150_000) * 7_919L - 3;
      notes.note(hash);
      int at = row;
      if (hash != 0) {
        rows.computeIfAbsent(hash, h -> new int[] {at, at})[1] = row;
      }
    }
    notes.settle();
    rows.forEach(
        (hash, found) -> {
          assertThat(notes.distinct().place(hash)).isBetween(0, rows.size() - 1);
          KeyNotes.Repeat repeat = notes.repeat(hash);
          if (found[0] == found[1]) {
            assertThat(repeat).isNull();
          } else {
            assertThat(repeat.first()).isEqualTo(found[0]);
            assertThat(repeat.last()).isEqualTo(found[1]);
          }
        });
    assertThat(notes.distinct().size()).isEqualTo(rows.size());
    assertThat(notes.distinct().place(1)).isNegative();
    assertThat(notes.repeat(1)).isNull();
  }

  @Test
  void rowsNotedAllAtOnceAreNotedAlike() {
    Random random = new Random(5);
    KeyNotes one = new KeyNotes();
    KeyNotes all = new KeyNotes();
    List<Long> noted = new ArrayList<>();
    while (noted.size() < 180_000) {
      long[] hashes = random.longs(1 + random.nextInt(5_000), -40_000, 40_000).toArray();
      boolean[] out = new boolean[hashes.length];
      for (int i = 0; i < hashes.length; i++) {
        out[i] = random.nextInt(9) == 0;
        one.note(out[i] ? 0 : hashes[i]);
        noted.add(out[i] ? 0 : hashes[i]);
      }
      all.note(hashes, out);
    }
    one.settle();
    all.settle();
    assertThat(all.distinct().size()).isEqualTo(one.distinct().size());
    for (KeyNotes notes : List.of(one, all)) {
      for (int from = 0; from < noted.size(); from += 4_000) {
        List<Long> some = noted.subList(from, Math.min(noted.size(), from + 4_000));
        long[] hashes = some.stream().mapToLong(h -> h).toArray();
        assertThat(notes.places(from, hashes))
            .containsExactly(
                some.stream().mapToInt(h -> h == 0 ? -1 : one.distinct().place(h)).toArray());
      }
    }
    for (int again = 0; again < 2; again++) {
      for (long hash : noted) {
        assertThat(all.repeat(hash) == null).isEqualTo(one.repeat(hash) == null);
        if (one.repeat(hash) != null) {
          assertThat(all.repeat(hash).first()).isEqualTo(one.repeat(hash).first());
          assertThat(all.repeat(hash).last()).isEqualTo(one.repeat(hash).last());
        }
      }
    }
  }

  @Test
  void anotherKeyOfTheSameHashIsNoticed() {
    KeyNotes notes = new KeyNotes();
    notes.note(5);
    notes.note(5);
    notes.settle();
    assertThat(notes.repeat(5).isSame(new byte[] {'a', 'b', 'x'}, 2)).isTrue();
    assertThat(notes.repeat(5).isSame(new byte[] {'a', 'b'}, 2)).isTrue();
    assertThat(notes.repeat(5).isSame(new byte[] {'a', 'c'}, 2)).isFalse();
  }

  @Test
  void rowsAreFoundForWhatIsAskedFor() {
    KeyNotes notes = new KeyNotes();
    for (long hash : new long[] {4, 0, 9, 4, 7}) {
      notes.note(hash);
    }
    LongMap<int[]> wanted = new LongMap<>();
    wanted.put(4, new int[] {-1, -1});
    wanted.put(8, new int[] {-1, -1});
    notes.locate(wanted);
    assertThat(wanted.get(4)).containsExactly(0, 3);
    assertThat(wanted.get(8)).containsExactly(-1, -1);
  }
}
