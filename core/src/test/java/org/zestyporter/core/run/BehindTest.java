package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** Rows that are written while others are decided come in order, whatever is refused. */
class BehindTest {
  private static final int WAVES = 7;

  private final Writing writing = mock(Writing.class);
  private final List<String> told = Collections.synchronizedList(new ArrayList<>());
  private final List<Integer> settled = new ArrayList<>();

  /** Waves that are refused the first time that they are tried. */
  private final Set<Integer> refused = new TreeSet<>();

  private static int number(List<Place> wave) {
    return wave.get(0).row();
  }

  private static List<Place> wave(int number) {
    return List.of(new Place(new ChunkRows(0, WAVES, List.of()), number));
  }

  @BeforeEach
  void answer() {
    when(writing.ready(any())).thenReturn(List.of());
    when(writing.attempt(any(), any()))
        .thenAnswer(
            call -> {
              List<Place> wave = call.getArgument(0);
              told.add("sent " + number(wave));
              Thread.sleep(2);
              boolean is = refused.contains(number(wave));
              return new Writing.Attempt(
                  wave, List.of(), is ? new WriteSession.Refusal(1, "too deep") : null);
            });
    doAnswer(
            call -> {
              Writing.Attempt attempt = call.getArgument(0);
              told.add((attempt.refusal() == null ? "noted " : "halved ") + number(attempt.wave()));
              return null;
            })
        .when(writing)
        .settle(any());
  }

  private void write() {
    try (Behind behind = new Behind(writing, wave -> settled.add(number(wave)))) {
      for (int i = 0; i < WAVES; i++) {
        behind.write(wave(i));
        assertThat(behind.chunks()).isBetween(1, 2);
      }
      behind.settle();
      assertThat(behind.chunks()).isZero();
    }
  }

  private List<String> which(String what) {
    return told.stream().filter(t -> t.startsWith(what)).toList();
  }

  @Test
  void allAreSentAndNotedInOrder() {
    write();
    assertThat(settled).containsExactly(0, 1, 2, 3, 4, 5, 6);
    assertThat(which("sent"))
        .containsExactly("sent 0", "sent 1", "sent 2", "sent 3", "sent 4", "sent 5", "sent 6");
    assertThat(which("noted")).hasSize(WAVES);
  }

  /** What is known of rows that were refused is known before any row behind them is sent. */
  @Test
  void nothingIsSentBehindWhatIsRefusedUntilThatIsSettled() {
    refused.addAll(Set.of(0, 2, 3, WAVES - 1));
    write();
    assertThat(settled).containsExactly(0, 1, 2, 3, 4, 5, 6);
    assertThat(which("sent")).hasSize(WAVES).doesNotHaveDuplicates();
    assertThat(which("halved")).containsExactly("halved 0", "halved 2", "halved 3", "halved 6");
    for (int i : List.of(0, 2, 3)) {
      assertThat(told.indexOf("sent " + (i + 1))).isGreaterThan(told.indexOf("halved " + i));
    }
  }

  @Test
  void whatEndsTheWritingIsThrownAndNothingMoreIsSent() {
    doAnswer(
            call -> {
              told.add("sent " + number(call.getArgument(0)));
              throw ErrorCode.DATABASE_SLOW.error("It took too long.");
            })
        .when(writing)
        .attempt(any(), any());
    assertThatThrownBy(this::write)
        .isInstanceOf(PorterException.class)
        .hasMessageContaining("It took too long.");
    assertThat(which("noted")).isEmpty();
    assertThat(settled).isEmpty();
    int sent = told.size();
    assertThat(sent).isLessThan(WAVES);
  }
}
