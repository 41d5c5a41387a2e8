package org.zestyporter.server.source;

import java.util.List;

/** A feature that reads files that were brought, and says so. */
public interface UsesSources {

  /** What reads a file and could not go on without it, in words. */
  List<String> reading(long source);
}
