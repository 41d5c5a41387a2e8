package org.zestyporter.bench;

import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Locale;
import java.util.Random;

/** A file of made-up goods in which nearly every value is another one, and a table for it. */
final class Goods {
  static final String TABLE =
      "(id BIGINT PRIMARY KEY, code VARCHAR(20) NOT NULL UNIQUE, name VARCHAR(80) NOT NULL,"
          + " category VARCHAR(30), price NUMERIC(12,2), quantity INTEGER, weight NUMERIC(12,3),"
          + " made_on DATE, updated_on DATE, country CHAR(2), active BOOLEAN, remarks VARCHAR(200))";

  private static final String[] THINGS = {
    "anchor", "brass", "cable", "deck", "engine", "fender", "gauge", "hatch", "jib", "keel", "lamp",
    "mast", "oar", "pump", "rope", "sail", "tiller"
  };
  private static final String[] COUNTRIES = {"NL", "DE", "FR", "GB", "ES", "IT", "PT", "NO", "SE"};

  private Goods() {}

  /** Writes so many rows, in an order of their own, the same each time. */
  static void write(Path file, int rows) throws IOException {
    Random random = new Random(7);
    // a step that shares no factor with the number of rows visits each id once
    long step = 7_368_787L;
    while (rows % step == 0) {
      step += 2;
    }
    LocalDate first = LocalDate.of(2000, 1, 1);
    try (BufferedWriter out = Files.newBufferedWriter(file)) {
      out.write(
          "id,code,name,category,price,quantity,weight,made_on,updated_on,country,active,remarks\n");
      for (int row = 0; row < rows; row++) {
        long id = row * step % rows + 1;
        out.write(
            String.format(
                Locale.ROOT,
                "%d,%c%c-%07d,%s %s %d,%s,%d.%02d,%d,%d.%03d,%s,%s,%s,%s,lot %d %s - checked by hand %d%n",
                id,
                'A' + random.nextInt(26),
                'A' + random.nextInt(26),
                id,
                thing(random),
                thing(random),
                random.nextInt(1_000_000),
                thing(random),
                random.nextInt(10_000),
                random.nextInt(100),
                random.nextInt(100_000),
                random.nextInt(1_000),
                random.nextInt(1_000),
                first.plusDays(random.nextInt(9_000)),
                first.plusDays(random.nextInt(9_000)),
                COUNTRIES[random.nextInt(COUNTRIES.length)],
                random.nextBoolean(),
                random.nextInt(1_000_000_000),
                thing(random),
                random.nextInt(1_000_000)));
      }
    }
  }

  private static String thing(Random random) {
    return THINGS[random.nextInt(THINGS.length)];
  }
}
