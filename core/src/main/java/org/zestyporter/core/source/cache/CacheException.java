package org.zestyporter.core.source.cache;

import java.io.IOException;

/** The cache could not be written; the file that is read has no part in it. */
public final class CacheException extends IOException {
  private static final long serialVersionUID = 1L;

  CacheException(Throwable cause) {
    super("The cells of the file can't be kept: " + cause.getMessage(), cause);
  }
}
