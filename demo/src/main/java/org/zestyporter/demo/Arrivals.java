package org.zestyporter.demo;

import java.io.IOException;
import java.io.OutputStream;
import java.io.Writer;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.dhatim.fastexcel.VisibilityState;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/**
 * The file {@code winter-arrivals}: vessels that come for the winter, in feet, as an office types
 * them, with dirt whose amount is known.
 */
public final class Arrivals {
  /** Titles of the columns. */
  static final List<String> TITLES =
      List.of(
          "Reg No",
          "Boat name",
          "Kind",
          "LOA (ft)",
          "Beam (ft)",
          "Owner e-mail",
          "Berth",
          "Arrives",
          "Insured until",
          "Notes");

  static final int ROWS = 1_204;
  static final int CHANGED = 388;
  static final int UNCHANGED = 223;
  static final int REPEATS = 12;
  private static final int FIRST_LINE = 6;
  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("dd.MM.yyyy", Locale.ROOT);

  /** A kind of dirt that keeps a row from being written, and how many rows have it. */
  private enum Dirt {
    UNKNOWN_KIND(37),
    UNKNOWN_OWNER(9),
    VAGUE_DATE(8),
    UNKNOWN_BERTH(6),
    IMPOSSIBLE_DATE(3),
    FEET_AND_INCHES(2),
    NO_LENGTH(2),
    NO_REGISTRATION(2),
    TOO_LONG(1);

    private final int rows;

    Dirt(int rows) {
      this.rows = rows;
    }
  }

  /**
   * What the generator put into the file.
   *
   * @param rows records in the file
   * @param added vessels that the office does not know
   * @param changed known vessels of which something differs
   * @param unchanged known vessels of which nothing differs
   * @param repeated rows that a later row repeats
   * @param rejected rows with dirt that keeps them from being written
   * @param lengths sum of the lengths that can be written, in metres
   * @param beams sum of the widths that can be written, in metres
   */
  public record Facts(
      int rows,
      int added,
      int changed,
      int unchanged,
      int repeated,
      int rejected,
      int unknownKinds,
      int unknownOwners,
      int unknownBerths,
      int badDates,
      int badLengths,
      int noRegistration,
      int looseRegistrations,
      int spacedLengths,
      BigDecimal lengths,
      BigDecimal beams) {}

  /** A row as it is typed. */
  private record Row(List<Object> cells) {}

  private final List<Row> rows = new ArrayList<>();
  private final List<Vessel> known;
  private final Facts facts;

  Arrivals(Marina marina, Names names, Random random) {
    List<Vessel> written = new ArrayList<>();
    for (int i = 0; i < UNCHANGED; i++) {
      written.add(marina.vessels().get(i));
    }
    for (int i = 0; i < CHANGED; i++) {
      written.add(changed(marina.vessels().get(UNCHANGED + i), marina, names, random));
    }
    int rejected = 0;
    for (Dirt dirt : Dirt.values()) {
      rejected += dirt.rows;
    }
    int added = ROWS - UNCHANGED - CHANGED - REPEATS - rejected;
    int next = Marina.VESSELS;
    for (int i = 0; i < added; i++) {
      written.add(marina.newVessel(next++, names, random, november(random)));
    }
    BigDecimal lengths = sum(written.stream().map(v -> Vessel.metres(v.feet())).toList());
    BigDecimal beams = sum(written.stream().map(v -> Vessel.metres(v.beamFeet())).toList());

    int loose = 0;
    int spaced = 0;
    List<Row> good = new ArrayList<>();
    for (Vessel vessel : written) {
      boolean looseRegistration = random.nextInt(40) == 0;
      boolean spacedLength = random.nextInt(20) == 0;
      loose += looseRegistration ? 1 : 0;
      spaced += spacedLength ? 1 : 0;
      good.add(row(vessel, looseRegistration, spacedLength, random));
    }
    rows.addAll(good);
    for (Dirt dirt : Dirt.values()) {
      for (int i = 0; i < dirt.rows; i++) {
        boolean known = random.nextBoolean() && dirt != Dirt.NO_REGISTRATION;
        Vessel vessel =
            known
                ? changed(
                    marina.vessels().get(UNCHANGED + CHANGED + random.nextInt(900)),
                    marina,
                    names,
                    random)
                : marina.newVessel(next++, names, random, november(random));
        rows.add(dirty(row(vessel, false, false, random), dirt, i));
      }
    }
    Collections.shuffle(rows, random);
    addRepeats(good, random);
    this.known = written;
    this.facts =
        new Facts(
            rows.size(),
            added,
            CHANGED,
            UNCHANGED,
            REPEATS,
            rejected,
            Dirt.UNKNOWN_KIND.rows,
            Dirt.UNKNOWN_OWNER.rows,
            Dirt.UNKNOWN_BERTH.rows,
            Dirt.VAGUE_DATE.rows + Dirt.IMPOSSIBLE_DATE.rows,
            Dirt.FEET_AND_INCHES.rows + Dirt.NO_LENGTH.rows + Dirt.TOO_LONG.rows,
            Dirt.NO_REGISTRATION.rows,
            loose,
            spaced,
            lengths,
            beams);
  }

