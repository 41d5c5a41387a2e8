package org.zestyporter.core.source;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** How far a file is read; written by the thread that reads, read by any other. */
public final class ReadProgress {
  private volatile long bytes;
  private volatile long totalBytes;
  private volatile long rows;
  private volatile boolean stopped;

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

  void total(long total) {
    totalBytes = total;
  }

  void rows(long count) {
    rows = count;
  }

  /** The stream, with its bytes counted here. */
  InputStream counting(InputStream in) {
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
