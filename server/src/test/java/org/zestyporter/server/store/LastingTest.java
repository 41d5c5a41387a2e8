package org.zestyporter.server.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class LastingTest {
  @TempDir Path folder;

  @Test
  void aFileIsWrittenWholeAndForItsOwnerOnly() throws IOException {
    Path file = folder.resolve("note");
    Files.writeString(folder.resolve("note.new"), "half of an earlier one, which a kill left");
    Lasting.write(file, new byte[] {1, 2, 3});
    assertThat(file).hasBinaryContent(new byte[] {1, 2, 3});
    assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
        .isEqualTo("rw-------");
    try (var names = Files.list(folder)) {
      assertThat(names).containsExactly(file);
    }
  }

  @Test
  void aFileThatCannotBeWrittenLeavesTheOldOne() throws IOException {
    Path file = Files.writeString(folder.resolve("note"), "old");
    Files.createDirectory(folder.resolve("note.new"));
    assertThatThrownBy(() -> Lasting.write(file, new byte[] {1})).isInstanceOf(IOException.class);
    assertThat(file).hasContent("old");
  }
}
