package org.zestyporter.server.source;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.zestyporter.core.source.SourceCache;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.Settings;

/** Keeps the files that were brought, each in a folder of its own with its caches. */
@Component
class SourceStore {
  private final Settings settings;

  SourceStore(Settings settings) {
    this.settings = settings;
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

  /** Streams a file into its folder; it is never whole in memory. */
  Kept keep(long id, InputStream body) throws IOException {
    Files.createDirectories(folder(id));
    long limit = settings.uploadLimit().toBytes();
    MessageDigest digest = sha256();
    long bytes = 0;
    try (InputStream in = new DigestInputStream(body, digest);
        OutputStream out = Files.newOutputStream(file(id))) {
      byte[] buffer = new byte[1 << 16];
      int n;
      while ((n = in.read(buffer)) > 0) {
        bytes += n;
        if (bytes > limit) {
          throw PorterException.input(
              "too-large",
              "The file is larger than "
                  + settings.uploadLimit().toMegabytes()
                  + " MB, the limit of this installation (setting porter.upload-limit).");
        }
        out.write(buffer, 0, n);
      }
    }
    return new Kept(bytes, HexFormat.of().formatHex(digest.digest()));
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
