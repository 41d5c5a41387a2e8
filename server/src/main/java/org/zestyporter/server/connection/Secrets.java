package org.zestyporter.server.connection;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.stereotype.Component;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.Settings;
import org.zestyporter.server.store.KeyFile;

/** Encrypts passwords of databases with a key that only the data folder's owner can read. */
@Component
class Secrets {
  private static final int NONCE_BYTES = 12;
  private static final int TAG_BITS = 128;

  private final SecureRandom random = new SecureRandom();
  private final SecretKeySpec key;

  Secrets(Settings settings) {
    this.key =
        new SecretKeySpec(
            KeyFile.read(settings.home().resolve("secret.key"), "the passwords of all connections"),
            "AES");
  }

  byte[] encrypt(String secret) {
    byte[] nonce = new byte[NONCE_BYTES];
    random.nextBytes(nonce);
    try {
      byte[] sealed = cipher(Cipher.ENCRYPT_MODE, nonce, secret.getBytes(StandardCharsets.UTF_8));
      byte[] all = Arrays.copyOf(nonce, NONCE_BYTES + sealed.length);
      System.arraycopy(sealed, 0, all, NONCE_BYTES, sealed.length);
      return all;
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException(e);
    }
  }

  /**
   * Decrypts what {@link #encrypt} gave.
   *
   * @throws PorterException if it was encrypted with another key
   */
  String decrypt(byte[] kept) {
    try {
      byte[] nonce = Arrays.copyOf(kept, NONCE_BYTES);
      byte[] sealed = Arrays.copyOfRange(kept, NONCE_BYTES, kept.length);
      return new String(cipher(Cipher.DECRYPT_MODE, nonce, sealed), StandardCharsets.UTF_8);
    } catch (GeneralSecurityException e) {
      throw ErrorCode.OTHER_KEY.error(
          "The password of this connection was kept with another key: secret.key in the"
              + " data folder does not fit.",
          e);
    }
  }

  private byte[] cipher(int mode, byte[] nonce, byte[] bytes) throws GeneralSecurityException {
    Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
    cipher.init(mode, key, new GCMParameterSpec(TAG_BITS, nonce));
    return cipher.doFinal(bytes);
  }
}