  private static BigDecimal sum(List<BigDecimal> numbers) {
    return numbers.stream().reduce(BigDecimal.ZERO, BigDecimal::add);
  }

  private static LocalDate november(Random random) {
    return LocalDate.of(2026, 11, 1).plusDays(random.nextInt(30));
  }

  private static Vessel changed(Vessel old, Marina marina, Names names, Random random) {
    LocalDate insured =
        random.nextInt(10) == 0
            ? old.insuredUntil()
            : LocalDate.of(2027, 1, 31).plusMonths(random.nextInt(8));
    String berth = random.nextInt(2) == 0 ? names.pick(marina.berths()) : old.berth();
    BigDecimal feet = random.nextInt(7) == 0 ? old.feet().add(new BigDecimal("0.50")) : old.feet();
    return old.arriving(november(random), insured, berth, feet);
  }

  /** Puts an older row of the same vessel before the one that counts. */
  private void addRepeats(List<Row> good, Random random) {
    Set<Row> repeated = new HashSet<>();
    while (repeated.size() < REPEATS) {
      Row row = good.get(random.nextInt(good.size()));
      int at = rows.indexOf(row);
      if (at > 20 && repeated.add(row)) {
        List<Object> cells = new ArrayList<>(row.cells());
        cells.set(9, "first list");
        rows.add(random.nextInt(at), new Row(cells));
      }
    }
  }

  private static Row row(Vessel v, boolean loose, boolean spaced, Random random) {
    List<Object> cells = new ArrayList<>();
    cells.add(
        loose ? v.registration().toLowerCase(Locale.ROOT).replace('-', ' ') : v.registration());
    cells.add(v.name());
    cells.add(random.nextInt(15) == 0 ? v.kind().toUpperCase(Locale.ROOT) : v.kind());
    cells.add(spaced ? " " + comma(v.feet()) + "  " : number(v.feet()));
    cells.add(number(v.beamFeet()));
    cells.add(v.owner());
    cells.add(v.berth());
    cells.add(random.nextInt(6) == 0 ? v.arrivedOn() : DAY.format(v.arrivedOn()));
    cells.add(v.insuredUntil() == null ? null : DAY.format(v.insuredUntil()));
    cells.add(v.notes());
    return new Row(cells);
  }

  /** Whole feet are typed as numbers, parts of a foot as text with a comma. */
  private static Object number(BigDecimal feet) {
    BigDecimal plain = feet.stripTrailingZeros();
    return plain.scale() <= 0 ? (Object) feet.intValueExact() : comma(feet);
  }

  private static String comma(BigDecimal feet) {
    return feet.stripTrailingZeros().toPlainString().replace('.', ',');
  }

  private static Row dirty(Row row, Dirt dirt, int n) {
    List<Object> cells = new ArrayList<>(row.cells());
    switch (dirt) {
      case UNKNOWN_KIND -> cells.set(2, n < 22 ? "Ketch rig" : n < 33 ? "gaff cutter" : "mtr");
      case UNKNOWN_OWNER -> cells.set(5, "nobody" + n % 4 + "@fernmail.example");
      case VAGUE_DATE -> cells.set(7, "w/c " + (n < 5 ? "9" : "16") + " Nov");
      case UNKNOWN_BERTH -> cells.set(6, "C-14");
      case IMPOSSIBLE_DATE -> cells.set(7, "31.11.2026");
      case FEET_AND_INCHES -> cells.set(3, "32' 6\"");
      case NO_LENGTH -> cells.set(3, "tbc");
      case NO_REGISTRATION -> cells.set(0, null);
      case TOO_LONG -> cells.set(3, 410);
    }
    return new Row(cells);
  }

  /** What is in the file. */
  public Facts facts() {
    return facts;
  }

