package org.zestyporter.core.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.source.reading.Fold;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.ValueType;

/** Columns that become rows. */
class FoldTest extends TestTables {
  private static final String MONTHS =
      "Meter;Berth;Sep 26;Oct 26;Nov 26\nM-1;A-01;311;402;518\nM-2;A-02;96;-;140\nM-3;A-03;;;\n";

  @Test
  void monthsAcrossAreProposedAndFolded() throws IOException {
    SourceTable flat = text(MONTHS);
    Fold fold = flat.proposals().fold();
    assertThat(fold.from()).isEqualTo("Sep 26");
    assertThat(fold.to()).isEqualTo("Nov 26");
    assertThat(fold.names()).containsExactly(new Fold.FoldName("Month", null));
    SourceTable table = text(MONTHS, Reading.FIND.withFold(fold));
    assertThat(table.columns()).containsExactly("Meter", "Berth", "Month", "Value");
    assertThat(rows(table))
        .containsExactly(
            "M-1|A-01|Sep 26|311",
            "M-1|A-01|Oct 26|402",
            "M-1|A-01|Nov 26|518",
            "M-2|A-02|Sep 26|96",
            "M-2|A-02|Nov 26|140");
    assertThat(lines(table)).containsExactly(2L, 2L, 2L, 3L, 3L);
    assertThat(table.rowCount()).isEqualTo(5);
    assertThat(table.rowOfLine(3)).isEqualTo(3);
    assertThat(table.profiles().get(3).type()).isEqualTo(ValueType.WHOLE);
    assertThat(table.distinct(2).tallies()).hasSize(3);
    assertThat(table.proposals().fold()).isNull();
  }

  @Test
  void groupsWithoutAValueMakeARecordIfWanted() throws IOException {
    Fold fold =
        new Fold("C", "E", null, List.of(new Fold.FoldName("Month", null)), List.of("kWh"), true);
    assertThat(rows(text(MONTHS, Reading.FIND.withFold(fold)))).hasSize(9);
  }

  @Test
  void titlesAreChosenByAPattern() throws IOException {
    Fold fold =
        new Fold(
            null, null, "^(sep|nov)", List.of(new Fold.FoldName("M", null)), List.of("V"), null);
    SourceTable table = text(MONTHS, Reading.FIND.withFold(fold));
    assertThat(table.columns()).containsExactly("Meter", "Berth", "Oct 26", "M", "V");
    assertThat(rows(table)).contains("M-2|A-02||Nov 26|140").hasSize(4);
  }

  @Test
  void unitsBecomeAColumn() throws IOException {
    String units =
        "Meter;Jan 26;Feb 26;Mar 26\n;kWh;kWh;m³\nM-1;10;20;30\nM-2;11;21;31\nM-3;12;22;32\n";
    Fold fold = text(units).proposals().fold();
    assertThat(fold.names()).extracting(Fold.FoldName::name).containsExactly("Month", "Unit");
    assertThat(rows(text(units, Reading.FIND.withFold(fold))))
        .startsWith("M-1|Jan 26|kWh|10", "M-1|Feb 26|kWh|20", "M-1|Mar 26|m³|30");
  }

  @Test
  void severalValueColumnsMakeAGroup() throws IOException {
    String grouped = ";2025;;2026;\nBerth;low;high;low;high\nA-01;10;20;11;21\nA-02;;;13;23\n";
    Fold fold = text(grouped).proposals().fold();
    assertThat(fold.values()).containsExactly("low", "high");
    assertThat(rows(text(grouped, Reading.FIND.withFold(fold))))
        .containsExactly("A-01|2025|10|20", "A-01|2026|11|21", "A-02|2026|13|23");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "Berth;2024;2025;2026\nA-01;1;2;3\nA-02;4;5;6\n",
        "Berth;Q1 2026;Q2 2026;Q3 2026\nA-01;1;2;3\nA-02;4;5;6\n",
        "Berth;W1;W2;W3\nA-01;1;2;3\nA-02;4;5;6\n",
        "Berth;01/2026;02/2026;03/2026\nA-01;1;2;3\nA-02;4;5;6\n",
        "Berth;Nov;Dec;Jan\nA-01;1;2;3\nA-02;4;5;6\n",
        "Berth;Reading 1;Reading 2;Reading 3\nA-01;1;2;3\nA-02;4;5;6\n",
        "Berth;janvier 2026;février 2026;mars 2026\nA-01;1;2;3\nA-02;4;5;6\n"
      })
  void seriesOfTitlesAreSeen(String content) throws IOException {
    SourceTable table = text(content);
    assertThat(table.reading().titleRows()).containsExactly(1L);
    assertThat(table.proposals().fold()).isNotNull();
  }

  @Test
  void numberedTextsAreNoSeriesOfValues() throws IOException {
    SourceTable table =
        text("Owner;Line 1;Line 2;Line 3\nBrask;Ropewalk;Flat 2;Quay\nOsei;Mole;Pier;Dock\n");
    assertThat(table.proposals().fold()).isNull();
  }

  @Test
  void foldThatDoesNotFitIsRefusedInWords() {
    Fold odd =
        new Fold("C", "E", null, List.of(new Fold.FoldName("M", null)), List.of("a", "b"), null);
    assertThatThrownBy(() -> text(MONTHS, Reading.FIND.withFold(odd)))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining("3 columns, which do not part into groups of 2");
    Fold gone = new Fold("Mai", "Juni", null, List.of(), List.of("v"), null);
    assertThatThrownBy(() -> text(MONTHS, Reading.FIND.withFold(gone)))
        .hasMessageContaining("no column “Mai”, which the fold needs");
    Fold broken = new Fold(null, null, "(", List.of(), List.of("v"), null);
    assertThatThrownBy(() -> text(MONTHS, Reading.FIND.withFold(broken)))
        .hasMessageContaining("is no pattern");
  }
}
