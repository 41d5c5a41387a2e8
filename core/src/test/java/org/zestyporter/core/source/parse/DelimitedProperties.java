package org.zestyporter.core.source.parse;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Example;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.Size;
import org.zestyporter.core.Seeds;
import org.zestyporter.core.source.reading.Escape;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.Cell;

/** What is written as delimited text is read again, to the character. */
class DelimitedProperties {

  /** Collects rows as lists of texts. */
  private static final class Rows implements RowSink {
    private final List<List<String>> rows = new ArrayList<>();
    private List<String> row = new ArrayList<>();

    @Override
    public void cell(int column, Cell cell) {
      while (row.size() < column) {
        row.add("");
      }
      row.add(cell.text());
    }

    @Override
    public void endRow(long line) {
      rows.add(row);
      row = new ArrayList<>();
    }
  }

  @Provide
  Arbitrary<String> cells() {
    Arbitrary<String> odd =
        Arbitraries.strings()
            .withChars(
                ' ', '"', '\'', ';', ',', '\t', '|', '\n', '\r', '\\', '#', 'a', 'é', '海', 'Z')
            .ofMaxLength(8);
    Arbitrary<String> any =
        Arbitraries.strings()
            .all()
            .excludeChars('\uFFFD', '\uFEFF')
            .ofMaxLength(12)
            .filter(s -> s.chars().noneMatch(c -> Character.isSurrogate((char) c)));
    return Arbitraries.oneOf(odd, any);
  }

  @Property(tries = 400 * Seeds.MORE, seed = Seeds.SEED)
  void quotedCellsComeBack(
      @ForAll @Size(min = 1, max = 6)
          List<@Size(min = 1, max = 5) List<@net.jqwik.api.From("cells") String>> rows,
      @ForAll("delimiters") String delimiter,
      @ForAll("lineEnds") String lineEnd,
      @ForAll("charsets") String charset)
      throws IOException {
    StringBuilder text = new StringBuilder();
    for (List<String> row : rows) {
      text.append(
              row.stream()
                  .map(c -> '"' + c.replace("\"", "\"\"") + '"')
                  .reduce((a, b) -> a + delimiter + b)
                  .orElse(""))
          .append(lineEnd);
    }
    assertThat(read(text.toString(), delimiter, charset, Escape.DOUBLED)).isEqualTo(trimmed(rows));
  }

  @Property(tries = 200 * Seeds.MORE, seed = Seeds.SEED)
  void plainCellsComeBack(
      @ForAll @Size(min = 1, max = 6)
          List<@Size(min = 1, max = 5) List<@net.jqwik.api.From("plain") String>> rows,
      @ForAll("delimiters") String delimiter)
      throws IOException {
    StringBuilder text = new StringBuilder();
    rows.forEach(row -> text.append(String.join(delimiter, row)).append('\n'));
    assertThat(read(text.toString(), delimiter, "UTF-8", Escape.DOUBLED)).isEqualTo(trimmed(rows));
  }

  @Property(tries = 200 * Seeds.MORE, seed = Seeds.SEED)
  void cellsEscapedByBackslashesComeBack(
      @ForAll @Size(min = 1, max = 4)
          List<@Size(min = 1, max = 4) List<@net.jqwik.api.From("cells") String>> rows)
      throws IOException {
    StringBuilder text = new StringBuilder();
    for (List<String> row : rows) {
      text.append(
              row.stream()
                  .map(c -> '"' + c.replace("\\", "\\\\").replace("\"", "\\\"") + '"')
                  .reduce((a, b) -> a + ";" + b)
                  .orElse(""))
          .append('\n');
    }
    assertThat(read(text.toString(), ";", "UTF-8", Escape.BACKSLASH)).isEqualTo(trimmed(rows));
  }

  /** Cells of all lengths stand across the ends of the parser's buffer. */
  @Property(tries = 12 * Seeds.MORE, seed = Seeds.SEED)
  void longTextsComeBack(@ForAll long seed) throws IOException {
    java.util.Random random = new java.util.Random(seed);
    List<List<String>> rows = new ArrayList<>();
    StringBuilder text = new StringBuilder();
    while (text.length() < 300_000) {
      List<String> row = new ArrayList<>();
      for (int c = 0; c < 4; c++) {
        String cell = "x\n\"y,".repeat(random.nextInt(9)) + "z".repeat(1 + random.nextInt(900));
        row.add(cell);
        text.append(c == 0 ? "\"" : ",\"").append(cell.replace("\"", "\"\"")).append('"');
        if (random.nextInt(3) == 0) {
          text.append(" stray");
          row.set(c, cell + " stray");
        }
      }
      rows.add(row);
      text.append("\r\n");
    }
    assertThat(read(text.toString(), ",", "UTF-8", Escape.DOUBLED)).isEqualTo(rows);
  }

  /** Whatever stands at the end of the parser's buffer. */
  @Example
  void escapesComeBackWhereverTheyStand() throws IOException {
    String line = "a\\,é,\"b\\\"c\",\\\\\n";
    List<String> row = List.of("a,é", "b\"c", "\\");
    for (int shift = 1; shift <= line.length() + 1; shift++) {
      String first = "x".repeat(shift);
      String text = first + "\n" + line.repeat(10_000);
      List<List<String>> read = read(text, ",", "UTF-8", Escape.BACKSLASH);
      assertThat(read).hasSize(10_001);
      assertThat(read.get(0)).containsExactly(first);
      assertThat(read.subList(1, read.size())).allMatch(row::equals);
    }
  }

  @Provide
  Arbitrary<String> plain() {
    return Arbitraries.strings().withCharRange('a', 'z').withChars('é', '-', '.').ofMaxLength(9);
  }

  @Provide
  Arbitrary<String> delimiters() {
    return Arbitraries.of(";", ",", "\t", "|", "||", "~|~", "\u001F");
  }

  @Provide
  Arbitrary<String> lineEnds() {
    return Arbitraries.of("\n", "\r\n", "\r");
  }

  @Provide
  Arbitrary<String> charsets() {
    return Arbitraries.of("UTF-8", "UTF-16LE", "UTF-16BE", "UTF-32LE");
  }

  /** Blank cells at the end of a row are not told from missing ones. */
  private static List<List<String>> trimmed(List<List<String>> rows) {
    List<List<String>> all = new ArrayList<>();
    for (List<String> row : rows) {
      List<String> cells = new ArrayList<>(row);
      while (!cells.isEmpty() && cells.get(cells.size() - 1).isEmpty()) {
        cells.remove(cells.size() - 1);
      }
      all.add(cells);
    }
    return all;
  }

  private static List<List<String>> read(
      String text, String delimiter, String charset, Escape escape) throws IOException {
    Path file = Files.createTempFile("property", ".csv");
    try {
      Files.write(file, text.getBytes(Charset.forName(charset)));
      Rows rows = new Rows();
      Reading reading =
          Reading.FIND.with(
              b -> b.encoding(charset).delimiter(delimiter).quote("\"").escape(escape).comment(""));
      new DelimitedParser().parse(file, reading, rows, new ReadProgress());
      return trimmed(rows.rows);
    } finally {
      Files.delete(file);
    }
  }
}
