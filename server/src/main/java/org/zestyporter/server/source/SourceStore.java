package org.zestyporter.server.source;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.zestyporter.core.source.cache.SourceCache;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.server.Settings;
import org.zestyporter.server.store.Lasting;
import org.zestyporter.server.store.OwnerOnly;
import org.zestyporter.server.store.Space;

/** Keeps the files that were brought, each in a folder of its own with its caches. */
@Component
class SourceStore {
  private final Settings settings;

  private final Space space;

  SourceStore(Settings settings, Space space) {
    this.settings = settings;
    this.space = space;
  }

  /** Size and checksum of a file that was kept. */
  record Kept(long bytes, String sha256) {}

  Path file(long id) {
    return folder(id).resolve("original");
  }

  /** Where the cells are kept that a parsing takes out of the file. */
  Path cache(long id, String parsing) {
    byte[] digest = sha256().digest(parsing.getBytes(StandardCharsets.UTF_8));
    return folder(id)
        .resolve("cells" + SourceCache.VERSION + "-" + HexFormat.of().formatHex(digest, 0, 8));
  }

  private Path folder(long id) {
    return settings.home().resolve("sources").resolve(Long.toString(id));
  }

  /**
   * Streams a file into its folder; it is never whole in memory. What is too large is read to its
   * end all the same, since a browser hears of nothing before.
   */
  Kept keep(long id, InputStream body) throws IOException {
    MessageDigest digest = sha256();
    long limit = settings.uploadLimit().toBytes();
    long room = space.left();
    long bytes = 0;
    boolean broken = false;
    OwnerOnly.folder(settings.home().resolve("sources"));
    OwnerOnly.folder(folder(id));
    try (OutputStream out = Files.newOutputStream(OwnerOnly.file(file(id)))) {
      byte[] buffer = new byte[1 << 16];
      int n;
      // a sender that goes on and on is not listened to for ever
      while (bytes < 2 * limit + (1 << 20) && (n = body.read(buffer)) > 0) {
        bytes += n;
        if (broken || bytes > limit || bytes > room) {
          continue;
        }
        digest.update(buffer, 0, n);
        try {
          out.write(buffer, 0, n);
        } catch (IOException e) {
          broken = true;
        }
      }
    }
    if (bytes > limit) {
      throw ErrorCode.TOO_LARGE.error(
          "The file is larger than "
              + settings.uploadLimit().toMegabytes()
              + " MB, the limit of this installation (setting porter.upload-limit).");
    }
    if (broken || bytes > room || !isLasting(file(id))) {
      throw space.noRoom();
    }
    return new Kept(bytes, HexFormat.of().formatHex(digest.digest()));
  }

  /** A disk may find out only now that it is full. */
  private static boolean isLasting(Path file) {
    try {
      Lasting.force(file);
      Lasting.forceName(file);
      return true;
    } catch (IOException e) {
      return false;
    }
  }

  /** Numbers of the files that have a folder. */
  List<Long> kept() throws IOException {
    Path all = settings.home().resolve("sources");
    if (!Files.exists(all)) {
      return List.of();
    }
    try (Stream<Path> folders = Files.list(all)) {
      return folders
          .map(f -> f.getFileName().toString())
          .filter(f -> f.matches("\\d{1,18}"))
          .map(Long::valueOf)
          .toList();
    }
  }

  /**
   * Takes away cells that were not looked at for some time; they are taken out again when wanted.
   */
  void dropCaches(long id, Instant before) throws IOException {
    try (Stream<Path> files = Files.list(folder(id))) {
      for (Path file : files.toList()) {
        boolean original = file.equals(file(id));
        if (!original && Files.getLastModifiedTime(file).toInstant().isBefore(before)) {
          Files.deleteIfExists(file);
        }
      }
    }
  }

  void drop(long id) throws IOException {
    if (Files.exists(folder(id))) {
      try (Stream<Path> files = Files.walk(folder(id))) {
        for (Path path : files.sorted(Comparator.reverseOrder()).toList()) {
          Files.delete(path);
        }
      }
    }
  }

  private static MessageDigest sha256() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
