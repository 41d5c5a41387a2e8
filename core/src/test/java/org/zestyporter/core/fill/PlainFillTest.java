package org.zestyporter.core.fill;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** What is computed by columns is what the chain of steps gives value by value. */
class PlainFillTest {
  private static final RunContext CONTEXT =
      new RunContext("odile", LocalDateTime.of(2026, 11, 25, 9, 0), "a.csv");
  private static final int ROWS = 6_000;

  @TempDir Path folder;

  private static FieldInfo field(
      FieldType type, Integer length, Integer precision, Integer scale, Integer least) {
    return FieldInfo.of("f", type)
        .withLength(length)
        .withPrecision(precision)
        .withScale(scale)
        .withLeast(least == null ? null : BigDecimal.valueOf(least))
        .withGreatest(least == null ? null : new BigDecimal("1234.5"));
  }

  private static final List<FieldInfo> FIELDS =
      List.of(
          field(FieldType.TEXT, null, null, null, null),
          field(FieldType.TEXT, 8, null, null, null),
          field(FieldType.WHOLE, null, null, null, null),
          field(FieldType.WHOLE, null, null, null, -50),
          field(FieldType.DECIMAL, null, 6, 2, null),
          field(FieldType.DECIMAL, null, 30, 20, null),
          field(FieldType.DECIMAL, null, null, null, null),
          field(FieldType.DATE, null, null, null, null),
          field(FieldType.DATETIME, null, null, null, null));

  private static final List<List<Step>> CHAINS =
      List.of(
          List.of(),
          List.of(Step.of(StepKind.TRIM)),
          List.of(Step.of(StepKind.TRIM), Step.of(StepKind.COLLAPSE_SPACES)),
          List.of(Step.of(StepKind.READ_NUMBER)),
          List.of(Step.of(StepKind.TRIM), Step.of(StepKind.READ_NUMBER, "decimal", ",")),
          List.of(Step.of(StepKind.READ_DATE)),
          List.of(Step.of(StepKind.READ_DATE, "order", "month-day-year")),
          List.of(Step.of(StepKind.READ_DATE, "order", "year-month-day")),
          List.of(Step.of(StepKind.READ_DATE, "calendar", "buddhist")),
          List.of(Step.of(StepKind.READ_DATE, "pattern", "d.m.yyyy")),
          List.of(Step.of(StepKind.READ_PERCENT, "as", "points")),
          List.of(Step.of(StepKind.CASE, "to", "upper")));

  /** Values of all kinds, the plain and the odd; some repeat, most don't. */
  private static String value(Random random) {
    int n = random.nextInt(100_000);
    return switch (random.nextInt(26)) {
      case 0 -> "";
      case 1 -> "-" + n;
      case 2 -> n + "." + random.nextInt(1000);
      case 3 -> n + "," + random.nextInt(100);
      case 4 -> "00" + n;
      case 5 -> " " + n + " ";
      case 6 -> n + ".";
      case 7 -> "." + n;
      case 8 -> "1e" + n % 40;
      case 9 -> String.format("%04d-%02d-%02d", 1000 + n % 2000, n % 14, n % 33);
      case 10 -> n % 32 + "." + n % 13 + "." + (1900 + n % 200);
      case 11 -> n % 32 + "/" + n % 13 + "/" + n % 100;
      case 12 -> "Größe  " + n + " Ølberg";
      case 13 -> "x\u00A0" + n;
      case 14 -> "東京 " + n;
      case 15 -> "a–b — " + n + "…";
      case 16 -> "\u200B" + n;
      case 17 -> "-";
      case 18 -> "--" + n;
      case 19 -> "999999999999999999" + n;
      case 20 -> n + " 000";
      case 21 -> "2026-02-29";
      case 22 -> "29.02." + (n % 2 == 0 ? 2024 : 2023);
      case 23 -> "a\tb" + n;
      case 24 -> "+" + n;
      default -> String.valueOf(n);
    };
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void columnsGiveWhatTheChainGives(long seed) throws IOException {
    Random random = new Random(seed);
    StringBuilder text = new StringBuilder("A|B\n");
    for (int i = 0; i < ROWS; i++) {
      text.append(value(random)).append('|').append(i % 7).append('\n');
    }
    Path file = folder.resolve("a.csv");
    Files.writeString(file, text);
    int compared = 0;
    try (SourceTable source =
        SourceReader.open(file, folder.resolve("cells"), Reading.FIND.withDelimiter("|"))) {
      for (FieldInfo field : FIELDS) {
        TableInfo table = new TableInfo(null, "t", null, List.of(field), List.of(), List.of());
        FillCompiler compiler = new FillCompiler(name -> table, source, CONTEXT, Phrases.NONE);
        for (List<Step> steps : CHAINS) {
          Fill fill = Fill.of("f", Origin.column("A"), steps.toArray(Step[]::new));
          compared += compare(compiler.compile(fill, field, table), source);
        }
      }
    }
    assertThat(compared).isEqualTo(FIELDS.size() * CHAINS.size() * ROWS);
  }

  private static int compare(CompiledFill fill, SourceTable source) {
    FillColumns columns = new FillColumns(fill);
    int compared = 0;
    for (int i = 0; i < source.batches(); i++) {
      Batch batch = source.batch(i);
      FilledColumn column = columns.of(batch);
      BatchRow row = new BatchRow(batch, CONTEXT);
      List<String> wrong = new ArrayList<>();
      for (int r = 0; r < batch.rows(); r++, compared++) {
        Filled expected = fill.compute(row.at(r));
        Filled given = column.filled(r);
        if (!expected.equals(given) || column.values().isBlank(r) != (expected.value() == null)) {
          wrong.add(row.cell(0) + ": " + expected + " but " + given);
        }
      }
      assertThat(wrong).as(fill.field() + " " + fill.fill().steps()).isEmpty();
    }
    return compared;
  }
}
