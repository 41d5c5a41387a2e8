package org.zestyporter.server.plan;

import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.draft.KnownRecords;
import org.zestyporter.server.connection.ConnectionService;

/** Databases are known before the first file comes, and one that is down keeps none from that. */
class AcquaintancesTest {
  private final ConnectionService connections = mock(ConnectionService.class);
  private final Drafting drafting = mock(Drafting.class);
  private final Database harbour = mock(Database.class);
  private final Acquaintances acquaintances = new Acquaintances(connections, drafting);

  @BeforeEach
  void aDatabaseThatAnswers() {
    when(connections.database("harbour")).thenReturn(harbour);
    when(drafting.known(harbour)).thenReturn(new KnownRecords(harbour));
    when(connections.database("down")).thenThrow(new IllegalStateException("closed"));
  }

  @AfterEach
  void stop() {
    acquaintances.stop();
  }

  @Test
  void theNewestAreAskedWhenTheServerHasStarted() {
    List<String> newest = new ArrayList<>(Collections.nCopies(7, "down"));
    newest.addAll(List.of("harbour", "old"));
    when(connections.newestWritable()).thenReturn(newest);
    acquaintances.started();
    verify(harbour, timeout(20_000)).ownTableNames();
    acquaintances.kept(new ConnectionService.Kept("harbour"));
    verify(harbour, timeout(20_000).times(2)).ownTableNames();
    verify(connections, never()).database("old");
  }
}
