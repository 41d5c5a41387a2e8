package org.zestyporter.core.source.cache;

import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.ClosedChannelException;
import java.nio.channels.FileChannel;
import java.nio.file.Path;

/**
 * A file that several threads read at a time, here and there. A channel is closed for all of them
 * once one is interrupted while it reads ({@link java.nio.channels.InterruptibleChannel}); here it
 * is opened again, and each gets what it asked for.
 */
final class SteadyFile implements Closeable {
  private final Path path;
  private volatile FileChannel channel;
  private boolean isClosed;

  SteadyFile(Path path) throws IOException {
    this.path = path;
    this.channel = FileChannel.open(path);
  }

  /** Its length in bytes. */
  long size() throws IOException {
    return channel.size();
  }

  /**
   * Bytes from a place on.
   *
   * @throws IOException also if there are not so many, or it is closed
   */
  ByteBuffer read(long from, int length) throws IOException {
    ByteBuffer buffer = ByteBuffer.allocate(length);
    // an interrupted thread could read nothing
    boolean wasInterrupted = Thread.interrupted();
    try {
      while (buffer.hasRemaining()) {
        FileChannel now = channel;
        try {
          if (now.read(buffer, from + buffer.position()) < 0) {
            throw new IOException("the file is cut short");
          }
        } catch (ClosedChannelException e) {
          wasInterrupted |= Thread.interrupted();
          reopen(now, e);
        }
      }
    } finally {
      if (wasInterrupted) {
        Thread.currentThread().interrupt();
      }
    }
    return buffer.flip();
  }

  private synchronized void reopen(FileChannel closed, ClosedChannelException why)
      throws IOException {
    if (isClosed) {
      throw why;
    }
    if (channel == closed) {
      channel = FileChannel.open(path);
    }
  }

  @Override
  public synchronized void close() throws IOException {
    isClosed = true;
    channel.close();
  }
}