  /**
   * Writes the workbook: a heading block, titles on line 5, a total below, a hidden second sheet.
   */
  public void writeWorkbook(Path file) throws IOException {
    try (OutputStream out = Files.newOutputStream(file);
        Workbook book = new Workbook(out, "Quillhaven Marina", "1.0")) {
      Worksheet sheet = book.newWorksheet("Arrivals");
      sheet.value(0, 0, "Quillhaven Marina, arrivals");
      sheet.value(1, 0, "Season");
      sheet.value(1, 1, "Winter 2026/27");
      sheet.value(1, 6, "Printed");
      sheet.value(1, 7, "20.11.2026");
      sheet.value(2, 0, "Office");
      sheet.value(2, 1, "O. Brask");
      for (int c = 0; c < TITLES.size(); c++) {
        sheet.value(FIRST_LINE - 2, c, TITLES.get(c));
      }
      int line = FIRST_LINE - 1;
      for (Row row : rows) {
        for (int c = 0; c < row.cells().size(); c++) {
          put(sheet, line, c, row.cells().get(c));
        }
        line++;
      }
      sheet.value(line, 0, "Total");
      sheet.value(line, 1, rows.size());
      Worksheet lists = book.newWorksheet("Lists");
      lists.setVisibilityState(VisibilityState.HIDDEN);
      int kind = 0;
      for (String name : Marina.KINDS.values()) {
        lists.value(kind++, 0, name);
      }
    }
  }

  private static void put(Worksheet sheet, int line, int column, Object value) {
    if (value instanceof LocalDate day) {
      sheet.value(line, column, day);
      sheet.style(line, column).format("dd.mm.yyyy").set();
    } else if (value instanceof Number number) {
      sheet.value(line, column, number);
    } else if (value != null) {
      sheet.value(line, column, value.toString());
    }
  }

  /** Writes the same rows as semicolon-separated text in UTF-8, titles on the first line. */
  public void writeText(Path file) throws IOException {
    try (Writer out = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
      out.write(String.join(";", TITLES) + "\r\n");
      for (Row row : rows) {
        out.write(
            row.cells().stream().map(Arrivals::quoted).collect(Collectors.joining(";")) + "\r\n");
      }
    }
  }

  /** Writes as many rows as wanted: the vessels of this file, then ever new ones, without dirt. */
  public void writeLargeText(Path file, int count) throws IOException {
    Names names = new Names(new Random(count));
    Random random = new Random(count);
    try (Writer out = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
      out.write(String.join(";", TITLES) + "\r\n");
      for (int i = 0; i < count; i++) {
        Vessel vessel = i < known.size() ? known.get(i) : numbered(i, names, random);
        Row row = row(vessel, false, false, random);
        out.write(
            row.cells().stream().map(Arrivals::quoted).collect(Collectors.joining(";")) + "\r\n");
      }
    }
  }

  /**
   * Writes new vessels as a later delivery has them: the column of the owner has another title, the
   * berth has moved, a telephone number has come and the notes are gone.
   */
  public void writeOtherShape(Path file, int count) throws IOException {
    Names names = new Names(new Random(count));
    Random random = new Random(count);
    int[] order = {0, 1, 6, 2, 3, 4, 5, 7, 8};
    List<String> titles = new ArrayList<>();
    for (int column : order) {
      titles.add(column == 5 ? "Owner mail" : TITLES.get(column));
    }
    titles.add("Phone on board");
    try (Writer out = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
      out.write(String.join(";", titles) + "\r\n");
      for (int i = 0; i < count; i++) {
        List<Object> cells = row(numbered(90_000 + i, names, random), false, false, random).cells();
        List<String> line = new ArrayList<>();
        for (int column : order) {
          line.add(quoted(cells.get(column)));
        }
        line.add("01632 " + (960_000 + random.nextInt(1_000)));
        out.write(String.join(";", line) + "\r\n");
      }
    }
  }

  private Vessel numbered(int number, Names names, Random random) {
    Vessel like = known.get(number % known.size());
    return new Vessel(
        "QL-" + number,
        names.boat(),
        like.kind(),
        like.feet(),
        like.beamFeet(),
        like.owner(),
        like.berth(),
        november(random),
        like.insuredUntil(),
        like.notes());
  }

  private static String quoted(Object cell) {
    if (cell == null) {
      return "";
    }
    String text = cell instanceof LocalDate day ? DAY.format(day) : cell.toString();
    return text.matches("(?s).*[;\"\\n].*") ? '"' + text.replace("\"", "\"\"") + '"' : text;
  }
}
