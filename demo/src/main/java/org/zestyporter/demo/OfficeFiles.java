package org.zestyporter.demo;

import java.io.IOException;
import java.io.OutputStream;
import java.io.Writer;
import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.dhatim.fastexcel.VisibilityState;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/** The other files of the marina's office, each laid out in a way of its own. */
public final class OfficeFiles {
  /** Rows of {@code owners-export.csv}. */
  public static final int OWNERS = 340;

  /** Meters on each sheet of {@code meter-round-2026.xlsx}. */
  public static final int METERS = 80;

  /** Contracts in {@code contracts.tsv}. */
  public static final int CONTRACTS = 96;

  /** Vessels in {@code harbour-app.json}. */
  public static final int APP_VESSELS = 60;

  static final List<String> MONTHS =
      List.of("Jun 26", "Jul 26", "Aug 26", "Sep 26", "Oct 26", "Nov 26");
  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("dd.MM.yyyy", Locale.ROOT);
  private static final int PAGE = 40;

  private final Marina marina;
  private int readings;
  private int stays;

  public OfficeFiles(Marina marina) {
    this.marina = marina;
  }

  /** Writes all of them into a folder. */
  public void write(Path folder) throws IOException {
    owners(folder.resolve("owners-export.csv"));
    meters(folder.resolve("meter-round-2026.xlsx"));
    tariffs(folder.resolve("tariffs-spring.ods"));
    contracts(folder.resolve("contracts.tsv"));
    app(folder.resolve("harbour-app.json"));
    new WinterStorage(marina).write(folder.resolve("winterlager.xlsx"));
    marina.arrivals().writeOtherShape(folder.resolve("december-arrivals.csv"), 160);
  }

  /** Cells with a reading on the sheet Power, once {@link #meters} has been written. */
  public int readings() {
    return readings;
  }

  /** Stays of all vessels, once {@link #app} has been written. */
  public int stays() {
    return stays;
  }

  /** Semicolons, Windows-1252, decimal commas, dashes for nothing; an owner and two addresses. */
  public void owners(Path file) throws IOException {
    Random random = new Random(41);
    try (Writer out = Files.newBufferedWriter(file, Charset.forName("windows-1252"))) {
      out.write(
          "Owner no;Given name;Family name;E-mail;Phone;Credit limit;Balance;Postal street;Postal"
              + " town;Seasonal street;Seasonal town;Seasonal from;Member\r\n");
      for (int i = 0; i < OWNERS; i++) {
        Names.Owner owner = marina.owners().get(i * 2);
        boolean seasonal = random.nextInt(3) == 0;
        List<String> cells =
            List.of(
                String.format("%05d", 117 + i * 3),
                owner.given(),
                owner.family(),
                owner.email(),
                random.nextInt(12) == 0 ? "-" : "01632 " + (960_000 + random.nextInt(1_000)),
                random.nextInt(10) == 0 ? "n/a" : money(random.nextInt(40) * 250L * 100),
                balance(random.nextInt(300_000), random.nextInt(9) == 0),
                "\"" + (1 + random.nextInt(90)) + " Ropewalk, Flat " + (1 + i % 4) + "\"",
                "Quillhaven",
                seasonal ? (1 + random.nextInt(20)) + " Quay Küstenstraße" : "",
                seasonal ? "Århaven" : "",
                seasonal ? DAY.format(LocalDate.of(2026, 5, 1).plusDays(random.nextInt(40))) : "",
                random.nextInt(5) == 0 ? "no" : "yes");
        out.write(String.join(";", cells) + "\r\n");
      }
    }
  }

  private static String money(long cents) {
    return String.format(Locale.GERMANY, "%,.2f", cents / 100.0);
  }

  /** What is owed has its minus behind the number. */
  private static String balance(long cents, boolean owed) {
    return owed ? money(cents) + "-" : money(cents);
  }

  /**
   * A heading block, titles on line 5, units on line 6, a month a column; the sheets Power and
   * Water have one shape, Lists is hidden.
   */
  public void meters(Path file) throws IOException {
    readings = 0;
    try (OutputStream out = Files.newOutputStream(file);
        Workbook book = new Workbook(out, "Quillhaven Marina", "1.0")) {
      readings = round(book.newWorksheet("Power"), "M-%04d", "kWh", 7);
      round(book.newWorksheet("Water"), "W-%04d", "m³", 8);
      Worksheet lists = book.newWorksheet("Lists");
      lists.setVisibilityState(VisibilityState.HIDDEN);
      lists.value(0, 0, "kWh");
      lists.value(1, 0, "m³");
    }
  }

  private static int round(Worksheet sheet, String number, String unit, long seed) {
    Random random = new Random(seed);
    sheet.value(0, 0, "Quillhaven Marina, meter round");
    sheet.value(1, 0, "Read by");
    sheet.value(1, 1, "O. Brask");
    sheet.value(1, 4, "Printed");
    sheet.value(1, 5, LocalDate.of(2026, 11, 20));
    sheet.style(1, 5).format("dd.mm.yyyy").set();
    sheet.value(2, 0, "Season");
    sheet.value(2, 1, "Summer 2026");
    sheet.value(4, 0, "Pontoon");
    sheet.value(4, 1, "Meter");
    sheet.value(4, 2, "Berth");
    for (int m = 0; m < MONTHS.size(); m++) {
      sheet.value(4, 3 + m, MONTHS.get(m));
      sheet.value(5, 3 + m, unit);
    }
    int filled = 0;
    String pontoon = "";
    for (int i = 0; i < METERS; i++) {
      int line = 6 + i;
      String letter = String.valueOf((char) ('A' + i * 6 / METERS));
      if (!letter.equals(pontoon)) {
        sheet.value(line, 0, "Pontoon " + letter);
        pontoon = letter;
      }
      sheet.value(line, 1, String.format(number, 100 + i));
      sheet.value(line, 2, String.format("%s-%02d", letter, 1 + i % 13));
      for (int m = 0; m < MONTHS.size(); m++) {
        int kind = random.nextInt(25);
        if (kind == 0) {
          sheet.value(line, 3 + m, "-");
        } else if (kind != 1) {
          sheet.value(line, 3 + m, 60 + random.nextInt(1_200));
          filled++;
        }
      }
    }
    sheet.value(6 + METERS, 0, "Total");
    sheet.value(6 + METERS, 1, METERS);
    return filled;
  }

