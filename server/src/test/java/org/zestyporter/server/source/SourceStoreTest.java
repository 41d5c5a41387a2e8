package org.zestyporter.server.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.util.unit.DataSize;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.Settings;
import org.zestyporter.server.TestSettings;
import org.zestyporter.server.store.Space;

class SourceStoreTest {
  @TempDir Path home;

  private SourceStore store(long limit) {
    return store(limit, 1_000_000_000);
  }

  private SourceStore store(long limit, long data) {
    Settings settings = TestSettings.of(home, DataSize.ofBytes(limit), DataSize.ofBytes(data));
    return new SourceStore(settings, new Space(settings));
  }

  private static InputStream bytes(String text) {
    return new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8));
  }

  @Test
  void fileIsKeptWithItsChecksum() throws IOException {
    SourceStore.Kept kept = store(100).keep(1, bytes("abc"));
    assertThat(kept.bytes()).isEqualTo(3);
    // the example of FIPS 180-4
    assertThat(kept.sha256())
        .isEqualTo("ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad");
    assertThat(Files.readString(store(100).file(1))).isEqualTo("abc");
  }

  @Test
  void limitIsTheLastByteThatIsTaken() throws IOException {
    assertThat(store(3).keep(1, bytes("abc")).bytes()).isEqualTo(3);
    assertThatThrownBy(() -> store(3).keep(2, bytes("abcd")))
        .isInstanceOfSatisfying(
            PorterException.class, e -> assertThat(e.code()).isEqualTo(ErrorCode.TOO_LARGE));
  }

  @Test
  void endlessFileIsGivenUpAtTheLimit() {
    InputStream endless =
        new InputStream() {
          @Override
          public int read() {
            return 'x';
          }
        };
    assertThatThrownBy(() -> store(1_000_000).keep(3, endless)).isInstanceOf(PorterException.class);
  }

  @Test
  void aFullDataFolderTakesNoMoreAndSaysSo() throws IOException {
    store(100, 10).keep(5, bytes("12345678"));
    assertThatThrownBy(() -> store(100, 10).keep(6, bytes("abc")))
        .isInstanceOfSatisfying(
            PorterException.class,
            e -> assertThat(e.code().kind()).isEqualTo(ErrorCode.Kind.STORAGE))
        .hasMessageContaining("porter.data-limit");
    assertThat(Files.readString(store(100).file(5))).isEqualTo("12345678");
  }

  @Test
  void filesAreForTheirOwnerOnly() throws IOException {
    store(100).keep(7, bytes("abc"));
    Path file = store(100).file(7);
    assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
        .isEqualTo("rw-------");
    assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file.getParent())))
        .isEqualTo("rwx------");
  }

  @Test
  void droppedFileTakesItsCachesAlong() throws IOException {
    SourceStore store = store(100);
    store.keep(4, bytes("abc"));
    Files.writeString(store.cache(4, "one"), "cells");
    assertThat(store.cache(4, "one")).isNotEqualTo(store.cache(4, "other"));
    store.drop(4);
    assertThat(store.file(4).getParent()).doesNotExist();
    store.drop(4);
  }
}
