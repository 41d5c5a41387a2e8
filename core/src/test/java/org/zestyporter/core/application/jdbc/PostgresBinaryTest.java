package org.zestyporter.core.application.jdbc;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.application.NewRecords;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.application.WriteSession.Change;

/** What goes to PostgreSQL in bytes is what statements would have given it. */
class PostgresBinaryTest {
  private static final String PLAIN =
      "(id INTEGER PRIMARY KEY, small SMALLINT, large BIGINT, whole NUMERIC(18,0), money"
          + " NUMERIC(12,2), fine NUMERIC(18,7), tiny NUMERIC(18,18), open NUMERIC, words TEXT,"
          + " name VARCHAR(40), code CHAR(4), day DATE, moment TIMESTAMP, to_millis TIMESTAMP(3),"
          + " mark UUID, yes BOOLEAN, never TEXT)";

  /** Numbers from the smallest to the largest of so many digits, and some about every power. */
  private static BigDecimal number(int i, int digits, int scale) {
    BigDecimal power = BigDecimal.TEN.pow(i / 6 % (digits + 1));
    BigDecimal one =
        switch (i % 6) {
          case 0 -> power.subtract(BigDecimal.ONE);
          case 1 -> power.subtract(BigDecimal.ONE).negate();
          case 2 -> power.divideToIntegralValue(BigDecimal.valueOf(3));
          case 3 -> power.divideToIntegralValue(BigDecimal.TEN);
          case 4 -> power.divideToIntegralValue(BigDecimal.valueOf(-7));
          default -> BigDecimal.ZERO;
        };
    return new BigDecimal(one.unscaledValue(), scale);
  }

  private static Change plain(TableInfo table, int i) {
    boolean blank = i % 11 == 10;
    List<Object> values = new ArrayList<>();
    values.add(new BigDecimal(i));
    values.add(blank ? null : number(i, 4, 0));
    values.add(blank ? null : number(i, 18, 0));
    values.add(blank ? null : number(i, 18, 0));
    values.add(blank ? null : number(i, 12, 2));
    values.add(blank ? null : number(i, 18, 7));
    values.add(blank ? null : number(i, 18, 18));
    values.add(blank ? null : number(i, 18, 5));
    values.add(BulkInsertTest.TEXTS.get(i % BulkInsertTest.TEXTS.size()));
    values.add(blank ? null : "Zoë '" + i);
    values.add(blank ? null : i % 2 == 0 ? "ab" : "äöüß");
    values.add(blank ? null : LocalDate.of(1, 1, 1).plusDays(i * 18_250L));
    values.add(blank ? null : LocalDateTime.of(1, 1, 1, 0, 0, 0, 1_000).plusHours(i * 432_000L));
    values.add(blank ? null : LocalDateTime.of(1999, 12, 31, 23, 59, 59, 999_000_000).plusDays(i));
    values.add(blank ? null : "ff0c2f1e-0000-4000-8000-0000000000" + String.format("%02x", i));
    values.add(blank ? null : i % 2 == 0);
    values.add(null);
    return new Change(i, null, IntStream.range(0, values.size()).boxed().toList(), values);
  }

  /** Fields of plain types go in the binary format. */
  @Test
  void inBytesNothingBecomesSomethingElse() throws SQLException {
    try (Databases.Fresh on = Databases.postgres()) {
      on.execute("CREATE TABLE bytes " + PLAIN, "CREATE TABLE \"by ones\" " + PLAIN);
      TableInfo bytes = on.database().table("bytes");
      TableInfo ones = on.database().table("by ones");
      NewRecords records =
          NewRecords.of(
              bytes,
              IntStream.range(0, BulkInsertTest.MANY).mapToObj(i -> plain(bytes, i)).toList());
      assertThat(PostgresBinary.of(records.fields(), records.given(), records.rows())).isNotNull();
      List<List<Object>> keys;
      List<List<Object>> single = new ArrayList<>();
      try (WriteSession session = on.database().begin()) {
        keys = session.insert(records);
        for (int i = 0; i < BulkInsertTest.MANY; i++) {
          single.addAll(session.write(ones, List.of(plain(ones, i)), false));
        }
        session.commit();
      }
      assertThat(keys).isEqualTo(single);
      assertThat(BulkInsertTest.stand(on, bytes, keys))
          .isEqualTo(BulkInsertTest.stand(on, ones, single));
      assertThat(on.one("SELECT COUNT(*) FROM bytes a JOIN \"by ones\" b ON a::text = b::text"))
          .isEqualTo((long) BulkInsertTest.MANY);
    }
  }
}
