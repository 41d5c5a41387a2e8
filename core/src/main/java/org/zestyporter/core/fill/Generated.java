package org.zestyporter.core.fill;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.List;
import java.util.UUID;
import java.util.function.Consumer;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Values;

/** Values that no column holds: numbers, identifiers, and the facts of the run. */
final class Generated {
  private Generated() {}

  /**
   * The function behind a generated origin.
   *
   * @param ask takes what has to be known of the application
   */
  static Function<Row, Object> of(
      Origin.Generated origin, FieldInfo field, @Nullable TableInfo table, Consumer<Inquiry> ask) {
    return switch (origin.generator()) {
      case WHO -> Row::who;
      case RUN_TIME -> Row::now;
      case FILE_NAME -> Row::fileName;
      case RUN -> row -> row.run().number();
      case LINE -> row -> BigDecimal.valueOf(row.line());
      case ROW -> row -> BigDecimal.valueOf(row.index() + 1);
      case UUID -> row -> uuid(row, field.name());
      case SERIES -> series(origin.series(), field, table, ask);
    };
  }

  /** True if the value is another one in each row. */
  static boolean perRow(Origin.Generator generator) {
    return switch (generator) {
      case LINE, ROW, UUID, SERIES -> true;
      default -> false;
    };
  }

  private static Function<Row, Object> series(
      Origin.Series wanted, FieldInfo field, @Nullable TableInfo table, Consumer<Inquiry> ask) {
    Origin.Series series = wanted == null ? new Origin.Series(1L, 1L, null, null) : wanted;
    String prefix = series.prefix() == null ? "" : series.prefix();
    int width = series.width() == null ? 0 : Math.min(30, series.width());
    long step = series.stepOrOne();
    if (step == 0) {
      throw ErrorCode.SERIES.error(
          "A series of numbers needs a step other than 0, for " + field.name() + ".");
    }
    long[] start = {series.start() != null ? series.start() : table == null ? 1 : step};
    if (series.start() == null && table != null) {
      ask.accept(highest(prefix, field, table, step, start));
    }
    boolean plain = prefix.isEmpty() && width == 0;
    return row -> {
      BigDecimal number =
          BigDecimal.valueOf(start[0])
              .add(BigDecimal.valueOf(step).multiply(BigDecimal.valueOf(row.index())));
      return plain ? number : prefix + padded(number.toPlainString(), width);
    };
  }

  private static String padded(String digits, int width) {
    return "0".repeat(Math.max(0, width - digits.length())) + digits;
  }

  /** Finds the number to start with: the step after the highest behind the prefix. */
  private static Inquiry highest(
      String prefix, FieldInfo field, TableInfo table, long step, long[] start) {
    long[] highest = {0};
    return Inquiry.byRecord(
        Ask.all(table, List.of(field)),
        found -> {
          String text =
              found[0] instanceof BigDecimal n ? Values.plain(n) : String.valueOf(found[0]);
          String digits = text.startsWith(prefix) ? text.substring(prefix.length()) : "";
          if (!digits.isEmpty()
              && digits.length() < 18
              && digits.chars().allMatch(c -> c >= '0' && c <= '9')) {
            highest[0] = Math.max(highest[0], Long.parseLong(digits));
          }
        },
        () -> start[0] = highest[0] + step);
  }

  /** Of the run, the field and the line, so that computing a row twice gives the same. */
  private static String uuid(Row row, String field) {
    String seed =
        String.join(
            "\n",
            row.run().number(),
            row.now().toString(),
            row.who(),
            row.fileName(),
            field,
            String.valueOf(row.index()));
    try {
      byte[] hash =
          MessageDigest.getInstance("SHA-256").digest(seed.getBytes(StandardCharsets.UTF_8));
      hash[6] = (byte) (hash[6] & 0x0f | 0x40);
      hash[8] = (byte) (hash[8] & 0x3f | 0x80);
      long high = 0;
      long low = 0;
      for (int i = 0; i < 8; i++) {
        high = high << 8 | hash[i] & 0xff;
        low = low << 8 | hash[8 + i] & 0xff;
      }
      return new UUID(high, low).toString();
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
