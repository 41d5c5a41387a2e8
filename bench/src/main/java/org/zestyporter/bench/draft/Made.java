package org.zestyporter.bench.draft;

import static org.zestyporter.bench.draft.Schema.one;
import static org.zestyporter.bench.draft.Schema.quoted;

import java.time.LocalDate;
import java.util.Locale;
import org.zestyporter.bench.draft.Schema.Value;

/** Made-up values. */
final class Made {
  static final String[] FIRST = {
    "Hana", "Odile", "Kofi", "Mirza", "Tuva", "Ansel", "Bibi", "Ciro", "Dagny", "Ezio", "Fenna",
    "Goran", "Heike", "Ilan", "Jorun", "Kaja", "Lorin", "Mads", "Nuria", "Oskar"
  };
  static final String[] LAST = {
    "Voss",
    "Okoro",
    "Lind",
    "Marchetti",
    "Duarte",
    "Keller",
    "Brandt",
    "Sorel",
    "Tamm",
    "Urban",
    "Vidal",
    "Weiss",
    "Yilmaz",
    "Zeman",
    "Achterberg",
    "Bonnet",
    "Castell",
    "Dekker"
  };
  static final String[] STREETS = {"Mill Lane", "Hill Road", "Oak Street", "Quay"};
  static final String[] TOWNS = {"Oxbow", "Fernley", "Harrow End", "Saltby", "Mossley"};

  private Made() {}

  static String person(int n) {
    return FIRST[n % FIRST.length] + " " + LAST[n * 7 % LAST.length];
  }

  static String email(int n) {
    return person(n).toLowerCase(Locale.ROOT).replace(' ', '.') + n + "@post.example";
  }

  static Value date(int year, int days) {
    return (random, row) -> LocalDate.of(year, 1, 1).plusDays(random.nextInt(days)).toString();
  }

  static Value number(int least, int most) {
    return (random, row) -> String.valueOf(least + random.nextInt(most - least));
  }

  static Value decimal(int least, int most, int places) {
    return (random, row) ->
        String.format(
            Locale.ROOT, "%." + places + "f", least + random.nextDouble() * (most - least));
  }

  static Value of(String... words) {
    return (random, row) -> one(random, words);
  }

  static Value sometimes(Value value) {
    return (random, row) -> random.nextInt(3) == 0 ? "" : value.of(random, row);
  }

  static Value link(String table, String by, Value value) {
    return (random, row) ->
        String.format(
            "COALESCE((SELECT MAX(id) FROM %1$s WHERE %2$s = %3$s), (SELECT MIN(id) FROM %1$s))",
            table, by, quoted(value.of(random, row)));
  }
}
