package org.zestyporter.core.undo;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.MemoryLedger;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.run.Pipeline;
import org.zestyporter.core.run.Progress;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;

/**
 * Each type of field on each kind of database: filled, found unchanged the second time, changed,
 * and put back to what stood there.
 */
class FieldTypesTest {
  private static final RunContext CONTEXT =
      new RunContext("odile", LocalDateTime.of(2026, 11, 25, 9, 0), "theirs.csv");

  /** So many that they go together, where a database has a way for that. */
  private static final long ROWS = 80;

  @TempDir Path folder;

  private SourceTable open(String held, String other) throws IOException {
    List<String> lines = new ArrayList<>(List.of("nr;held"));
    for (int nr = 1; nr <= ROWS; nr++) {
      lines.add(nr + ";" + cell(nr % 2 == 1 ? held : other));
    }
    Path file = Files.writeString(folder.resolve("theirs.csv"), String.join("\n", lines) + "\n");
    return SourceReader.open(file, folder.resolve("cache"), Reading.FIND);
  }

  private static String cell(String text) {
    return "\"" + text.replace("\"", "\"\"") + "\"";
  }

  private RunReport run(Databases.Fresh on, Ledger ledger, String held, String other)
      throws IOException {
    try (SourceTable source = open(held, other)) {
      Destination drafted =
          new PlanDraft(on.database(), source).draft(on.database().table("thing")).destination();
      assertThat(drafted.fills()).extracting(f -> f.field()).contains("held");
      Plan plan = new Plan("Theirs", null, Reading.FIND, List.of(drafted), null);
      Pipeline pipeline =
          new Pipeline(new OpenedPlan(on.database(), source, plan, CONTEXT, Shared.NONE));
      RunReport rehearsal = pipeline.rehearse(Ledger.NONE, Progress.NONE);
      RunReport report = pipeline.run("1", ledger, Progress.NONE);
      assertThat(report.destinations()).as("as rehearsed").isEqualTo(rehearsal.destinations());
      assertThat(report.problems()).isEmpty();
      return report;
    }
  }

  private static List<Long> counts(RunReport report) {
    RunReport.DestinationReport d = report.destinations().get(0);
    return List.of(d.added(), d.changed(), d.unchanged(), d.skipped(), d.rejected());
  }

  /** What stands in the table, as the database itself writes it. */
  private static List<String> standing(Databases.Fresh on, String asText) throws SQLException {
    List<String> all = new ArrayList<>();
    try (Statement query = on.connection().createStatement();
        var found = query.executeQuery("SELECT " + asText + " FROM thing ORDER BY nr")) {
      while (found.next()) {
        all.add(String.valueOf(found.getString(1)).strip());
      }
    }
    return all;
  }

