package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.PorterException;

/** Proposes the fields that identify a record. */
final class KeyDraft {
  /** So many of a column's values are looked for among the records. */
  private static final int ASKED_FOR = 100;

  private static final double SLIGHT = 0.001;

  private final SourceTable source;
  private final IntFunction<DistinctValues> values;
  private final @Nullable HeldValues held;

  /**
   * @param values the values of a column
   * @param held tells which values the records hold; null where nothing is chosen among keys
   */
  KeyDraft(SourceTable source, IntFunction<DistinctValues> values, @Nullable HeldValues held) {
    this.source = source;
    this.values = values;
    this.held = held;
  }

  /**
   * A match key of fields that are filled and that no two records share: of several that whose
   * values most records hold already, or the first.
   *
   * @param given fields that are filled otherwise than from a column of their own
   * @return null if there is none
   */
  @Nullable MatchKey of(TableInfo table, List<Pair> chosen, Set<String> given) {
    List<Candidate> filled =
        Stream.concat(table.uniques().stream(), Stream.of(table.primaryKey()))
            .distinct()
            .map(fields -> new Candidate(fields, parts(fields, chosen)))
            .filter(c -> c.isFilled(given))
            .toList();
    // what is unique by some of its fields needs no more of them
    List<Candidate> candidates =
        filled.stream().filter(c -> filled.stream().noneMatch(c::hasMoreThan)).toList();
    if (candidates.isEmpty()) {
      return null;
    }
    Candidate best = candidates.get(0);
    double most = 0;
    for (Candidate candidate : candidates.size() > 1 ? candidates : List.<Candidate>of()) {
      double share = share(table, candidate);
      if (share > most) {
        best = candidate;
        most = share;
      }
    }
    return key(best.fields, best.isText(), best.parts.stream().map(Pair::column).toList());
  }

  /** Fields that identify a record, and what feeds them. */
  private record Candidate(List<String> fields, List<Pair> parts) {
    boolean isFilled(Set<String> given) {
      return !fields.isEmpty()
          && fields.stream()
              .allMatch(
                  f ->
                      given.contains(f)
                          || parts.stream().anyMatch(p -> p.field().name().equals(f)));
    }

    boolean hasMoreThan(Candidate other) {
      return fields.size() > other.fields.size() && fields.containsAll(other.fields);
    }

    boolean isText() {
      return !parts.isEmpty() && parts.stream().allMatch(p -> p.field().type() == FieldType.TEXT);
    }
  }

  private static List<Pair> parts(List<String> fields, List<Pair> chosen) {
    return chosen.stream().filter(p -> fields.contains(p.field().name())).toList();
  }

  /**
   * How many of some values the records hold already. Numbers count only where texts say nothing:
   * those of two lists are the same ones more often than not, whatever they number.
   */
  private double share(TableInfo table, Candidate candidate) {
    double least = 1;
    boolean isAsked = false;
    for (Pair part : candidate.parts) {
      if (held != null && part.field().link() == null && HeldValues.canAsk(part.field())) {
        isAsked = true;
        double share = share(table, part);
        least = Math.min(least, part.field().type() == FieldType.TEXT ? share : share * SLIGHT);
      }
    }
    return isAsked ? least : 0;
  }

  private double share(TableInfo table, Pair part) {
    List<String> texts = HeldValues.some(values.apply(part.column()), ASKED_FOR);
    String decimal = source.locale(part.column()).decimal();
    Set<String> there = there(table, part.field(), texts, decimal);
    long found = texts.stream().filter(t -> there.contains(LinkValues.OF_CODES.prepare(t))).count();
    return texts.isEmpty() ? 0 : (double) found / texts.size();
  }

  private Set<String> there(TableInfo table, FieldInfo field, List<String> texts, String decimal) {
    try {
      return held.of(table, field, texts, decimal, LinkValues.OF_CODES::prepare);
    } catch (PorterException e) {
      // who may not read the records gets the first key
      return Set.of();
    }
  }

  /**
   * A key whose fields are compared as their values ask for: texts ignoring capitals and spaces,
   * codes what stands between their parts as well.
   *
   * @param text true if all of the fields are texts
   * @param columns those that fill them
   */
  MatchKey key(List<String> fields, boolean text, List<Integer> columns) {
    List<Comparison.Ignore> ignoring = new ArrayList<>();
    if (text) {
      ignoring.add(Comparison.Ignore.CASE);
      ignoring.add(Comparison.Ignore.SPACES);
      if (columns.stream().allMatch(c -> looksLikeCodes(values.apply(c).tallies().keySet()))) {
        ignoring.add(Comparison.Ignore.PUNCTUATION);
      }
    }
    return new MatchKey(fields, ignoring);
  }

  static boolean looksLikeCodes(Set<Cell> cells) {
    long codes =
        cells.stream()
            .filter(c -> c.text().length() <= 24 && c.text().indexOf('@') < 0)
            .filter(c -> c.text().chars().anyMatch(Character::isDigit))
            .count();
    return codes * 10 >= cells.size() * 8L;
  }
}
