package org.zestyporter.server.account;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.zestyporter.server.Settings;
import org.zestyporter.server.store.KeyFile;

/**
 * Slows down the guessing of passwords: by the account from one address, by the account from all
 * addresses, and by the address for all accounts.
 *
 * <p>Whoever has signed in before carries a token that shows it. Attempts with it are counted by
 * themselves, so that the owner comes in while somebody else guesses.
 */
@Component
class SignInGuard {
  static final Duration TOKEN_LIFE = Duration.ofDays(90);

  private static final int KEPT = 20_000;
  private static final Duration LONGEST_WAIT = Duration.ofMinutes(15);
  private static final Duration FORGET = Duration.ofHours(2);

  /** Failures that are free before one has to wait. */
  private enum Bucket {
    ACCOUNT_FROM_ADDRESS(5),
    ACCOUNT(40),
    ADDRESS(30),
    TOKEN(8);

    private final int free;

    Bucket(int free) {
      this.free = free;
    }
  }

  private record Key(Bucket bucket, String what) {}

  private record Failures(int count, Instant last) {}

  private final Clock clock;
  private final SecretKeySpec key;
  private final SecureRandom random = new SecureRandom();
  private final Map<Key, Failures> failures =
      new LinkedHashMap<>(64, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Key, Failures> eldest) {
          return size() > KEPT;
        }
      };

  SignInGuard(Settings settings, Clock clock) {
    this.clock = clock;
    this.key =
        new SecretKeySpec(
            KeyFile.read(settings.home().resolve("token.key"), "the tokens of known browsers"),
            "HmacSHA256");
  }

  /** How long an attempt has to wait; zero if it may be made now. */
  synchronized Duration wait(String name, String address, @Nullable String token) {
    Instant now = clock.instant();
    Duration longest = Duration.ZERO;
    for (Key each : keys(name, address, token)) {
      Failures known = failures.get(each);
      if (known != null && known.count() >= each.bucket().free) {
        int over = Math.min(20, known.count() - each.bucket().free);
        Duration pause = Duration.ofSeconds(1L << over);
        pause = pause.compareTo(LONGEST_WAIT) > 0 ? LONGEST_WAIT : pause;
        Duration left = Duration.between(now, known.last().plus(pause));
        longest = left.compareTo(longest) > 0 ? left : longest;
      }
    }
    return longest;
  }

  synchronized void failed(String name, String address, @Nullable String token) {
    Instant now = clock.instant();
    for (Key each : keys(name, address, token)) {
      Failures known = failures.get(each);
      boolean old = known == null || known.last().plus(FORGET).isBefore(now);
      failures.put(each, new Failures(old ? 1 : known.count() + 1, now));
    }
  }

  /** Forgets the failures of an account at an address, and gives a token that shows the success. */
  synchronized String succeeded(String name, String address, @Nullable String token) {
    keys(name, address, token).forEach(failures::remove);
    byte[] bytes = new byte[12];
    random.nextBytes(bytes);
    String nonce = HexFormat.of().formatHex(bytes);
    long until = clock.instant().plus(TOKEN_LIFE).getEpochSecond();
    return nonce + "." + until + "." + seal(bare(name), nonce, until);
  }

  private java.util.List<Key> keys(String name, String address, @Nullable String token) {
    String account = bare(name);
    if (token != null && isOurs(account, token)) {
      return java.util.List.of(new Key(Bucket.TOKEN, token));
    }
    return java.util.List.of(
        new Key(Bucket.ACCOUNT_FROM_ADDRESS, account + " " + address),
        new Key(Bucket.ACCOUNT, account),
        new Key(Bucket.ADDRESS, address));
  }

  private static String bare(String name) {
    String bare = name.strip().toLowerCase(Locale.ROOT);
    return bare.length() > 100 ? bare.substring(0, 100) : bare;
  }

  private boolean isOurs(String account, String token) {
    String[] parts = token.length() > 200 ? new String[0] : token.split("\\.");
    if (parts.length != 3 || !parts[1].matches("\\d{1,12}")) {
      return false;
    }
    long until = Long.parseLong(parts[1]);
    return clock.instant().getEpochSecond() < until
        && MessageDigest.isEqual(
            seal(account, parts[0], until).getBytes(StandardCharsets.UTF_8),
            parts[2].getBytes(StandardCharsets.UTF_8));
  }

  private String seal(String account, String nonce, long until) {
    try {
      Mac mac = Mac.getInstance("HmacSHA256");
      mac.init(key);
      byte[] sealed =
          mac.doFinal((account + "\n" + nonce + "\n" + until).getBytes(StandardCharsets.UTF_8));
      return Base64.getUrlEncoder().withoutPadding().encodeToString(sealed);
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException(e);
    }
  }
}
