package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** Work on many rows goes on at a time only as far as there is memory for it. */
class RoomTest {
  private static final long MEGABYTE = 1 << 20;

  private final Room.Shared shared = new Room.Shared(100 * MEGABYTE);

  /** Does something once it hears that it has to wait. */
  private static class Waiting implements Progress {
    private final List<String> behind = new ArrayList<>();
    private final Runnable then;
    private boolean isStopped;

    Waiting(Runnable then) {
      this.then = then;
    }

    @Override
    public void at(Phase phase, long rows, long total) {
      assertThat(phase).isEqualTo(Phase.WAITING);
      assertThat(total).isEqualTo(7);
      then.run();
    }

    @Override
    public void behind(@Nullable String other) {
      behind.add(other);
    }

    @Override
    public boolean stopped() {
      return isStopped;
    }
  }

  private Room take(long megabytes, Progress progress) {
    return Room.take(shared, megabytes * MEGABYTE, progress, 7);
  }

  private static Progress goesOn() {
    return new Waiting(() -> assertThat(true).as("it waits").isFalse());
  }

  @Test
  void smallWorkGoesOnBesideOther() {
    try (Room large = take(60, goesOn());
        Room small = take(0, goesOn())) {
      assertThat(large).isNotSameAs(small);
    }
    // all of it was given back
    take(80, goesOn()).close();
    take(80, goesOn()).close();
  }

  @Test
  void whatFindsNoRoomWaitsAndSaysForWhat() {
    Room first = take(60, goesOn());
    Waiting waiting = new Waiting(first::close);
    try (Room second = take(60, waiting)) {
      assertThat(waiting.behind).containsExactly("room in memory, which other work takes", null);
    }
  }

  @Test
  void itCanBeStoppedWhileItWaits() {
    try (Room first = take(60, goesOn())) {
      Waiting waiting = new Waiting(() -> {});
      waiting.isStopped = true;
      assertThatThrownBy(() -> take(60, waiting))
          .isInstanceOfSatisfying(
              PorterException.class, e -> assertThat(e.code()).isEqualTo(ErrorCode.STOPPED));
      // it has taken nothing
      take(10, goesOn()).close();
    }
  }

  @Test
  void whatIsLargerThanAllGoesOnAlone() throws Exception {
    Room all = take(5_000, goesOn());
    CompletableFuture<Room> other = new CompletableFuture<>();
    Waiting waiting = new Waiting(() -> other.complete(all));
    CompletableFuture<Room> second = CompletableFuture.supplyAsync(() -> take(0, waiting));
    other.get().close();
    second.get().close();
    assertThat(waiting.behind).isNotEmpty();
  }

  @Test
  void whoLooksOnIsToldAfterAWhile() {
    try (Room first = take(60, goesOn())) {
      assertThatThrownBy(() -> Room.take(shared, 60 * MEGABYTE, 20))
          .isInstanceOfSatisfying(
              PorterException.class, e -> assertThat(e.code()).isEqualTo(ErrorCode.BUSY))
          .hasMessageStartingWith("Other work on large files takes the memory");
    }
    Room.take(shared, 60 * MEGABYTE, 20).close();
  }
}
