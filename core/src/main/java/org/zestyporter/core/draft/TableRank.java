package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Words;

/**
 * Tells which tables a file may be meant for, by the names of their fields and by their records.
 */
final class TableRank {
  /** So many are likely by their names, and by their records. */
  static final int LIKELY = 4;

  /** Of very wide files only so many columns are compared with tables. */
  private static final int COLUMNS_RANKED = 60;

  /** Tables and columns whose values are compared, and how long at most. */
  private static final int TABLES_COMPARED = 60;

  private static final int COLUMNS_COMPARED = 30;

  /** Tables of other schemas that are looked at. */
  private static final int MOST = 1_000;

  private static final long LOOKING_NANOS = 800_000_000L;

  private final List<TableInfo> tables;
  private final SourceTable source;
  private final Pairing pairing;

  TableRank(List<TableInfo> tables, SourceTable source, Pairing pairing) {
    this.tables = tables;
    this.source = source;
    this.pairing = pairing;
  }

  /**
   * The tables that are worth drafting for.
   *
   * @param most so many by their names, and by their records
   */
  List<TableInfo> likely(int most) {
    List<TableInfo> byName = byName();
    List<TableInfo> likely = new ArrayList<>(byName.subList(0, Math.min(most, byName.size())));
    byValues(byName).stream()
        .limit(most)
        .filter(t -> likely.stream().noneMatch(l -> l == t))
        .forEach(likely::add);
    return likely;
  }

  private List<TableInfo> byName() {
    long[] traits = traits();
    List<TableInfo> ranked = new ArrayList<>(tables);
    int[] byPlace = ranked.parallelStream().mapToInt(t -> nameScore(t, traits)).toArray();
    Map<TableInfo, Integer> scores = scores(ranked, byPlace);
    ranked.sort(Comparator.comparingInt(t -> -scores.get(t)));
    return ranked;
  }

  private static Map<TableInfo, Integer> scores(List<TableInfo> tables, int[] byPlace) {
    Map<TableInfo, Integer> scores = new IdentityHashMap<>();
    for (int t = 0; t < byPlace.length; t++) {
      scores.put(tables.get(t), byPlace[t]);
    }
    return scores;
  }

  /** Names of the tables that are looked at first: those of the connection's own schema. */
  static List<String> own(Application application) {
    List<String> own = application.ownTableNames();
    return own.isEmpty() ? application.tableNames() : own;
  }

  /** Names of the tables of other schemas. */
  static List<String> others(Application application) {
    Set<String> own = new HashSet<>(own(application));
    return application.tableNames().stream().filter(n -> !own.contains(n)).limit(MOST).toList();
  }

  /** The tables that may be proposed; one that can't be filled keeps nobody from the others. */
  static List<TableInfo> tables(Application application, List<String> names) {
    application.read(names);
    List<TableInfo> tables = new ArrayList<>();
    PorterException first = null;
    for (String name : names) {
      try {
        tables.add(application.table(name));
      } catch (PorterException e) {
        first = first == null ? e : first;
      }
    }
    if (tables.isEmpty() && first != null) {
      throw first;
    }
    return tables;
  }

  private int nameScore(TableInfo table, long[] traits) {
    List<FieldInfo> fields = table.fields();
    long[] ofFields = fields.stream().mapToLong(f -> Words.traits(f.name())).toArray();
    int sum = 0;
    for (int c = 0; c < traits.length; c++) {
      int best = 0;
      Likeness.Title title =
          new Likeness.Title(table, source.columns().get(c), source.lowestTitle(c));
      for (int f = 0; f < ofFields.length; f++) {
        if ((traits[c] & ofFields[f]) != 0 || fields.get(f).comment() != null) {
          best = Math.max(best, title.to(fields.get(f)).score());
        }
      }
      sum += best;
    }
    return sum;
  }

  /** What the titles that are compared with tables begin with and mean. */
  private long[] traits() {
    return source.columns().stream()
        .limit(COLUMNS_RANKED)
        // the last part of a dotted title may be all that counts
        .mapToLong(c -> Words.traits(c) | Words.traits(c.substring(c.lastIndexOf('.') + 1)))
        .toArray();
  }

  /**
   * The tables whose records are like the file's rows, the likest first, whatever the names say.
   */
  private List<TableInfo> byValues(List<TableInfo> tables) {
    long end = System.nanoTime() + LOOKING_NANOS;
    List<TableInfo> compared = tables.subList(0, Math.min(TABLES_COMPARED, tables.size()));
    int[] byPlace =
        compared.parallelStream()
            .mapToInt(t -> System.nanoTime() > end ? 0 : valueScore(t))
            .toArray();
    Map<TableInfo, Integer> scores = scores(compared, byPlace);
    return tables.stream()
        .filter(t -> scores.getOrDefault(t, 0) > 0)
        .sorted(Comparator.comparingInt(t -> -scores.get(t)))
        .toList();
  }

  private int valueScore(TableInfo table) {
    int sum = 0;
    for (int c = 0; c < Math.min(COLUMNS_COMPARED, source.columns().size()); c++) {
      int best = 0;
      for (FieldInfo field : table.fields()) {
        best = Math.max(best, pairing.agreement(table, field, c).score());
      }
      sum += best;
    }
    return sum;
  }
}