  /**
   * @param stands what stands in the first record; null if the database writes it in ways of its
   *     own
   */
  private void fillChangeAndPutBack(
      Databases.Fresh on, String asText, String a, String b, String stands)
      throws SQLException, IOException {
    assertThat(counts(run(on, Ledger.NONE, a, b))).containsExactly(ROWS, 0L, 0L, 0L, 0L);
    List<String> first = standing(on, asText);
    if (stands != null) {
      assertThat(first.get(0)).isEqualTo(stands);
    }
    assertThat(counts(run(on, Ledger.NONE, a, b)))
        .as("the second time")
        .containsExactly(0L, 0L, ROWS, 0L, 0L);
    MemoryLedger swapped = new MemoryLedger(false);
    assertThat(counts(run(on, swapped, b, a))).containsExactly(0L, ROWS, 0L, 0L, 0L);
    RunReport undone =
        new Undo(on.database(), swapped, swapped.size())
            .go("2", Decisions.all(Edited.KEEP), new MemoryLedger(true), Progress.NONE);
    assertThat(undone.balanced()).isTrue();
    assertThat(standing(on, asText)).as("put back").isEqualTo(first);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "timestamptz|2024-03-05T12:00:00Z|2024-07-05 12:00:00+02:00|2024-03-05 12:00:00+00",
        "timestamp|2024-03-05 12:00:00.5|2024-07-05 12:00|2024-03-05 12:00:00.5",
        "timestamp(0)|2024-03-05 12:00:00.5|2024-07-05 12:00|2024-03-05 12:00:01",
        "date|2024-03-05|2024-07-05|2024-03-05",
        "time|12:30|07:05:09|12:30:00",
        "numeric|24.5|123456789.123456789|24.5",
        "numeric(8,2)|24.5|3|24.50",
        "numeric(5,-2)|1200|300|1200",
        "real|24.123456789|0.1|24.123457",
        "double precision|8.3945900000000009|0.1|8.39459",
        "bigint|9223372036854775807|-1|9223372036854775807",
        "smallint|12|-1|12",
        "boolean|yes|no|true",
        "char(6)|ab|cdefgh|ab",
        "text|plain|O'Brien \\ %|plain",
        "uuid|0F1E2D3C-4B5A-6978-8796-A5B4C3D2E1F0|{11111111111111111111111111111111}"
            + "|0f1e2d3c-4b5a-6978-8796-a5b4c3d2e1f0",
        "json|`{\"b\": 1, \"a\": [2.0]}`|[]|`{\"b\": 1, \"a\": [2.0]}`",
        "jsonb|`{\"b\": 1, \"a\": [2.50]}`|[]|`{\"a\": [2.50], \"b\": 1}`",
        "bytea|\\xDEADBEEF|\\x|\\xdeadbeef",
        "interval|P1Y2M3DT4H5M6.5S|-1 day 02:30|1 year 2 mons 3 days 04:05:06.5",
        "interval|36 hours|00:00|36:00:00",
        "text[]|plain; two words; a,b;|{}|{plain,\"two words\",\"a,b\",\"\"}",
        "varchar(9)[]|[\"x\", null, \"NULL\", \"a \\\"b\\\"\"]|y|{x,NULL,\"NULL\",\"a \\\"b\\\"\"}",
        "integer[]|7, 08, -2|{1}|{7,8,-2}",
        "numeric(8,2)[]|1.5; 20|{}|{1.50,20.00}",
        "boolean[]|true;f|t|{t,f}",
        "date[]|2026-03-31|2026-04-01;2026-04-02|{2026-03-31}",
        "inet|10.0.0.1|2001:db8::1|10.0.0.1/32",
        "mood|happy|so so|happy",
        "price|20|19.95|20.00",
        "code|ab1|zz9|ab1",
      })
  void postgres(String type, String a, String b, String stands) throws SQLException, IOException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute(
          "CREATE TYPE mood AS ENUM ('happy', 'so so')",
          "CREATE DOMAIN money2 AS numeric(10,2) CHECK (VALUE >= 0)",
          "CREATE DOMAIN price AS money2 NOT NULL CHECK (VALUE <= 1000)",
          "CREATE DOMAIN code AS varchar(3)",
          "SET TIME ZONE 'UTC'",
          "CREATE TABLE thing (nr integer PRIMARY KEY, held "
              + type
              + ", at timestamptz DEFAULT now() NOT NULL,"
              + " twice integer GENERATED ALWAYS AS (nr * 2) STORED)");
      fillChangeAndPutBack(on, "held::text", a, b, stands);
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "timestamp with time zone|2024-03-05T12:00:00Z|2024-07-05 12:00:00+02:00",
        "timestamp(3)|2024-03-05 12:00:00.1234|2024-07-05 12:00",
        "time|12:30|07:05:09",
        "numeric(8,2)|24.5|3",
        "decfloat|24.5|1234567.123456789",
        "real|24.123456789|0.1",
        "double precision|8.3945900000000009|0.1",
        "bigint|9223372036854775807|-1",
        "boolean|yes|no",
        "char(6)|ab|cdefgh",
        "varchar_ignorecase(20)|Wren|Heron",
        "clob|plain|O'Brien",
        "uuid|0F1E2D3C-4B5A-6978-8796-A5B4C3D2E1F0|11111111-1111-1111-1111-111111111111",
        "json|`{\"b\": 1, \"a\": [2.0]}`|[]",
        "varbinary(20)|\\xDEADBEEF|\\x00",
        "enum('happy', 'so so')|happy|so so",
        "price|20|19.95",
      })
  void h2(String type, String a, String b) throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE DOMAIN price AS numeric(10,2) CHECK (VALUE >= 0)",
          "CREATE TABLE thing (nr integer PRIMARY KEY, held "
              + type
              + ", at timestamp with time zone DEFAULT CURRENT_TIMESTAMP NOT NULL,"
              + " twice integer GENERATED ALWAYS AS (nr * 2))");
      fillChangeAndPutBack(on, "held", a, b, null);
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "tinyint|-128|127|-128",
        "tinyint unsigned|255|0|255",
        "smallint|-32768|12|-32768",
        "mediumint unsigned|16777215|1|16777215",
        "int unsigned|4294967295|7|4294967295",
        "bigint|-9223372036854775808|7|-9223372036854775808",
        "bigint unsigned|18446744073709551615|7|18446744073709551615",
        "decimal(8,2)|24.5|3|24.50",
        "decimal(30,10)|12345678901234567890.0123456789|-1|12345678901234567890.0123456789",
        "float|24.123456789|0.1|24.123457",
        "double|8.3945900000000009|0.1|8.39459",
        "char(6)|ab|cdefgh|ab",
        "varchar(20)|plain|O'Brien \\ %|plain",
        "varchar(20) CHARACTER SET utf8mb4|⚓ Ключ 港|Über|⚓ Ключ 港",
        "text|plain|a; \"b\"|plain",
        "longtext|plain|b|plain",
        "boolean|yes|no|1",
        "bit(1)|yes|no|1",
        "date|2024-03-05|1999-12-31|2024-03-05",
        "time|12:30|07:05:09|12:30:00",
        "time(3)|12:30:00.1234|07:05:09|12:30:00.123",
        "datetime|2024-03-05 12:00:00.5|2024-07-05 12:00|2024-03-05 12:00:01",
        "datetime(6)|2024-03-05 12:00:00.123456|2024-07-05 12:00|2024-03-05 12:00:00.123456",
        "timestamp NULL|2024-03-05 12:00:00|2024-07-05 12:00|2024-03-05 12:00:00",
        "year|1999|2026|1999",
        "uuid|0F1E2D3C-4B5A-6978-8796-A5B4C3D2E1F0|{11111111111111111111111111111111}"
            + "|0f1e2d3c-4b5a-6978-8796-a5b4c3d2e1f0",
        "json|`{\"b\": 1, \"a\": [2.0]}`|[]|`{\"b\": 1, \"a\": [2.0]}`",
        "enum('happy', 'it''s')|it's|happy|it's",
        "set('red', 'green', 'blue')|`blue, red`|green|`red,blue`",
        "varbinary(20)|\\xDEADBEEF|\\x00|DEADBEEF",
        "blob|\\xDEADBEEF|\\x|DEADBEEF",
        "inet6|2001:db8::1|::ffff:10.0.0.1|2001:db8::1",
      })
  void maria(String type, String a, String b, String stands) throws SQLException, IOException {
    try (Databases.Fresh on = Databases.maria()) {
      on.execute(
          "CREATE TABLE thing (nr integer PRIMARY KEY, held "
              + type
              + ", at timestamp DEFAULT CURRENT_TIMESTAMP NOT NULL,"
              + " twice integer GENERATED ALWAYS AS (nr * 2) STORED)");
      String asText =
          switch (type) {
            case "varbinary(20)", "blob" -> "HEX(held)";
            case "bit(1)" -> "held + 0";
            // its own texts are shorter than what it holds
            case "float" -> "ROUND(CAST(held AS DOUBLE), 6)";
            default -> "CAST(held AS CHAR)";
          };
      fillChangeAndPutBack(on, asText, a, b, stands);
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "integer|-9223372036854775808|7|`integer -9223372036854775808`",
        "bigint|42|7|`integer 42`",
        "text|plain|O'Brien \\ %|`text plain`",
        "varchar(20)|⚓ Ключ|Über|`text ⚓ Ключ`",
        "varchar(20)|007|b|`text 007`",
        "real|24.123456789|0.1|`real 24.123456789`",
        "decimal(8,2)|24.5|3|`real 24.5`",
        "decimal(8,2)|24|3|`integer 24`",
        "numeric(12)|123456789012|3|`integer 123456789012`",
        "boolean|yes|no|`integer 1`",
        "date|2024-03-05|1999-12-31|`text 2024-03-05`",
        "time|12:30|07:05:09|`text 12:30:00`",
        "datetime|2024-03-05 12:00:00.5|2024-07-05 12:00|`text 2024-03-05 12:00:00.5`",
        "timestamp|2024-03-05 12:00|2024-07-05 12:00|`text 2024-03-05 12:00:00`",
        "blob|\\xDEADBEEF|\\x00|`blob DEADBEEF`",
        "json|`{\"b\": 1}`|[]|`text {\"b\": 1}`",
        "uuid|0F1E2D3C-4B5A-6978-8796-A5B4C3D2E1F0|11111111-1111-1111-1111-111111111111"
            + "|`text 0f1e2d3c-4b5a-6978-8796-a5b4c3d2e1f0`",
        "``|anything|b|`text anything`",
      })
  void sqlite(String type, String a, String b, String stands) throws SQLException, IOException {
    try (Databases.Fresh on = Databases.sqlite()) {
      on.execute(
          "CREATE TABLE thing (nr integer PRIMARY KEY, held "
              + type
              + ", at timestamp DEFAULT CURRENT_TIMESTAMP NOT NULL,"
              + " twice integer GENERATED ALWAYS AS (nr * 2) STORED)");
      String asText =
          "typeof(held) || ' ' || CASE typeof(held) WHEN 'blob' THEN hex(held) ELSE held END";
      fillChangeAndPutBack(on, asText, a, b, stands);
    }
  }
}
