package org.zestyporter.server.connection;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.TestSettings;

class SecretsTest {
  @TempDir Path home;

  private Secrets secrets(String folder) throws IOException {
    return new Secrets(TestSettings.of(home.resolve(folder)));
  }

  @Test
  void secretsComeBackAndAreNeverKeptInTheOpen() throws IOException {
    byte[] kept = secrets("a").encrypt("gangplank ü");
    assertThat(new String(kept, StandardCharsets.ISO_8859_1)).doesNotContain("gangplank");
    assertThat(secrets("a").decrypt(kept)).isEqualTo("gangplank ü");
    assertThat(secrets("a").encrypt("gangplank ü")).isNotEqualTo(kept);
  }

  @Test
  void keyIsForItsOwnerOnlyAndForNoOtherFolder() throws IOException {
    byte[] kept = secrets("a").encrypt("x");
    assertThat(
            PosixFilePermissions.toString(
                Files.getPosixFilePermissions(home.resolve("a/secret.key"))))
        .isEqualTo("rw-------");
    assertThatThrownBy(() -> secrets("b").decrypt(kept)).hasMessageContaining("does not fit");
  }

  @ParameterizedTest
  @ValueSource(ints = {0, 31, 33})
  void aDamagedKeyHasASentence(int bytes) throws IOException {
    Files.createDirectories(home.resolve("c"));
    Files.write(home.resolve("c/secret.key"), new byte[bytes]);
    assertThatThrownBy(() -> secrets("c"))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining("secret.key")
        .hasMessageContaining(bytes == 0 ? "empty" : "damaged")
        .hasMessageContaining("Put it back");
  }
}
