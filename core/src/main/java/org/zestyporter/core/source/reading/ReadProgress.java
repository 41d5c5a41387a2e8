package org.zestyporter.core.source.reading;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.concurrent.CancellationException;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** How far a file is read; written by the thread that reads, read by any other. */
public final class ReadProgress {
  /** Nanoseconds that any file may take, and for each megabyte of it. */
  private static final long PATIENCE = 120_000_000_000L;

  private static final long A_MEGABYTE = 1_000_000_000L;

  private volatile long bytes;
  private volatile long totalBytes;
  private volatile long rows;
  private volatile boolean stopped;
  private final long begun = System.nanoTime();
  private volatile long patience = Long.MAX_VALUE;

  private boolean packs = true;

  /** What is read is used once and then dropped, so it is not packed. */
  public ReadProgress forOnce() {
    packs = false;
    return this;
  }

  public boolean packs() {
    return packs;
  }

  /** Bytes read so far; 0 where the format does not tell. */
  public long bytes() {
    return bytes;
  }

  /** Bytes of the file. */
  public long totalBytes() {
    return totalBytes;
  }

  /** Rows read so far. */
  public long rows() {
    return rows;
  }

  /** Ends the reading at the next row; what was read is dropped. */
  public void stop() {
    stopped = true;
  }

  boolean isStopped() {
    return stopped;
  }

  public void total(long total) {
    totalBytes = total;
  }

  /** Gives a reading the time that a file of this size may take, and some more. */
  public void budget(long fileBytes) {
    patience = PATIENCE + fileBytes / 1_000_000 * A_MEGABYTE;
  }

  /**
   * To be called again and again while a file is read.
   *
   * @throws CancellationException if it was stopped
   * @throws PorterException if it takes too long, with code {@code too-slow}
   */
  public void check() {
    if (stopped) {
      throw new CancellationException("the reading was stopped");
    }
    if (System.nanoTime() - begun > patience) {
      throw ErrorCode.TOO_SLOW.error(
          "The file takes far longer to read than a file of its size should, so the"
              + " reading was ended. It holds something that no table needs.");
    }
  }

  public void rows(long count) {
    rows = count;
  }

  /** The stream, with its bytes counted here. */
  public InputStream counting(InputStream in) {
    bytes = 0;
    return new FilterInputStream(in) {
      private long count;

      @Override
      public int read() throws IOException {
        int b = super.read();
        count += b < 0 ? 0 : 1;
        bytes = count;
        return b;
      }

      @Override
      public int read(byte[] target, int from, int length) throws IOException {
        int n = super.read(target, from, length);
        count += Math.max(0, n);
        bytes = count;
        return n;
      }
    };
  }
}
