package org.zestyporter.cli;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.Warning;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetInfo;
import org.zestyporter.core.source.reading.SourceFormat;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.ValueType;

/** How a file is read, and why: what {@code look --json} prints. */
record LookReport(
    String file,
    SourceFormat format,
    @Nullable String encoding,
    @Nullable String delimiter,
    @Nullable String quote,
    List<String> sheets,
    @Nullable String sheet,
    List<Long> titleRows,
    long firstRow,
    long lastRow,
    long rowCount,
    List<Column> columns,
    List<List<@Nullable String>> rows,
    List<Evidence> evidence,
    List<Warning> warnings) {

  /**
   * A column's profile in brief.
   *
   * @param distinctCapped true if there are more distinct values than were counted, which is said
   *     only then
   */
  record Column(
      String name,
      ValueType type,
      @Nullable String pattern,
      String locale,
      long blank,
      int distinct,
      @JsonInclude(JsonInclude.Include.NON_DEFAULT) boolean distinctCapped,
      boolean ambiguous) {}

  static LookReport of(String name, SourceTable table, int rows) {
    Reading reading = table.reading();
    return new LookReport(
        name,
        reading.format(),
        reading.encoding(),
        reading.delimiter(),
        reading.quote(),
        table.sheets().stream().map(SheetInfo::name).toList(),
        reading.sheet(),
        reading.titleRows(),
        reading.firstRow(),
        reading.lastRow(),
        table.rowCount(),
        table.profiles().stream().map(LookReport::column).toList(),
        rows(table, rows),
        table.evidence(),
        table.warnings());
  }

  private static Column column(ColumnProfile p) {
    String locale = ",".equals(p.locale().decimal()) ? "de" : "en";
    return new Column(
        p.name(),
        p.type(),
        p.pattern(),
        locale,
        p.blank(),
        p.distinct(),
        p.distinctCapped(),
        p.ambiguous());
  }

  private static List<List<@Nullable String>> rows(SourceTable table, int wanted) {
    List<List<@Nullable String>> rows = new ArrayList<>();
    for (int i = 0; i < table.batches() && rows.size() < wanted; i++) {
      Batch batch = table.batch(i);
      for (int r = 0; r < batch.rows() && rows.size() < wanted; r++) {
        List<@Nullable String> row = new ArrayList<>();
        for (int c = 0; c < batch.columns().length; c++) {
          Cell cell = batch.columns()[c].cell(r);
          row.add(cell.isBlank() ? null : cell.text());
        }
        rows.add(row);
      }
    }
    return rows;
  }
}
