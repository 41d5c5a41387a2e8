package org.zestyporter.server.plan;

import java.io.IOException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.zestyporter.core.draft.Acquaintance;
import org.zestyporter.server.connection.ConnectionService;

/**
 * Gets to know the databases of connections in the background, one after the other, so that nobody
 * waits for that with their first file. One that does not answer is left alone.
 */
@Component
class Acquaintances {
  /** Of many connections only the newest are asked without anybody wanting something of them. */
  private static final int MOST = 8;

  private static final Logger LOG = LoggerFactory.getLogger(Acquaintances.class);

  private final ConnectionService connections;
  private final Drafting drafting;
  private final ExecutorService background =
      Executors.newSingleThreadExecutor(
          task -> {
            Thread thread = new Thread(task, "acquaintances");
            thread.setDaemon(true);
            thread.setPriority(Thread.MIN_PRIORITY);
            return thread;
          });

  Acquaintances(ConnectionService connections, Drafting drafting) {
    this.connections = connections;
    this.drafting = drafting;
  }

  @EventListener(ApplicationReadyEvent.class)
  void started() {
    connections.newestWritable().stream().limit(MOST).forEach(this::make);
  }

  @EventListener
  void kept(ConnectionService.Kept connection) {
    make(connection.name());
  }

  private void make(String connection) {
    background.execute(
        () -> {
          try {
            Acquaintance.make(
                drafting.known(connections.database(connection)), () -> !background.isShutdown());
          } catch (IOException | RuntimeException e) {
            LOG.debug("{} is not known yet: {}", connection, e.getMessage());
          }
        });
  }

  @EventListener(ContextClosedEvent.class)
  void stop() {
    background.shutdownNow();
  }
}
