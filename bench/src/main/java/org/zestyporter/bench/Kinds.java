package org.zestyporter.bench;

import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.function.Function;

/**
 * Files of two columns: a number, and values of one kind as people write them, hardly repeating.
 */
final class Kinds {
  private static final DateTimeFormatter HALF_DAYS =
      DateTimeFormatter.ofPattern("M/d/uuuu h:mm:ss a", Locale.US);
  private static final Map<String, Function<Random, String>> ALL = new LinkedHashMap<>();

  static {
    ALL.put("moments, 2026-11-03 14:30:15", r -> moment(r).toString().replace('T', ' '));
    ALL.put("moments, 11/3/2026 2:30:15 PM", r -> HALF_DAYS.format(moment(r)));
    ALL.put("amounts, $1,234.56", r -> String.format(Locale.US, "$%,.2f", amount(r)));
    ALL.put("amounts, 1.234,56 €", r -> String.format(Locale.GERMANY, "%,.2f €", amount(r)));
    ALL.put("measures, 12,345 m", r -> String.format(Locale.GERMANY, "%.3f m", amount(r)));
    ALL.put("codes, 7f3a…", r -> String.format("%016x%016x", r.nextLong(), r.nextLong()));
    ALL.put(
        "phones, +44 20 7946 0018",
        r -> String.format("+44 20 %04d %04d", r.nextInt(10_000), r.nextInt(10_000)));
  }

  private Kinds() {}

  private static LocalDateTime moment(Random random) {
    // a second of zero is left out by its text
    return LocalDateTime.of(1990, 1, 1, 0, 0, 1).plusMinutes(random.nextInt(18_000_000));
  }

  private static double amount(Random random) {
    return random.nextInt(99_999_999) / 100.0;
  }

  /** What they are called. */
  static Iterable<String> names() {
    return ALL.keySet();
  }

  /** Writes so many rows of a kind. */
  static void write(Path file, String kind, int rows) throws IOException {
    Random random = new Random(3);
    try (BufferedWriter out = Files.newBufferedWriter(file)) {
      out.write("id;value\n");
      for (int row = 0; row < rows; row++) {
        out.write(row + ";\"" + ALL.get(kind).apply(random) + "\"\n");
      }
    }
  }
}
