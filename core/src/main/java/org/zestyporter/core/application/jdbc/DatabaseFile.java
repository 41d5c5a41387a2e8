package org.zestyporter.core.application.jdbc;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.function.Predicate;

/** Finds the file of a database by its real path, so that no link leads out of what is allowed. */
final class DatabaseFile {
  private DatabaseFile() {}

  /**
   * The real path of a file that is there.
   *
   * @param path as a person typed it
   * @param suffix what the file's name ends with beyond that
   * @param product for messages
   * @throws org.zestyporter.core.value.PorterException if it is missing or not allowed
   */
  static Path find(
      String path, String suffix, String product, String example, Address.Rules rules) {
    String home = System.getProperty("user.home");
    Path typed = Path.of(path.startsWith("~/") ? home + path.substring(1) : path);
    if (rules.folders() != null && !typed.isAbsolute()) {
      throw Address.refused("Give the whole path of the database file, such as " + example + ".");
    }
    Path file = typed.toAbsolutePath().normalize();
    file = file.resolveSibling(file.getFileName() + suffix);
    boolean inside = rules.folders() == null || rules.folders().stream().anyMatch(isIn(file));
    try {
      Path real = file.toRealPath();
      inside = rules.folders() == null || rules.folders().stream().anyMatch(isIn(real));
      boolean ours =
          rules.forbidden() != null
              && Files.exists(rules.forbidden())
              && Files.isSameFile(real, rules.forbidden());
      if (inside && !ours && real.toString().endsWith(suffix) && Files.isRegularFile(real)) {
        return real;
      }
    } catch (IOException e) {
      if (inside && !Files.exists(file, LinkOption.NOFOLLOW_LINKS)) {
        throw Address.refused(
            "There is no "
                + product
                + " database at "
                + path
                + ": the file "
                + file.getFileName()
                + " is missing.");
      }
    }
    throw Address.refused(
        "Database files are reached only in folders that this installation allows (setting"
            + " porter.database-folders).");
  }

  private static Predicate<Path> isIn(Path file) {
    return folder -> {
      try {
        return file.startsWith(folder.toRealPath());
      } catch (IOException e) {
        return false;
      }
    };
  }
}
