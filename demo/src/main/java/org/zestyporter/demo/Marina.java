package org.zestyporter.demo;

import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/**
 * The records of Quillhaven Marina, the same on every machine.
 *
 * <pre>{@code
 * Marina marina = Marina.open();
 * try (Connection connection = DriverManager.getConnection(url)) {
 *   marina.build(connection);
 * }
 * marina.arrivals().writeWorkbook(folder.resolve("winter-arrivals.xlsx"));
 * }</pre>
 */
public final class Marina {
  /** Vessels that the office knows before anything is brought in. */
  public static final int VESSELS = 1_873;

  private static final long SEED = 20_261_123L;
  private static final int OWNERS = 911;
  static final Map<String, String> KINDS = kinds();
  private static final Map<Character, Integer> PONTOONS =
      Map.of('A', 24, 'B', 18, 'C', 13, 'D', 22, 'E', 20, 'F', 16);

  private final List<Names.Owner> owners = new ArrayList<>();
  private final List<String> berths = new ArrayList<>();
  private final List<Vessel> vessels = new ArrayList<>();
  private final Arrivals arrivals;

  private Marina() {
    Random random = new Random(SEED);
    Names names = new Names(random);
    for (int i = 0; i < OWNERS; i++) {
      owners.add(names.owner());
    }
    for (char letter = 'A'; letter <= 'F'; letter++) {
      for (int n = 1; n <= PONTOONS.get(letter); n++) {
        berths.add(String.format("%s-%02d", letter, n));
      }
    }
    for (int i = 0; i < VESSELS; i++) {
      vessels.add(vessel(i, names, random, i < Arrivals.UNCHANGED));
    }
    arrivals = new Arrivals(this, names, random);
  }

  /** The marina, made from its fixed seed. */
  public static Marina open() {
    return new Marina();
  }

  private static Map<String, String> kinds() {
    Map<String, String> kinds = new LinkedHashMap<>();
    kinds.put("SLP", "sloop");
    kinds.put("KTC", "ketch");
    kinds.put("YWL", "yawl");
    kinds.put("CUT", "cutter");
    kinds.put("SCH", "schooner");
    kinds.put("MOT", "motor");
    kinds.put("TRW", "trawler");
    kinds.put("NRW", "narrowboat");
    kinds.put("CAT", "catamaran");
    kinds.put("DNG", "dinghy");
    return kinds;
  }

  private Vessel vessel(int index, Names names, Random random, boolean here) {
    LocalDate arrived =
        here
            ? LocalDate.of(2026, 11, 1).plusDays(random.nextInt(20))
            : LocalDate.of(2023, 3, 1).plusDays(random.nextInt(900));
    return newVessel(index, names, random, arrived);
  }

  Vessel newVessel(int number, Names names, Random random, LocalDate arrived) {
    BigDecimal feet = quarterFeet(72 + random.nextInt(140));
    BigDecimal beam = quarterFeet(26 + random.nextInt(34));
    boolean berthed = random.nextInt(10) < 7;
    return new Vessel(
        String.format("QH-%04d", number + 11),
        names.boat(),
        names.pick(List.copyOf(KINDS.values())),
        feet,
        beam,
        names.pick(owners).email(),
        berthed ? names.pick(berths) : null,
        arrived,
        random.nextInt(8) == 0 ? null : LocalDate.of(2026, 12, 31).plusMonths(random.nextInt(9)),
        random.nextInt(6) == 0
            ? names.pick(
                List.of(
                    "keys at office", "winter cover on", "shore power wanted", "mast unstepped"))
            : null);
  }

  static BigDecimal quarterFeet(int quarters) {
    return BigDecimal.valueOf(quarters * 25L, 2);
  }

  List<Vessel> vessels() {
    return vessels;
  }

  List<Names.Owner> owners() {
    return owners;
  }

  List<String> berths() {
    return berths;
  }

  /** The file of vessels that come for the winter. */
  public Arrivals arrivals() {
    return arrivals;
  }

  /** The other files of the office. */
  public OfficeFiles officeFiles() {
    return new OfficeFiles(this);
  }

  /** Creates the tables and their records in an empty database. */
  public void build(Connection connection) throws SQLException {
    connection.setAutoCommit(false);
    try (Statement statement = connection.createStatement()) {
      for (String sql : schema().split(";\\s*\\n")) {
        if (!sql.isBlank()) {
          statement.execute(sql);
        }
      }
    }
    seed(connection);
    connection.commit();
    connection.setAutoCommit(true);
  }

