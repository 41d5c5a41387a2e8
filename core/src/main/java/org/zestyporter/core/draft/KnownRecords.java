package org.zestyporter.core.draft;

import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.LoadingCache;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.Called;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Values;

/**
 * What drafts know of an application's records: what the first ones of each table are like, and by
 * which words records of smaller tables are called. Nothing is read to its end. It is kept for half
 * a day, and read anew in the background by whoever asks once it is older than half a minute; it
 * can be used by any number of drafts at a time.
 */
public final class KnownRecords {
  private static final int TABLES_KEPT = 2_000;
  private static final int SKETCHED = 500;

  /** Of larger tables only the first records are read. */
  private static final int READ_WHOLE = 20_000;

  private static final int CELLS_READ = 600_000;

  /** So many texts of a record may be names, though nothing says so. */
  private static final int MAYBE_NAMES = 4;

  /** One of so many values may stand twice. */
  private static final int REPEATED_AT_MOST = 20;

  private static final Comparison COMPARISON = Comparison.ignoring(LinkValues.IGNORED);

  private final Application application;
  private final LoadingCache<String, List<Sketch>> sketches;
  private final LoadingCache<String, Names> names;

  /**
   * Values of the fields of a table that could name a record: texts and codes without repeats, as
   * they are compared.
   *
   * @param whole true if these are all that the table holds
   * @param people its people by their whole names; without and with a middle name or that of the
   *     father, if it has a field for it
   * @param maybePeople the same by two fields of which nobody knows that they hold names; only
   *     values that are found tell it
   */
  record Names(
      Map<String, Set<String>> values,
      boolean whole,
      List<People> people,
      List<People> maybePeople) {}

  /**
   * The people of a table whose names stand in several fields.
   *
   * @param fields of the first and the last name, and that beside them
   * @param words the whole names, by their words
   */
  record People(List<FieldInfo> fields, Set<String> words) {}

  public KnownRecords(Application application) {
    this.application = application;
    Caffeine<Object, Object> kept =
        Caffeine.newBuilder()
            .maximumSize(TABLES_KEPT)
            .expireAfterWrite(Duration.ofHours(12))
            .refreshAfterWrite(Duration.ofSeconds(30));
    this.sketches = kept.build(table -> sketch(application.table(table)));
    this.names = kept.build(table -> read(application.table(table)));
  }

  private KnownRecords(KnownRecords known, Application application) {
    this.application = application;
    this.sketches = known.sketches;
    this.names = known.names;
  }

  /** The same of the same application, of which other links are told. */
  public KnownRecords of(Application same) {
    return same == application ? this : new KnownRecords(this, same);
  }

  Application application() {
    return application;
  }

  /** What a table's fields hold in its first records, field by field; empty if nobody may see. */
  List<Sketch> sketches(TableInfo table) {
    List<Sketch> known = sketches.get(table.name());
    if (known.size() == table.fields().size()) {
      return known;
    }
    // the table has got a field more or less meanwhile
    sketches.invalidate(table.name());
    return sketches.get(table.name());
  }

  /** What records of a table are called by. */
  Names names(String table) {
    return names.get(table);
  }

  private List<Sketch> sketch(TableInfo table) {
    List<Sketch> fields = new ArrayList<>();
    table.fields().forEach(f -> fields.add(new Sketch()));
    try {
      for (Object[] record : application.page(table, null, 0, SKETCHED)) {
        for (int f = 0; f < record.length; f++) {
          if (record[f] != null) {
            fields.get(f).add(record[f], 1);
          }
        }
      }
    } catch (PorterException e) {
      // who may not read the records is served by the names alone
      return fields;
    }
    return fields;
  }

  private Names read(TableInfo table) {
    Map<String, Set<String>> values = new HashMap<>();
    Map<String, Integer> repeats = new HashMap<>();
    int[] places =
        IntStream.range(0, table.fields().size())
            .filter(i -> mayName(table.fields().get(i)))
            .toArray();
    if (places.length == 0) {
      return new Names(values, true, List.of(), List.of());
    }
    for (int place : places) {
      values.put(table.fields().get(place).name(), new HashSet<>());
    }
    int most = Math.min(READ_WHOLE, CELLS_READ / table.fields().size());
    List<Object[]> records = application.page(table, null, 0, most + 1);
    for (Object[] record : records) {
      for (int place : places) {
        String name = table.fields().get(place).name();
        String prepared = COMPARISON.prepare(record[place]);
        if (prepared != null && !values.get(name).add(prepared)) {
          repeats.merge(name, 1, Integer::sum);
        }
      }
    }
    // a label that stands twice by mistake does not make the others useless
    values
        .entrySet()
        .removeIf(
            e -> repeats.getOrDefault(e.getKey(), 0) * REPEATED_AT_MOST > e.getValue().size());
    boolean whole = records.size() <= most;
    List<People> people = people(table, records);
    return new Names(
        values, whole, people, whole && people.isEmpty() ? maybePeople(table, records) : List.of());
  }

  /** By each text with the next one, where a record needs both. */
  private static List<People> maybePeople(TableInfo table, List<Object[]> records) {
    List<FieldInfo> texts =
        table.fields().stream()
            .filter(f -> f.type() == FieldType.TEXT && f.required())
            .filter(f -> !f.unique() && f.link() == null && f.choices() == null)
            .toList();
    List<People> people = new ArrayList<>();
    for (int i = 1; i < Math.min(texts.size(), MAYBE_NAMES); i++) {
      people.add(people(table, texts.subList(i - 1, i + 1), records));
    }
    return people;
  }

  private static List<People> people(TableInfo table, List<Object[]> records) {
    List<FieldInfo> names = Called.people(table);
    if (names.isEmpty()) {
      return List.of();
    }
    FieldInfo middle = Called.middle(table);
    People usual = people(table, names, records);
    return middle == null
        ? List.of(usual)
        : List.of(usual, people(table, List.of(names.get(0), names.get(1), middle), records));
  }

  private static People people(TableInfo table, List<FieldInfo> fields, List<Object[]> records) {
    int[] places = fields.stream().mapToInt(table.fields()::indexOf).toArray();
    Set<String> people = new HashSet<>();
    for (Object[] record : records) {
      String words = words(IntStream.of(places).mapToObj(place -> record[place]));
      if (!words.isEmpty()) {
        people.add(words);
      }
    }
    return new People(fields, people);
  }

  /** The parts of a whole name as its words are compared. */
  static String words(Stream<@Nullable Object> parts) {
    return COMPARISON.words(Values.together(parts));
  }

  private static boolean mayName(FieldInfo field) {
    return field.type() == FieldType.TEXT
        || (field.unique() && field.type() == FieldType.WHOLE && !field.generated());
  }
}
