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
import org.springframework.util.unit.DataSize;
import org.zestyporter.server.Settings;

class SecretsTest {
  @TempDir Path home;

  private Secrets secrets(String folder) throws IOException {
    return new Secrets(new Settings(home.resolve(folder), DataSize.ofMegabytes(1)));
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
}
