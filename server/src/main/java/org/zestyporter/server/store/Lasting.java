package org.zestyporter.server.store;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import org.jspecify.annotations.Nullable;

/**
 * Files that are on the disk, with their names, before anything is built on them: a power cut
 * leaves them whole, or leaves none.
 */
public final class Lasting {
  private Lasting() {}

  /** Writes a file, whole or not at all, which only its owner can read. */
  public static void write(Path file, byte[] bytes) throws IOException {
    Path half = OwnerOnly.file(file.resolveSibling(file.getFileName() + ".new"));
    Files.write(half, bytes);
    force(half);
    Files.move(half, file, StandardCopyOption.ATOMIC_MOVE);
    forceName(file);
  }

  /** Brings what was written into a file to the disk. */
  public static void force(Path file) throws IOException {
    try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
      channel.force(true);
    }
  }

  /** Brings the name of a file, and of its folder, to the disk. */
  public static void forceName(Path file) {
    Path folder = file.toAbsolutePath().getParent();
    forceFolder(folder);
    forceFolder(folder.getParent());
  }

  private static void forceFolder(@Nullable Path folder) {
    if (folder == null) {
      return;
    }
    try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
      channel.force(true);
    } catch (IOException e) {
      // not every system opens folders; those that do not keep names by themselves
    }
  }
}
