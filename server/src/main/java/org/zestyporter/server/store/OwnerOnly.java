package org.zestyporter.server.store;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Set;

/** Files and folders that nobody but their owner can read, where the file system knows owners. */
public final class OwnerOnly {
  private static final Set<PosixFilePermission> FOLDER =
      PosixFilePermissions.fromString("rwx------");
  private static final Set<PosixFilePermission> FILE = PosixFilePermissions.fromString("rw-------");

  private OwnerOnly() {}

  /** Makes a folder, with those above it, and closes it to others. */
  public static Path folder(Path folder) throws IOException {
    Files.createDirectories(folder);
    close(folder, FOLDER);
    return folder;
  }

  /**
   * Makes an empty file that is closed to others from its first moment; one that is there stays.
   */
  public static Path file(Path file) throws IOException {
    try {
      if (knowsOwners(file.toAbsolutePath().getParent())) {
        Files.createFile(file, PosixFilePermissions.asFileAttribute(FILE));
      } else {
        Files.createFile(file);
      }
    } catch (FileAlreadyExistsException e) {
      close(file, FILE);
    }
    return file;
  }

  private static void close(Path path, Set<PosixFilePermission> rights) throws IOException {
    if (knowsOwners(path) && !Files.getPosixFilePermissions(path).equals(rights)) {
      Files.setPosixFilePermissions(path, rights);
    }
  }

  private static boolean knowsOwners(Path path) {
    return Files.getFileAttributeView(path, PosixFileAttributeView.class) != null;
  }
}
