package org.zestyporter.server.web;

import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.encoder.PatternLayoutEncoder;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.rolling.FixedWindowRollingPolicy;
import ch.qos.logback.core.rolling.RollingFileAppender;
import ch.qos.logback.core.rolling.SizeBasedTriggeringPolicy;
import ch.qos.logback.core.util.FileSize;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.file.Path;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.zestyporter.server.Settings;
import org.zestyporter.server.store.OwnerOnly;

/**
 * Who came in, who was kept out, and what was changed that others depend on: {@code security.log}
 * in the data folder, in files of at most 5 MB, the last four of which are kept.
 */
@Component
public class SecurityLog {
  private static final int LONGEST = 120;

  private final Logger log;
  private final RollingFileAppender<ILoggingEvent> file = new RollingFileAppender<>();

  SecurityLog(Settings settings) throws IOException {
    Path path = settings.home().resolve("security.log");
    OwnerOnly.folder(settings.home());
    OwnerOnly.file(path);
    LoggerContext context = (LoggerContext) LoggerFactory.getILoggerFactory();
    log = context.getLogger("porter.security." + Integer.toHexString(path.hashCode()));
    log.setAdditive(false);
    PatternLayoutEncoder encoder = new PatternLayoutEncoder();
    encoder.setContext(context);
    encoder.setPattern("%d{yyyy-MM-dd'T'HH:mm:ssXXX} %msg%n");
    encoder.start();
    FixedWindowRollingPolicy window = new FixedWindowRollingPolicy();
    window.setContext(context);
    window.setParent(file);
    window.setFileNamePattern(path + ".%i");
    window.setMinIndex(1);
    window.setMaxIndex(4);
    SizeBasedTriggeringPolicy<ILoggingEvent> size = new SizeBasedTriggeringPolicy<>();
    size.setContext(context);
    size.setMaxFileSize(FileSize.valueOf("5MB"));
    file.setContext(context);
    file.setFile(path.toString());
    file.setEncoder(encoder);
    file.setRollingPolicy(window);
    file.setTriggeringPolicy(size);
    window.start();
    size.start();
    file.start();
    log.addAppender(file);
    log.setLevel(ch.qos.logback.classic.Level.INFO);
  }

  /**
   * Notes an event.
   *
   * @param event what happened, in one word
   * @param who the name of a person, as typed; null if nobody is known
   * @param from the address that the request came from
   * @param about what it was about; null if that is clear
   */
  public void note(String event, String who, String from, String about) {
    log.info(
        "{} who={} from={}{}",
        event,
        bare(who == null ? "-" : who),
        bare(from == null ? "-" : from),
        about == null ? "" : " about=" + bare(about));
  }

  /** A text on one line, without anything that could look like another entry. */
  private static String bare(String text) {
    String printable = text.replaceAll("[\\p{Cntrl}\\s\\u2028\\u2029=]", "_");
    return printable.length() > LONGEST ? printable.substring(0, LONGEST) + "…" : printable;
  }

  @PreDestroy
  void close() {
    log.detachAppender(file);
    file.stop();
  }
}
