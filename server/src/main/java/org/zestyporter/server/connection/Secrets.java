package org.zestyporter.server.connection;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.stereotype.Component;
import org.zestyporter.server.Settings;

/** Encrypts passwords of databases with a key that only the data folder's owner can read. */
@Component
class Secrets {
  private static final int NONCE_BYTES = 12;
  private static final int TAG_BITS = 128;

  private final SecureRandom random = new SecureRandom();
  private final SecretKeySpec key;

  Secrets(Settings settings) throws IOException {
    Path file = settings.home().resolve("secret.key");
    if (!Files.exists(file)) {
      Files.createDirectories(settings.home());
      byte[] fresh = new byte[32];
      random.nextBytes(fresh);
      Files.createFile(
          file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
      Files.write(file, fresh);
    }
    this.key = new SecretKeySpec(Files.readAllBytes(file), "AES");
  }

  byte[] encrypt(String secret) {
    byte[] nonce = new byte[NONCE_BYTES];
    random.nextBytes(nonce);
    byte[] sealed = cipher(Cipher.ENCRYPT_MODE, nonce, secret.getBytes(StandardCharsets.UTF_8));
    byte[] all = Arrays.copyOf(nonce, NONCE_BYTES + sealed.length);
    System.arraycopy(sealed, 0, all, NONCE_BYTES, sealed.length);
    return all;
  }

  String decrypt(byte[] kept) {
    byte[] nonce = Arrays.copyOf(kept, NONCE_BYTES);
    byte[] sealed = Arrays.copyOfRange(kept, NONCE_BYTES, kept.length);
    return new String(cipher(Cipher.DECRYPT_MODE, nonce, sealed), StandardCharsets.UTF_8);
  }

  private byte[] cipher(int mode, byte[] nonce, byte[] bytes) {
    try {
      Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
      cipher.init(mode, key, new GCMParameterSpec(TAG_BITS, nonce));
      return cipher.doFinal(bytes);
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("the key in secret.key does not fit", e);
    }
  }
}
