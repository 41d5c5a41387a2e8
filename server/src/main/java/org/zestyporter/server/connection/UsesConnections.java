package org.zestyporter.server.connection;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** A feature that names connections, and says what would miss one. */
public interface UsesConnections {

  /** What uses a connection, in words. */
  List<String> writingTo(String connection);

  /** What goes on with a connection at this moment, in words; null if nothing. */
  @Nullable String goingOn(String connection);
}
