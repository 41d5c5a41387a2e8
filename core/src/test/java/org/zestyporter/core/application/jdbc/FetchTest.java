package org.zestyporter.core.application.jdbc;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.Records;
import org.zestyporter.core.application.TableInfo;

/** Records that are read by column hold the very values that are read one by one. */
class FetchTest {

  private static void fetchesWhatIsThere(Databases.Fresh on) {
    TableInfo table = on.database().table("odd");
    Map<List<Object>, Object[]> all = new HashMap<>();
    on.database()
        .look(Ask.all(table, table.fields()), Records.each(v -> all.put(List.of(v[0]), v)));
    assertThat(all).hasSizeGreaterThan(4);
    // a driver may send what is asked for again and again in another form
    for (int i = 0; i < 12; i++) {
      Records found = on.database().fetch(table, new ArrayList<>(all.keySet()));
      assertThat(found.count()).isEqualTo(all.size());
      all.forEach(
          (key, values) ->
              assertThat(Arrays.asList(found.values(key))).isEqualTo(Arrays.asList(values)));
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void plainValues(Databases.Fresh on) throws SQLException {
    try (on) {
      on.execute(
          "CREATE TABLE odd (id INTEGER PRIMARY KEY, words VARCHAR(40), padded CHAR(6),"
              + " amount NUMERIC(12,3), big NUMERIC(30,2), on_day DATE, yes BOOLEAN, ratio REAL,"
              + " moment TIMESTAMP, clock TIME, tiny SMALLINT)",
          "INSERT INTO odd VALUES (0, '', '', 0, 0, '1970-01-01', TRUE, 0, NULL, NULL, -32768)",
          "INSERT INTO odd VALUES (-1, 'ünï \uD83D\uDE00', 'ab', -0.005, -1234567890123456789012345678.5,"
              + " '0001-01-01', FALSE, 0.1, '2026-11-03 10:00:00.123456', '23:59:59', 0)",
          "INSERT INTO odd VALUES (2, ' a b  ', '  c ', 123456789.125, 9999999999999999.99,"
              + " '9999-12-31', NULL, -1.5, '1900-01-01 00:00:00', '00:00:00', 32767)",
          "INSERT INTO odd (id) VALUES (3)",
          "INSERT INTO odd (id, amount) VALUES (2147483647, 999999999.999)");
      fetchesWhatIsThere(on);
    }
  }

  @Test
  void whatOnlyPostgresKnows() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute(
          "CREATE TYPE mood AS ENUM ('calm', 'rough')",
          "CREATE DOMAIN short AS VARCHAR(8) CHECK (length(VALUE) > 1)",
          "CREATE TABLE odd (id BIGINT PRIMARY KEY, free NUMERIC, day DATE, mood mood, short short,"
              + " mark UUID, doc JSONB, raw BYTEA, at TIMESTAMPTZ, ratio FLOAT8, list INT[])",
          "INSERT INTO odd VALUES (1, 'NaN', 'infinity', 'calm', 'ab',"
              + " 'a0eebc99-9c0b-4ef8-bb6d-6bb9bd380a11', '{\"a\": 1}', '\\x00ff', now(), 'NaN', '{1}')",
          "INSERT INTO odd VALUES (2, 1.50, '0044-03-15 BC', 'rough', NULL, NULL, 'null', '', NULL,"
              + " 1e300, NULL)",
          "INSERT INTO odd VALUES (3, 1e40, '12026-01-01', NULL, 'xyz', NULL, '[]', NULL, NULL,"
              + " 'infinity', '{}')",
          "INSERT INTO odd VALUES (9223372036854775807, 0.000000000000000001)",
          "INSERT INTO odd VALUES (-9223372036854775808, 123456789012345678)");
      fetchesWhatIsThere(on);
    }
  }
}
