package org.zestyporter.server.account;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.server.TestSettings;

class SignInGuardTest {
  @TempDir Path home;
  private SignInGuard guard;
  private Instant now = Instant.parse("2026-11-25T09:00:00Z");

  @BeforeEach
  void begin() {
    Clock clock =
        new Clock() {
          @Override
          public ZoneId getZone() {
            return ZoneOffset.UTC;
          }

          @Override
          public Clock withZone(ZoneId zone) {
            return this;
          }

          @Override
          public Instant instant() {
            return now;
          }
        };
    guard = new SignInGuard(TestSettings.of(home), clock);
  }

  private boolean mayTry(String name, String address, String token) {
    Duration wait = guard.wait(name, address, token);
    return wait.isZero() || wait.isNegative();
  }

  private int triesWithin(Duration time, String name, String address) {
    Instant end = now.plus(time);
    int tries = 0;
    while (now.isBefore(end)) {
      if (mayTry(name, address, null)) {
        guard.failed(name, address, null);
        tries++;
      } else {
        now = now.plusSeconds(1);
      }
    }
    return tries;
  }

  @Test
  void guessingIsSlowedDown() {
    assertThat(triesWithin(Duration.ofHours(1), "odile", "10.0.0.9")).isBetween(5, 20);
  }

  @Test
  void manyAddressesDoNotHelpAgainstOneAccount() {
    int tries = 0;
    for (int i = 0; i < 500; i++) {
      if (mayTry("odile", "10.0.1." + i, null)) {
        guard.failed("odile", "10.0.1." + i, null);
        tries++;
      }
    }
    assertThat(tries).isLessThan(60);
  }

  @Test
  void manyNamesDoNotHelpFromOneAddress() {
    int tries = 0;
    for (int i = 0; i < 500; i++) {
      if (mayTry("name" + i, "10.0.0.9", null)) {
        guard.failed("name" + i, "10.0.0.9", null);
        tries++;
      }
    }
    assertThat(tries).isLessThan(50);
  }

  @Test
  void theOwnerComesInWhileOthersGuess() {
    String token = guard.succeeded("odile", "10.0.0.1", null);
    triesWithin(Duration.ofMinutes(5), "odile", "10.0.0.1");
    for (int i = 0; i < 200; i++) {
      guard.failed("odile", "10.0.2." + i, null);
    }
    assertThat(mayTry("odile", "10.0.0.1", null)).as("somebody from the same address").isFalse();
    assertThat(mayTry("odile", "10.0.0.1", token)).as("the owner's browser").isTrue();
    assertThat(
            mayTry("odile", "10.0.0.1", (token.startsWith("0") ? "1" : "0") + token.substring(1)))
        .as("a made-up token")
        .isFalse();
    now = now.plus(Duration.ofDays(91));
    for (int i = 0; i < 60; i++) {
      guard.failed("odile", "10.0.0.1", null);
    }
    assertThat(mayTry("odile", "10.0.0.1", token)).as("a token of long ago").isFalse();
  }

  @Test
  void aTokenIsSlowedDownToo() {
    String token = guard.succeeded("odile", "10.0.0.1", null);
    for (int i = 0; i < 12; i++) {
      guard.failed("odile", "10.0.0.1", token);
    }
    assertThat(mayTry("odile", "10.0.0.1", token)).isFalse();
  }

  @Test
  void failuresAreForgottenAfterAWhile() {
    for (int i = 0; i < 30; i++) {
      guard.failed("odile", "10.0.0.9", null);
    }
    assertThat(mayTry("odile", "10.0.0.9", null)).isFalse();
    now = now.plus(Duration.ofHours(3));
    assertThat(mayTry("odile", "10.0.0.9", null)).isTrue();
  }
}
