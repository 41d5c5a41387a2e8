package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.source.reading.ColumnShape;

/** How a file differs from the one a plan was made with. */
class FileChangeTest extends TestTables {

  private List<String> changes(String before, String now) throws IOException {
    List<ColumnShape> shape = FileChange.shape(text(before));
    return FileChange.compare(shape, text(now)).stream()
        .map(
            c ->
                c.kind().word()
                    + " "
                    + (c.before() == null ? "" : c.before().name())
                    + ">"
                    + (c.now() == null ? "" : c.now().name()))
        .toList();
  }

  private static final String FILE =
      "Reg No;Boat name;Owner e-mail;Arrives;Feet\nQH-1;Wren;a@b.example;13.11.2026;28\n";

  @Test
  void sameColumnsAreNoChange() throws IOException {
    assertThat(changes(FILE, FILE)).isEmpty();
    assertThat(changes(FILE, FILE.replace("Boat name", "BOAT NAME"))).isEmpty();
  }

  @Test
  void renamedColumnIsFoundByItsTitlePlaceAndType() throws IOException {
    assertThat(changes(FILE, FILE.replace("Owner e-mail", "Owner mail")))
        .containsExactly("renamed Owner e-mail>Owner mail");
    assertThat(changes(FILE, FILE.replace("Arrives", "ETA")))
        .containsExactly("renamed Arrives>ETA");
  }

  @Test
  void anotherTextInTheSamePlaceIsNoRenaming() throws IOException {
    assertThat(changes(FILE, FILE.replace("Boat name", "Phone")))
        .containsExactlyInAnyOrder("gone Boat name>", "added >Phone");
  }

  @Test
  void onlyWhatLeavesItsOrderHasMoved() throws IOException {
    assertThat(changes("a;b;c;d\n1;2;3;4\n", "x;a;b;d;c\n7;1;2;4;3\n"))
        .containsExactlyInAnyOrder("moved d>d", "added >x")
        .doesNotContain("moved a>a");
  }

  @Test
  void otherTypeIsTold() throws IOException {
    assertThat(changes(FILE, FILE.replace("13.11.2026", "soon")))
        .containsExactly("type Arrives>Arrives");
    assertThat(changes(FILE, FILE.replace(";28", ";28,5"))).isEmpty();
  }
}