  /**
   * OpenDocument: titles of two lines, seasons above prices; grouped cells; money; a hidden sheet.
   */
  public void tariffs(Path file) throws IOException {
    try (OpenDocument sheet = new OpenDocument(file)) {
      sheet.table("Spring 2027", false);
      sheet.row("Berth tariffs, spring 2027");
      sheet.row();
      sheet.row("", "", "", "2025", "", "2026", "", "2027");
      sheet.row("Kind", "Code", "Longest (m)", "low", "high", "low", "high", "low", "high");
      Random random = new Random(19);
      int code = 1;
      for (String kind : List.of("Pontoon", "Swinging mooring", "Dry berth", "Visitor")) {
        for (int metres = 6; metres <= 24; metres += 3) {
          List<Object> cells = new ArrayList<>();
          cells.add(metres == 6 ? kind : "");
          cells.add(new OpenDocument.Padded(code++ * 7, 4));
          cells.add(metres);
          BigDecimal price = BigDecimal.valueOf(60 + metres * 9L + random.nextInt(20));
          for (int year = 0; year < 3; year++) {
            cells.add(new OpenDocument.Money(price.add(BigDecimal.valueOf(year * 4L))));
            cells.add(new OpenDocument.Money(price.add(BigDecimal.valueOf(year * 4L + 35))));
          }
          sheet.row(cells.toArray());
        }
      }
      sheet.table("Working", true);
      sheet.row("not for printing");
    }
  }

  /** Tabs, ISO dates, the titles again on every page and a total below each. */
  public void contracts(Path file) throws IOException {
    Random random = new Random(23);
    String titles = "Contract\tVessel\tBerth\tTariff\tStarts on\tEnds on\tAmount\n";
    try (Writer out = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
      BigDecimal sum = BigDecimal.ZERO;
      for (int i = 0; i < CONTRACTS; i++) {
        if (i % PAGE == 0) {
          out.write(titles);
        }
        BigDecimal amount = BigDecimal.valueOf(90_000L + random.nextInt(400_000), 2);
        sum = sum.add(amount);
        LocalDate starts = LocalDate.of(2026, 4, 1).plusDays(random.nextInt(200));
        out.write(
            String.join(
                    "\t",
                    String.format("BC-%05d", 3_000 + i),
                    marina.vessels().get(i * 5).registration(),
                    marina.berths().get(i % marina.berths().size()),
                    List.of("SUMMER", "WINTER", "YEAR").get(i % 3),
                    starts.toString(),
                    random.nextInt(6) == 0 ? "" : starts.plusMonths(6).toString(),
                    amount.toPlainString())
                + "\n");
        if (i % PAGE == PAGE - 1 || i == CONTRACTS - 1) {
          out.write("Subtotal\t\t\t\t\t\t" + sum.toPlainString() + "\n");
          sum = BigDecimal.ZERO;
        }
      }
    }
  }

  /** Vessels with nested owners, and a list of stays in each. */
  public void app(Path file) throws IOException {
    Random random = new Random(29);
    stays = 0;
    try (Writer out = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
      out.write("{\n  \"exported\": \"2026-11-20T09:30:00\",\n");
      out.write("  \"harbour\": {\"name\": \"Quillhaven\", \"berths\": 113},\n  \"vessels\": [\n");
      for (int i = 0; i < APP_VESSELS; i++) {
        Vessel v = marina.vessels().get(i * 11);
        out.write(
            String.format(
                Locale.ROOT,
                "    {\"registration\": \"%s\", \"name\": \"%s\", \"kind\": \"%s\", \"size\":"
                    + " {\"length\": %s, \"beam\": %s}, \"owner\": {\"email\": \"%s\", \"insured\":"
                    + " %s}, \"tags\": [\"%s\"], \"stays\": [",
                v.registration(),
                v.name().replace("\"", "\\\""),
                v.kind(),
                Vessel.metres(v.feet()),
                Vessel.metres(v.beamFeet()),
                v.owner(),
                v.insuredUntil() != null,
                i % 2 == 0 ? "winter" : "summer"));
        int count = random.nextInt(4);
        for (int s = 0; s < count; s++) {
          stays++;
          LocalDate from = LocalDate.of(2026, 5, 1).plusDays(random.nextInt(90));
          out.write(
              String.format(
                  "%s{\"berth\": \"%s\", \"from\": \"%s\", \"nights\": %d}",
                  s == 0 ? "" : ", ",
                  marina.berths().get(random.nextInt(marina.berths().size())),
                  from,
                  1 + random.nextInt(12)));
        }
        out.write(i == APP_VESSELS - 1 ? "]}\n" : "]},\n");
      }
      out.write("  ]\n}\n");
    }
  }
}
