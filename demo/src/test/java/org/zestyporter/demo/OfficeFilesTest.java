package org.zestyporter.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Path;
import org.assertj.core.groups.Tuple;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.source.FileChange;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.layout.Layout;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SourceFormat;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.ValueType;

/** Each file of the office is read as the generator wrote it, without a word from anybody. */
class OfficeFilesTest {
  @TempDir Path folder;
  private final Marina marina = Marina.open();
  private final OfficeFiles files = marina.officeFiles();

  @BeforeEach
  void write() throws IOException {
    files.write(folder);
  }

  private SourceTable open(String name, Reading reading) throws IOException {
    return SourceReader.open(folder.resolve(name), folder.resolve(name + ".cells"), reading);
  }

  private static ColumnProfile column(SourceTable table, String name) {
    return table.profiles().get(table.column(name));
  }

  @Test
  void owners() throws IOException {
    try (SourceTable table = open("owners-export.csv", Reading.FIND)) {
      assertThat(table.rowCount()).isEqualTo(OfficeFiles.OWNERS);
      assertThat(table.reading().encoding()).isEqualTo("windows-1252");
      assertThat(table.reading().blankWords()).containsExactlyInAnyOrder("-", "n/a");
      assertThat(column(table, "Owner no").type()).isEqualTo(ValueType.TEXT);
      assertThat(column(table, "Balance").type()).isEqualTo(ValueType.DECIMAL);
      assertThat(new BigDecimal(column(table, "Balance").least())).isNegative();
      assertThat(column(table, "Member").type()).isEqualTo(ValueType.BOOLEAN);
      assertThat(column(table, "Seasonal town").greatest()).isEqualTo("Århaven");
    }
  }

  @Test
  void meters() throws IOException {
    Reading folded;
    try (SourceTable table = open("meter-round-2026.xlsx", Reading.FIND)) {
      assertThat(table.rowCount()).isEqualTo(OfficeFiles.METERS);
      assertThat(table.reading().titleRows()).containsExactly(5L);
      assertThat(table.reading().unitsRow()).isEqualTo(6L);
      assertThat(table.proposals().fillDown()).containsExactly("Pontoon");
      folded =
          Reading.FIND.with(
              b -> b.fold(table.proposals().fold()).fillDown(table.proposals().fillDown()));
    }
    try (SourceTable table = open("meter-round-2026.xlsx", folded)) {
      assertThat(table.rowCount()).isEqualTo(files.readings());
      assertThat(column(table, "Month").distinct()).isEqualTo(OfficeFiles.MONTHS.size());
      assertThat(column(table, "Pontoon").blank()).isZero();
      assertThat(column(table, "Value").type()).isEqualTo(ValueType.WHOLE);
    }
  }

  @Test
  void tariffs() throws IOException {
    try (SourceTable table = open("tariffs-spring.ods", Reading.FIND)) {
      assertThat(table.reading().format()).isEqualTo(SourceFormat.ODS);
      assertThat(table.reading().titleRows()).containsExactly(3L, 4L);
      assertThat(table.proposals().fold().values()).containsExactly("low", "high");
      assertThat(column(table, "Code").samples().get(0).text()).startsWith("00");
      assertThat(table.sheets().get(1).hidden()).isTrue();
    }
  }

  @Test
  void contracts() throws IOException {
    try (SourceTable table = open("contracts.tsv", Reading.FIND)) {
      assertThat(table.rowCount()).isEqualTo(OfficeFiles.CONTRACTS);
      assertThat(column(table, "Starts on").type()).isEqualTo(ValueType.DATE);
      for (int i = 0; i < table.batches(); i++) {
        Batch batch = table.batch(i);
        for (int r = 0; r < batch.rows(); r++) {
          assertThat(batch.columns()[0].cell(r).text()).startsWith("BC-");
        }
      }
    }
  }

  @Test
  void app() throws IOException {
    try (SourceTable table = open("harbour-app.json", Reading.FIND)) {
      assertThat(table.rowCount()).isEqualTo(OfficeFiles.APP_VESSELS);
      assertThat(table.columns()).contains("size.length", "owner.email", "stays");
    }
    try (SourceTable table = open("harbour-app.json", Reading.FIND.withSheet("vessels.stays"))) {
      assertThat(table.rowCount()).isEqualTo(files.stays());
      assertThat(table.columns()).contains("registration", "owner.email", "stays.berth");
      assertThat(column(table, "stays.from").type()).isEqualTo(ValueType.DATE);
    }
  }

  @Test
  void laterDelivery() throws IOException {
    marina.arrivals().writeText(folder.resolve("winter-arrivals.csv"));
    try (SourceTable before = open("winter-arrivals.csv", Reading.FIND);
        SourceTable now = open("december-arrivals.csv", Reading.FIND)) {
      assertThat(FileChange.compare(FileChange.shape(before), now))
          .extracting(c -> c.kind().word() + " " + (c.now() == null ? c.before() : c.now()).name())
          .containsExactlyInAnyOrder(
              "renamed Owner mail", "moved Berth", "gone Notes", "added Phone on board");
    }
  }

  @Test
  void theWinterStorageIsReadWithoutItsLayout() throws IOException {
    try (SourceTable table = open("winterlager.xlsx", Reading.FIND)) {
      assertThat(table.rowCount()).isEqualTo(WinterStorage.VESSELS);
      assertThat(table.reading().titleRows()).containsExactly(4L, 5L);
      assertThat(table.reading().section()).isEqualTo("Steg");
      assertThat(table.proposals().others())
          .extracting(Layout.OtherTable::titles, Layout.OtherTable::lines)
          .containsExactly(Tuple.tuple((long) WinterStorage.PRICES_LINE, 3L));
      assertThat(table.profiles().get(table.column("Lager Ankunft")).type())
          .isEqualTo(ValueType.DATE);
      assertThat(table.profiles().get(table.column("Eigner Tel.")).blank()).isEqualTo(14);
    }
  }
}
