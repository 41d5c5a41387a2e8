package org.zestyporter.server.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.SecureRandom;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** A random key of 32 bytes in a file that only its owner can read; made when first wanted. */
public final class KeyFile {
  private static final int BYTES = 32;

  private KeyFile() {}

  /**
   * The key in a file.
   *
   * @param opens what it opens, for messages
   * @throws PorterException if the file is no such key
   */
  public static byte[] read(Path file, String opens) {
    try {
      if (!Files.exists(file)) {
        OwnerOnly.folder(file.toAbsolutePath().getParent());
        byte[] fresh = new byte[BYTES];
        new SecureRandom().nextBytes(fresh);
        Lasting.write(file, fresh);
      }
      OwnerOnly.file(file);
      byte[] key = Files.readAllBytes(file);
      if (key.length != BYTES) {
        throw ErrorCode.KEY_DAMAGED.error(
            "The key "
                + file.getFileName()
                + " in the data folder is "
                + (key.length == 0 ? "empty" : "damaged")
                + ": it has "
                + key.length
                + " bytes where 32 belong. It opens "
                + opens
                + ".");
      }
      return key;
    } catch (IOException e) {
      throw ErrorCode.KEY_UNREADABLE.error(
          "The key "
              + file.getFileName()
              + " in the data folder can't be read: "
              + e.getMessage()
              + ".",
          e);
    }
  }
}
