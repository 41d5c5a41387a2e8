package org.zestyporter.server.web;

import java.time.Clock;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The clock of the server; tests bring their own. */
@Configuration(proxyBeanMethods = false)
public class Times {

  @Bean
  Clock clock() {
    return Clock.systemDefaultZone();
  }

  /** The time to the second. */
  public static LocalDateTime now(Clock clock) {
    return LocalDateTime.now(clock).truncatedTo(ChronoUnit.SECONDS);
  }
}
