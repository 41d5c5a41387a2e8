package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.DistinctValues;

/**
 * A match key that a destination does not have yet, and could.
 *
 * @param unique true if no two records of the application can share these values
 * @param values distinct values that the column holds; null if the fields are not filled by one
 *     column
 * @param rows how many of its rows hold any
 */
public record KeySuggestion(
    MatchKey key, boolean unique, @Nullable Long values, @Nullable Long rows) {
  private static final int MOST = 5;

  /** Of a hundred rows so many have a value that no other has, where a column tells them apart. */
  private static final int DISTINCT = 95;

  /** The same for words whose spelling may tell records apart, with other fields at least. */
  private static final int MANY = 30;

  /** Of a hundred values so many are words where a column holds words. */
  private static final int WORDS = 80;

  /** Fewer rows tell nothing about a column. */
  private static final int FEWEST = 8;

  /**
   * What could be a key: first what the application keeps unique and the destination fills, then
   * what hardly any two rows of the file share.
   *
   * @param parentField the field that takes the key of a record above; null if there is none
   */
  public static List<KeySuggestion> of(
      TableInfo table, Destination destination, SourceTable source, @Nullable String parentField) {
    List<KeySuggestion> suggestions = new ArrayList<>();
    KeyDraft drafts = new KeyDraft(source, source::distinct, null);
    Set<Set<String>> had = new HashSet<>();
    destination.keys().forEach(k -> had.add(new HashSet<>(k.fields())));
    Set<List<String>> unique = new LinkedHashSet<>(table.uniques());
    unique.add(table.primaryKey());
    for (List<String> fields : unique) {
      List<Fill> fills =
          fields.stream().map(f -> fill(destination, f)).filter(Objects::nonNull).toList();
      // what a key does not find, the same fields with more of them do not find either
      boolean filled =
          !fields.isEmpty()
              && fills.size() + (parentField != null && fields.contains(parentField) ? 1 : 0)
                  == fields.size()
              && destination.keys().stream()
                  .noneMatch(k -> !k.isNear() && fields.containsAll(k.fields()));
      if (filled && had.add(new HashSet<>(fields))) {
        suggestions.add(of(table, fields, true, source, fills, drafts));
      }
    }
    List<KeySuggestion> telling = new ArrayList<>();
    for (FieldInfo field : table.fields()) {
      Fill fill = fill(destination, field.name());
      boolean typed = field.type() == FieldType.TEXT || field.type() == FieldType.WHOLE;
      if (fill != null && typed && field.link() == null && had.add(Set.of(field.name()))) {
        KeySuggestion one = of(table, List.of(field.name()), false, source, List.of(fill), drafts);
        if (one.rows() != null
            && one.rows() >= FEWEST
            && one.values() * 100 >= one.rows() * DISTINCT
            && one.rows() * 100 >= source.rowCount() * DISTINCT) {
          telling.add(one);
        }
      }
    }
    telling.sort(Comparator.comparingDouble(s -> -(double) s.values() / s.rows()));
    suggestions.addAll(telling);
    List<KeySuggestion> all =
        new ArrayList<>(suggestions.subList(0, Math.min(MOST, suggestions.size())));
    KeySuggestion near = near(table, destination, source, drafts);
    if (near != null) {
      all.add(near);
    }
    return all;
  }

  /** What would ask about records that are only spelt alike: by the words that tell most. */
  private static @Nullable KeySuggestion near(
      TableInfo table, Destination destination, SourceTable source, KeyDraft drafts) {
    if (destination.keys().isEmpty()
        || destination.distinct()
        || destination.keys().stream().anyMatch(MatchKey::isNear)) {
      return null;
    }
    KeySuggestion best = null;
    for (FieldInfo field : table.fields()) {
      Fill fill = fill(destination, field.name());
      if (fill == null || field.type() != FieldType.TEXT || field.link() != null) {
        continue;
      }
      KeySuggestion one = of(table, List.of(field.name()), false, source, List.of(fill), drafts);
      boolean tells =
          one.rows() != null
              && one.rows() >= FEWEST
              && one.values() * 100 >= one.rows() * MANY
              && isOfWords(source.distinct(source.columns().indexOf(fill.origin().column())));
      if (tells && (best == null || one.values() > best.values())) {
        best = one;
      }
    }
    if (best == null) {
      return null;
    }
    String field = best.key.fields().get(0);
    MatchKey key =
        new MatchKey(best.key.fields(), List.of(), null, Map.of(field, MatchKey.SPELLING));
    return new KeySuggestion(key, false, best.values, best.rows);
  }

  /** True if a column holds words, not codes: of these one letter is as good as another. */
  private static boolean isOfWords(DistinctValues values) {
    List<String> some =
        values.tallies().keySet().stream().limit(200).map(c -> c.text().strip()).toList();
    long words = some.stream().filter(t -> t.matches("[\\p{L}\\p{M}.,'’ -]{5,}")).count();
    return words * 100 >= some.size() * WORDS;
  }

  private static @Nullable Fill fill(Destination destination, String field) {
    return destination.fills().stream()
        .filter(f -> f.field().equals(field) && !(f.origin() instanceof Origin.Database))
        .findFirst()
        .orElse(null);
  }

  private static KeySuggestion of(
      TableInfo table,
      List<String> fields,
      boolean unique,
      SourceTable source,
      List<Fill> fills,
      KeyDraft drafts) {
    List<Integer> columns =
        fills.stream()
            .map(f -> f.origin().column())
            .filter(Objects::nonNull)
            .map(source.columns()::indexOf)
            .filter(c -> c >= 0)
            .toList();
    boolean text =
        columns.size() == fills.size()
            && table.fields(fields).stream()
                .allMatch(f -> f.type() == FieldType.TEXT && f.link() == null);
    MatchKey key = drafts.key(fields, text, columns);
    if (columns.size() != 1 || fields.size() != 1) {
      return new KeySuggestion(key, unique, null, null);
    }
    DistinctValues values = source.distinct(columns.get(0));
    Set<String> written =
        values.tallies().keySet().stream()
            .map(c -> c.text().strip())
            .filter(t -> !t.isEmpty())
            .collect(Collectors.toSet());
    long rows =
        values.beyond()
            + values.tallies().entrySet().stream()
                .filter(e -> !e.getKey().text().isBlank())
                .mapToLong(e -> e.getValue().rows())
                .sum();
    // a column of very many values is only counted as far as they are remembered
    return new KeySuggestion(key, unique, written.size() + values.beyond(), rows);
  }
}
