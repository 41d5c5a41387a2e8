package org.zestyporter.core.application.jdbc;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;

/** Rules are told as the databases themselves tell them, or left to them. */
class SqlRuleTest {
  private static final List<FieldInfo> FIELDS =
      List.of(
          FieldInfo.of("n", FieldType.WHOLE),
          FieldInfo.of("m", FieldType.DECIMAL),
          FieldInfo.of("name", FieldType.TEXT),
          FieldInfo.of("on_day", FieldType.DATE),
          FieldInfo.of("other_day", FieldType.DATE));

  /** Each holds on some of the records below and not on others. */
  private static final List<String> CHECKS =
      List.of(
          "n > 3",
          "3 < n",
          "n <> 4",
          "n IN (3, 4, 5)",
          "n NOT IN (3, 4)",
          "n BETWEEN -90 AND 4",
          "NOT (n BETWEEN 4 AND 90)",
          "MOD(n, 7) <> 3",
          "n + m = 10",
          "n * 2 - 1 < 9",
          "n < m",
          "ABS(n) = 4",
          "n > 3 OR name = 'Wren'",
          "n > 3 AND (name = 'Wren' OR m IS NULL)",
          "m IS NOT NULL",
          "NOT (m IS NULL)",
          "name <> ''",
          "name IN ('Wren', 'it''s')",
          "CHAR_LENGTH(name) >= 4",
          "name LIKE 'W%'",
          "name LIKE '_ren'",
          "name NOT LIKE '%n'",
          "LOWER(name) = 'wren'",
          "COALESCE(name, 'x') = 'x'",
          "on_day >= DATE '2024-03-05'",
          "other_day >= on_day",
          "on_day <> other_day",
          "m > 2.50");

  private static final List<Object[]> RECORDS = records();

  private static List<Object[]> records() {
    List<Object[]> all = new ArrayList<>();
    Object[] numbers = {null, 3, 4, 6, -4, 10, 100};
    Object[] decimals = {null, "2.5", "6", "7.25", "0"};
    String[] names = {null, "Wren", "it's", "wren", "", "Łódź ⚓", "Auk"};
    String[] days = {null, "2024-03-05", "2024-03-04", "2025-01-01"};
    for (int i = 0; i < 60; i++) {
      Object n = numbers[i % numbers.length];
      Object m = decimals[i % decimals.length];
      all.add(
          new Object[] {
            n == null ? null : new BigDecimal(n.toString()),
            m == null ? null : new BigDecimal(m.toString()),
            names[i * 3 % names.length],
            day(days[i % days.length]),
            day(days[(i / 3) % days.length])
          });
    }
    return all;
  }

  private static LocalDate day(String text) {
    return text == null ? null : LocalDate.parse(text);
  }

  static Stream<Databases.Fresh> databases() throws SQLException {
    return Databases.all();
  }

  /** A table a check: what it takes and refuses is what the rule said. */
  @ParameterizedTest
  @MethodSource("databases")
  void theDatabaseSaysTheSame(Databases.Fresh on) throws SQLException {
    try (on) {
      int told = 0;
      for (int c = 0; c < CHECKS.size(); c++) {
        String check = CHECKS.get(c);
        boolean sqlite = on.name().equals("SQLite");
        if (sqlite && check.contains("CHAR_LENGTH")) {
          check = check.replace("CHAR_LENGTH", "LENGTH");
        }
        on.execute(
            "CREATE TABLE t"
                + c
                + " (id integer PRIMARY KEY, n integer, m numeric(9,2), name varchar(20), on_day date,"
                + " other_day date, CHECK ("
                + check
                + "))");
        TableInfo table = on.database().table("t" + c);
        // bounds and lists are said with the fields themselves
        boolean byField =
            table.fields().stream().anyMatch(f -> f.choices() != null || f.least() != null);
        if (table.rules().isEmpty()) {
          assertThat(byField || !table.ownRules().isEmpty()).as(check).isTrue();
          continue;
        }
        told++;
        agree(on, table, check);
      }
      assertThat(told).isGreaterThan(CHECKS.size() - 6);
    }
  }

  private static void agree(Databases.Fresh on, TableInfo table, String check) {
    int refused = 0;
    try (WriteSession session = on.database().begin()) {
      for (int i = 0; i < RECORDS.size(); i++) {
        Object[] record = RECORDS.get(i);
        Object[] values = new Object[table.fields().size()];
        System.arraycopy(record, 0, values, 1, record.length);
        boolean holds = table.rules().get(0).holds(values);
        List<Object> given = new ArrayList<>(Arrays.asList(values));
        given.set(0, BigDecimal.valueOf(i));
        boolean taken = isTaken(session, table, given);
        refused += taken ? 0 : 1;
        assertThat(holds)
            .as(on + ", " + table.rules().get(0).text() + ": " + Arrays.toString(record))
            .isEqualTo(taken);
      }
    }
    assertThat(refused).as(check).isBetween(1, RECORDS.size() - 1);
  }

  private static boolean isTaken(WriteSession session, TableInfo table, List<Object> values) {
    WriteSession.Place before = session.place();
    try {
      WriteSession.Change change =
          new WriteSession.Change(2, null, List.of(0, 1, 2, 3, 4, 5), values);
      session.write(table, List.of(change), false);
      return true;
    } catch (WriteSession.RefusedException e) {
      return false;
    } finally {
      before.goBack();
    }
  }

  /** What no grammar knows, or what takes a parser long, keeps nobody from a table. */
  @Test
  @Timeout(20)
  void oddTextsDoNoHarm() {
    String[] odd = {
      "n \u00a7 1 > 2",
      "name <> 'open",
      "((((((((((((n",
      "((name GLOB @x) AND ((n ??? 1)))",
      "NOT ".repeat(900) + "n > 1",
      "\u0000",
      "name LIKE '" + "[a-z]{9}%".repeat(300) + "'",
      "n = 1" + " OR n = 2".repeat(1_000)
    };
    for (String check : odd) {
      assertThat(SqlRule.parse(check, FIELDS, new SqlRule.Ways(false, false)))
          .as(check.substring(0, Math.min(30, check.length())))
          .isNull();
      assertThat(CheckRule.parse(check)).isNull();
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "n / 2 > 1",
        "name > 'b'",
        "on_day > CURRENT_DATE",
        "unknown_field > 1",
        "f(n) > 1",
        "(SELECT 1) = 1",
        "name LIKE '\\%%'",
        "name GLOB 'Q*'",
        "CASE WHEN n > 1 THEN m > 1 ELSE m > 2 END",
        "n > 1) OR (1 = 1",
        "name REGEXP '(?i)x'",
        ""
      })
  void whatDatabasesTellInDifferentWaysIsLeftToThem(String check) {
    SqlRule rule = SqlRule.parse(check, FIELDS, new SqlRule.Ways(false, false));
    if (rule != null) {
      // the order of texts is a matter of collation: nothing is ever broken by it
      assertThat(check).isEqualTo("name > 'b'");
      assertThat(rule.holds(new Object[] {null, null, "a", null, null})).isTrue();
    }
  }
}
