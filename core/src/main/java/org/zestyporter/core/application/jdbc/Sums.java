package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.KeyIndex;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;

/** Counts records and adds up their numbers, all at once where they stand together. */
final class Sums {
  private final Answers answers;
  private final Dialect dialect;
  private final Going going;
  private final TableInfo table;
  private final List<FieldInfo> numbers;

  Sums(Answers answers, Dialect dialect, Going going, TableInfo table, List<FieldInfo> numbers) {
    this.answers = answers;
    this.dialect = dialect;
    this.going = going;
    this.table = table;
    this.numbers = numbers;
  }

  /** Those of the records of a set of primary keys. */
  WriteSession.Totals of(Connection connection, Collection<List<Object>> keys) throws SQLException {
    String wanted =
        "COUNT(*)"
            + numbers.stream()
                .map(f -> ", " + dialect.sum(dialect.quote(f.name())))
                .collect(Collectors.joining());
    List<List<Object>> all = new ArrayList<>(keys);
    String together = all.isEmpty() ? null : together(connection, all);
    if (together != null) {
      Found found = new Found();
      String sql = "SELECT " + wanted + " FROM " + dialect.name(table) + " WHERE " + together;
      going.use(connection, sql, found::add);
      if (found.records == all.size()) {
        return found.totals();
      }
    }
    Found found = new Found();
    answers.inSets(connection, table, wanted, all, found::add);
    return found.totals();
  }

  /** A condition for just these records that spares to look for each of them; null if none does. */
  private @Nullable String together(Connection connection, List<List<Object>> keys)
      throws SQLException {
    String range = range(keys);
    return range == null ? dialect.together(connection, table, keys) : range;
  }

  /**
   * The condition that a key lies between two numbers, where each number from one to the other is
   * one of some keys; null if not.
   */
  private @Nullable String range(List<List<Object>> keys) {
    FieldInfo key = table.field(table.primaryKey().get(0));
    if (key.type() != FieldType.WHOLE || !keys.stream().allMatch(KeyIndex::isWhole)) {
      return null;
    }
    long[] whole = keys.stream().mapToLong(k -> ((BigDecimal) k.get(0)).longValue()).toArray();
    Arrays.sort(whole);
    for (int i = 1; i < whole.length; i++) {
      if (whole[i] != whole[i - 1] + 1) {
        return null;
      }
    }
    String from = dialect.quote(key.name()) + " BETWEEN " + whole[0];
    return from + " AND " + whole[whole.length - 1];
  }

  /** What was found so far. */
  private final class Found {
    private final BigDecimal[] sums = new BigDecimal[numbers.size()];
    private long records;

    Found() {
      Arrays.fill(sums, BigDecimal.ZERO);
    }

    boolean add(PreparedStatement query) throws SQLException {
      try (ResultSet found = query.executeQuery()) {
        found.next();
        records += found.getLong(1);
        for (int f = 0; f < sums.length; f++) {
          BigDecimal sum = found.getBigDecimal(f + 2);
          sums[f] = sum == null ? sums[f] : sums[f].add(dialect.sum(sum, numbers.get(f)));
        }
      }
      return true;
    }

    WriteSession.Totals totals() {
      return new WriteSession.Totals(records, List.of(sums));
    }
  }
}
