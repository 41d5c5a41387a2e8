package org.zestyporter.server.account;

import java.security.SecureRandom;
import java.time.Clock;
import java.util.Locale;
import java.util.Optional;
import org.springframework.security.core.userdetails.User;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.zestyporter.server.web.Times;

/** The people who may sign in. */
@Service
public class AccountService implements UserDetailsService {
  private static final String LETTERS = "abcdefghjkmnpqrstuvwxyz23456789";

  private final AccountMapper accounts;
  private final PasswordEncoder encoder;
  private final Clock clock;

  AccountService(AccountMapper accounts, PasswordEncoder encoder, Clock clock) {
    this.accounts = accounts;
    this.encoder = encoder;
    this.clock = clock;
  }

  /**
   * Makes the first account if there is none.
   *
   * @return its password, which is kept nowhere in this form; empty if there are accounts already
   */
  public Optional<String> createFirst(String name, String shownName) {
    if (accounts.count() > 0) {
      return Optional.empty();
    }
    String password = generate();
    accounts.insert(
        new Account(
            null,
            name.toLowerCase(Locale.ROOT),
            shownName,
            encoder.encode(password),
            Times.now(clock)));
    return Optional.of(password);
  }

  private static String generate() {
    SecureRandom random = new SecureRandom();
    StringBuilder password = new StringBuilder();
    for (int i = 0; i < 14; i++) {
      password.append(i == 4 || i == 9 ? '-' : LETTERS.charAt(random.nextInt(LETTERS.length())));
    }
    return password.toString();
  }

  @Override
  public UserDetails loadUserByUsername(String name) {
    Account account = accounts.find(name.strip().toLowerCase(Locale.ROOT));
    if (account == null) {
      throw new UsernameNotFoundException("no such account");
    }
    return User.withUsername(account.name())
        .password(account.passwordHash())
        .roles("ADMIN")
        .build();
  }

  /** The name that is shown for a person. */
  String shownName(String name) {
    Account account = accounts.find(name);
    return account == null ? name : account.shownName();
  }
}
