package org.zestyporter.core.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.StringJoiner;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;

/** What is put by of a rehearsal says all that its ledger and books say. */
class RecordFileTest {
  private static final String PLAN =
      """
      {"name": "Mills", "destinations": [{
        "table": "mill", "keys": [{"fields": ["tag"]}],
        "fills": [
          {"field": "id", "origin": {"kind": "generated", "generator": "line"}, "onlyNew": true},
          {"field": "tag", "origin": {"kind": "column", "column": "Tag"}},
          {"field": "note", "origin": {"kind": "column", "column": "Note"}},
          {"field": "sails", "origin": {"kind": "column", "column": "Sails"},
            "steps": [{"kind": "read-number"}]}]}]}""";

  private static final String FILE =
      """
      Tag;Note;Sails
      a;=1+1;4
      b;Ölmühle „Süd“;6
      c;;many
      d;new;5
      """;

  @TempDir Path folder;

  private interface Writing {
    void to(RecordFile file, OutputStream out) throws IOException;
  }

  private byte[] written(Writing writing) throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE TABLE mill (id INTEGER PRIMARY KEY, tag VARCHAR(9), note VARCHAR(40),"
              + " sails INTEGER)",
          "INSERT INTO mill VALUES (100, 'a', 'old', 4)",
          "INSERT INTO mill VALUES (101, 'b', 'old', 4)");
      List<LedgerLayout> layouts = new ArrayList<>();
      List<LedgerEntry> entries = new ArrayList<>();
      Ledger ledger =
          new Ledger() {
            @Override
            public void begin(LedgerLayout layout) {
              layouts.add(layout);
            }

            @Override
            public void append(LedgerChunk chunk) {
              entries.addAll(chunk.entries());
            }
          };
      RunReport report = Runs.rehearse(on, folder, PLAN, FILE, ledger);
      ByteArrayOutputStream out = new ByteArrayOutputStream();
      writing.to(
          new RecordFile(
              List.of(Map.entry("Plan", "Mills"), Map.entry("Begun by", "odile")),
              report,
              List.of(new RecordFile.Part(layouts.get(0), entries::stream))),
          out);
      return out.toByteArray();
    }
  }

  @Test
  void textHoldsALineForEachRowAndNoFormula() throws SQLException, IOException {
    String text = new String(written(RecordFile::csv), StandardCharsets.UTF_8);
    assertThat(text.lines())
        .containsExactly(
            "row,destination,outcome,matched_by,record_key,problem_code,field,reason,changes",
            "2,mill,changed,1,100,,,,note: old → =1+1",
            "3,mill,changed,1,101,,,,note: old → Ölmühle „Süd“; sails: 4 → 6",
            "4,mill,rejected,,,not-a-number,sails,no number in it,",
            "5,mill,new,,,,,,");
  }

  @Test
  void theWorkbookHoldsTheSummaryAndTheLedger() throws SQLException, IOException {
    Path file = folder.resolve("record.xlsx");
    Files.write(file, written(RecordFile::workbook));
    assertThat(lines(file, "Summary"))
        .contains("Plan|Mills", "Begun by|odile", "mill|4|1|2|0|0|1|0")
        .contains("not a number|mill.sails|1|4|many|no number in it")
        .contains("note|mill|2", "sails|mill|1");
    assertThat(lines(file, "Ledger"))
        .hasSize(5)
        .contains("3|mill|changed|1|101||||note: old → Ölmühle „Süd“; sails: 4 → 6")
        .contains("4|mill|rejected|||not-a-number|sails|no number in it");
  }

  /** The lines of a sheet, without the empty cells at their ends. */
  private List<String> lines(Path file, String sheet) throws IOException {
    List<String> lines = new ArrayList<>();
    try (SourceTable source =
        SourceReader.open(file, folder.resolve(sheet), Reading.FIND.withSheet(sheet))) {
      for (int chunk = 0; chunk < source.raw().chunks(); chunk++) {
        for (int row = 0; row < source.raw().lines(chunk).length; row++) {
          StringJoiner cells = new StringJoiner("|");
          for (int column = 0; column < source.raw().width(chunk); column++) {
            cells.add(source.raw().column(chunk, column).cell(row).text());
          }
          lines.add(cells.toString().replaceAll("\\|+$", ""));
        }
      }
    }
    return lines;
  }
}
