package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

class HashedTextsTest {

  @Test
  void givesEachTextAPlaceOfItsOwn() {
    HashedTexts texts = new HashedTexts();
    assertThat(texts.place("sloop")).isEqualTo(-1);
    assertThat(texts.put("sloop")).isZero();
    assertThat(texts.put("")).isEqualTo(1);
    assertThat(texts.put("ketch")).isEqualTo(2);
    assertThat(texts.put("sloop")).isZero();
    assertThat(texts.place("ketch")).isEqualTo(2);
    assertThat(texts.contains("ketch")).isTrue();
    assertThat(texts.contains("Ketch")).isFalse();
    assertThat(texts.size()).isEqualTo(3);
  }

  @Test
  void tellsManyApartAsAMapDoes() {
    Random random = new Random(11);
    Map<String, Integer> known = new HashMap<>();
    HashedTexts texts = new HashedTexts();
    for (int i = 0; i < 50_000; i++) {
      String text = "ö" + random.nextInt(20_000) + "\u001F" + random.nextInt(3);
      assertThat(texts.place(text)).isEqualTo(known.getOrDefault(text, -1));
      known.putIfAbsent(text, known.size());
      assertThat(texts.put(text)).isEqualTo(known.get(text));
    }
    assertThat(texts.size()).isEqualTo(known.size());
  }

  @Test
  void isUsedBySeveralThreads() throws InterruptedException {
    HashedTexts texts = new HashedTexts();
    List<Thread> threads = new ArrayList<>();
    for (int t = 0; t < 4; t++) {
      int by = t;
      threads.add(
          new Thread(
              () -> {
                for (int i = 0; i < 5_000; i++) {
                  texts.put("berth " + i * (by + 1));
                }
              }));
    }
    threads.forEach(Thread::start);
    for (Thread thread : threads) {
      thread.join();
    }
    for (int t = 1; t <= 4; t++) {
      for (int i = 0; i < 5_000; i++) {
        assertThat(texts.contains("berth " + i * t)).isTrue();
      }
    }
  }
}