  private static String schema() {
    try (InputStream in = Marina.class.getResourceAsStream("marina.sql")) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8).replaceAll("(?m)^--.*$", "");
    } catch (IOException e) {
      throw new IllegalStateException(e);
    }
  }

  private void seed(Connection connection) throws SQLException {
    Rows rows = new Rows(connection);
    KINDS.forEach((code, name) -> rows.add("vessel_type (code, name)", code, name));
    Random random = new Random(SEED + 1);
    for (Names.Owner o : owners) {
      rows.add(
          "owner (given_name, family_name, email, phone, credit_limit, member_since)",
          o.given(),
          o.family(),
          o.email(),
          "01632 " + (960_000 + random.nextInt(1_000)),
          BigDecimal.valueOf(random.nextInt(40) * 250L),
          LocalDate.of(2004, 1, 1).plusDays(random.nextInt(8_000)));
    }
    for (int i = 0; i < owners.size(); i++) {
      rows.add(
          "owner_address (owner_id, kind, street, postcode, town)",
          i + 1,
          "postal",
          (1 + random.nextInt(90)) + " Ropewalk",
          "QH" + random.nextInt(10) + " " + random.nextInt(10) + "XX",
          "Quillhaven");
    }
    PONTOONS.keySet().stream()
        .sorted()
        .forEach(p -> rows.add("pontoon (letter, name)", p.toString(), "Pontoon " + p));
    for (String berth : berths) {
      rows.add(
          "berth (pontoon_id, label, greatest_length_m)",
          berth.charAt(0) - 'A' + 1,
          berth,
          BigDecimal.valueOf(8 + random.nextInt(14)));
    }
    List<String> kindNames = List.copyOf(KINDS.values());
    List<String> emails = owners.stream().map(Names.Owner::email).toList();
    Map<String, Integer> ownerIds = new LinkedHashMap<>();
    emails.forEach(e -> ownerIds.put(e, ownerIds.size() + 1));
    for (Vessel v : vessels) {
      rows.add(
          "vessel (registration, name, type_id, length_m, beam_m, owner_id, berth_id, arrived_on,"
              + " insured_until, notes)",
          v.registration(),
          v.name(),
          kindNames.indexOf(v.kind()) + 1,
          Vessel.metres(v.feet()),
          Vessel.metres(v.beamFeet()),
          ownerIds.get(v.owner()),
          v.berth() == null ? null : berths.indexOf(v.berth()) + 1,
          v.arrivedOn(),
          v.insuredUntil(),
          v.notes());
    }
    rows.add(
        "tariff (code, name, price_per_metre)", "SUMMER", "Summer berth", new BigDecimal("182.50"));
    rows.add(
        "tariff (code, name, price_per_metre)", "WINTER", "Winter berth", new BigDecimal("96.00"));
    rows.add(
        "tariff (code, name, price_per_metre)", "YEAR", "Whole year", new BigDecimal("241.00"));
    for (int i = 0; i < berths.size(); i++) {
      rows.add(
          "berth_contract (number, vessel_id, berth_id, tariff_id, starts_on)",
          String.format("BC-%05d", 2_000 + i),
          1 + i * 7,
          i + 1,
          1 + i % 3,
          LocalDate.of(2026, 4, 1));
      rows.add("meter (number, berth_id)", String.format("M-%04d", 100 + i), i + 1);
      rows.add(
          "meter_reading (meter_id, read_on, kwh)",
          i + 1,
          LocalDate.of(2026, 10, 1),
          200 + random.nextInt(900));
    }
    rows.flush();
  }

  /** Inserts in batches, one batch for each run of rows for the same table. */
  private static final class Rows {
    private final Connection connection;
    private String into;
    private PreparedStatement statement;

    Rows(Connection connection) {
      this.connection = connection;
    }

    void add(String target, Object... values) {
      try {
        if (!target.equals(into)) {
          flush();
          into = target;
          statement =
              connection.prepareStatement(
                  "INSERT INTO " + target + " VALUES (" + "?, ".repeat(values.length - 1) + "?)");
        }
        for (int i = 0; i < values.length; i++) {
          statement.setObject(i + 1, values[i]);
        }
        statement.addBatch();
      } catch (SQLException e) {
        throw new IllegalStateException(e);
      }
    }

    void flush() throws SQLException {
      if (statement != null) {
        statement.executeBatch();
        statement.close();
        statement = null;
      }
    }
  }
}
