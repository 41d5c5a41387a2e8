package org.zestyporter.server.store;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.stereotype.Component;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.Settings;

/** How much the data folder holds, and how much more it may. */
@Component
public class Space {
  /** What is left on the disk for our own records, so that a full disk loses none of them. */
  private static final long RESERVE = 100L << 20;

  private static final long FRESH_NANOS = 5_000_000_000L;

  private final Settings settings;
  private long measured;
  private long measuredAt;

  public Space(Settings settings) {
    this.settings = settings;
  }

  /** Bytes in the data folder, as they were a moment ago. */
  public synchronized long used() {
    long now = System.nanoTime();
    if (measuredAt == 0 || now - measuredAt > FRESH_NANOS) {
      measured = measure(settings.home());
      measuredAt = now;
    }
    return measured;
  }

  /** Bytes that may still be added, as far as the limit and the disk go. */
  public long left() {
    return Math.max(0, Math.min(leftOnDisk(), settings.dataLimit().toBytes() - used()));
  }

  private long leftOnDisk() {
    try {
      return Files.getFileStore(settings.home()).getUsableSpace() - RESERVE;
    } catch (IOException e) {
      return Long.MAX_VALUE;
    }
  }

  /**
   * Throws before the data folder is full.
   *
   * @throws PorterException with code {@code no-room}
   */
  public void requireRoom() {
    if (left() == 0) {
      throw noRoom();
    }
  }

  /** That there is no room. */
  public PorterException noRoom() {
    boolean limit = settings.dataLimit().toBytes() - used() < leftOnDisk();
    return ErrorCode.NO_ROOM.error(
        limit
            ? "The data folder holds "
                + (used() >> 20)
                + " MB and may hold "
                + settings.dataLimit().toMegabytes()
                + "MB (setting porter.data-limit), so there is no room for this. Delete files,"
                + " plans or runs that nobody needs any more, then try again."
            : "The disk of the data folder is full. Make room on it, or delete files, plans"
                + " or runs that nobody needs any more, then try again.");
  }

  private static long measure(Path folder) {
    AtomicLong sum = new AtomicLong();
    try {
      Files.walkFileTree(
          folder,
          new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) {
              sum.addAndGet(attributes.size());
              return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path file, IOException e) {
              return FileVisitResult.CONTINUE;
            }
          });
    } catch (IOException e) {
      // what can't be seen can't be counted
    }
    return sum.get();
  }
}
