package org.zestyporter.demo;

import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/**
 * The file {@code winterlager.xlsx}: vessels that the harbour across the sound keeps over winter,
 * in German, laid out to be printed: headings, a line that groups the titles, a section and a sum
 * for each pier, the titles again on the second page, a note, and a list of prices below.
 */
public final class WinterStorage {
  /** Vessels in the file. */
  public static final int VESSELS = 54;

  /** Vessels of these that the office does not know yet. */
  public static final int ADDED = 9;

  /** The line of the titles of the list of prices. */
  public static final int PRICES_LINE = 77;

  private static final List<String> TITLES =
      List.of(
          "Kennz.", "Bootsname", "Typ", "Lüa", "Breite", "E-Mail", "Tel.", "Ankunft", "Liegeplatz");
  private static final int PAGE = 32;
  private static final DateTimeFormatter SHORT = DateTimeFormatter.ofPattern("d.M.yyyy");
  private static final DateTimeFormatter LONG =
      DateTimeFormatter.ofPattern("d. MMMM yyyy", Locale.GERMANY);

  private final Marina marina;
  private Worksheet sheet;
  private int line;

  WinterStorage(Marina marina) {
    this.marina = marina;
  }

  /** Writes the workbook. */
  public void write(Path file) throws IOException {
    try (OutputStream out = Files.newOutputStream(file);
        Workbook book = new Workbook(out, "Quillhaven Marina", "1.0")) {
      sheet = book.newWorksheet("Boote");
      heading();
      int count = 0;
      for (char pier = 'A'; pier <= 'F'; pier++) {
        BigDecimal sum = BigDecimal.ZERO;
        section("Steg " + pier);
        for (Vessel vessel : at(pier)) {
          if (count == PAGE) {
            sheet.value(line++, 0, "Seite 2 von 2");
            titles();
          }
          put(vessel, count++);
          sum = sum.add(Vessel.metres(vessel.feet()));
        }
        sheet.value(line, 0, "Summe Steg " + pier);
        sheet.value(line++, 3, length(sum));
      }
      line++;
      sheet.value(line++, 0, "Angaben der Eigner, ohne Gewähr");
      line++;
      prices();
    }
  }

  private void heading() {
    sheet.value(0, 0, "Winterlager 2026/27");
    sheet.range(0, 0, 0, 8).merge();
    sheet.value(1, 0, "Stand:");
    sheet.value(1, 1, "12.11.2026");
    sheet.value(1, 4, "Bearbeiter:");
    sheet.value(1, 5, "K. Ferrell");
    line = 3;
    group(0, 2, "Boot");
    group(3, 4, "Maße");
    group(5, 6, "Eigner");
    group(7, 8, "Lager");
    line++;
    titles();
  }

  private void group(int from, int to, String word) {
    sheet.value(line, from, word);
    sheet.style(line, from).bold().set();
    sheet.range(line, from, line, to).merge();
  }

  private void titles() {
    for (int c = 0; c < TITLES.size(); c++) {
      sheet.value(line, c, TITLES.get(c));
      sheet.style(line, c).bold().set();
    }
    line++;
  }

  private void section(String word) {
    sheet.value(line, 0, word);
    sheet.range(line, 0, line, 8).merge();
    line++;
  }

  /** Nine vessels of each pier, the last but one or two of them new to the office. */
  private List<Vessel> at(char pier) {
    List<Vessel> all = new ArrayList<>();
    for (Vessel vessel : marina.vessels()) {
      boolean here = vessel.berth() != null && vessel.berth().charAt(0) == pier;
      if (here && all.size() < VESSELS / 6) {
        int fresh = pier <= 'C' ? 2 : 1;
        boolean added = all.size() >= VESSELS / 6 - fresh;
        all.add(added ? renumbered(vessel, pier, all.size()) : vessel);
      }
    }
    return all;
  }

  private static Vessel renumbered(Vessel v, char pier, int n) {
    return new Vessel(
        String.format("OH-%04d", (pier - 'A') * 100 + n),
        v.name(),
        v.kind(),
        v.feet(),
        v.beamFeet(),
        v.owner(),
        v.berth(),
        v.arrivedOn(),
        v.insuredUntil(),
        v.notes());
  }

  private void put(Vessel vessel, int count) {
    LocalDate arrives = LocalDate.of(2026, 11, 30).plusDays(count % 19);
    sheet.value(line, 0, vessel.registration());
    sheet.value(line, 1, vessel.name());
    sheet.value(line, 2, count % 5 == 0 ? vessel.kind().toUpperCase(Locale.ROOT) : vessel.kind());
    sheet.value(line, 3, length(Vessel.metres(vessel.feet())));
    sheet.value(line, 4, Vessel.metres(vessel.beamFeet()).toString().replace('.', ','));
    sheet.value(line, 5, vessel.owner());
    sheet.value(line, 6, count % 4 == 0 ? "k. A." : "0151 23450" + (100 + count));
    switch (count % 3) {
      case 0 -> {
        sheet.value(line, 7, arrives);
        sheet.style(line, 7).format("dd.mm.yyyy").set();
      }
      case 1 -> sheet.value(line, 7, SHORT.format(arrives));
      default -> sheet.value(line, 7, LONG.format(arrives));
    }
    sheet.value(line++, 8, vessel.berth());
  }

  private static String length(BigDecimal metres) {
    return metres.toString().replace('.', ',') + " m";
  }

  private void prices() {
    List<List<String>> rows =
        List.of(
            List.of("Leistung", "je", "Seit", "Preis"),
            List.of("Kranen", "Hub", "2025", "€ 140,00"),
            List.of("Halle", "m²", "2026", "€ 38,50"),
            List.of("Strom", "kWh", "2026", "€ 0,41"));
    for (List<String> row : rows) {
      for (int c = 0; c < row.size(); c++) {
        sheet.value(line, c, row.get(c));
      }
      line++;
    }
  }
}
