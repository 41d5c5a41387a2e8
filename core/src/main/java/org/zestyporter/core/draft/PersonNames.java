package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Called;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.ValueType;
import org.zestyporter.core.value.Words;

/**
 * Names of people, which one side has whole and the other in two parts: joined for a field of the
 * whole name, and parted for fields of first and last name.
 */
final class PersonNames {
  private static final int VALUES_TRIED = 2_000;

  /** What stands between two parts of a title. */
  private static final Set<String> AND =
      Set.of(
          "and", "und", "et", "e", "y", "en", "og", "och", "ja", "i", "a", "ve", "es", "si", "и",
          "та", "και", "ו", "va", "dan", "ir", "un", "และ", "और");

  private static final Pattern TWO_PARTS =
      Pattern.compile(
          "(?<first>[^,/&+;]+?)(?:\\s*(?<sign>[,/&+;])\\s*|\\s\\p{L}{1,4}\\s)(?<second>[^,/&+;]+)");

  /** What a title of people's names may say, so that no names of boats or companies are parted. */
  private static final List<String> OF_PEOPLE =
      List.of(
          "name",
          "forename",
          "surname",
          "full",
          "person",
          "customer",
          "owner",
          "member",
          "employee",
          "user",
          "tenant",
          "reader",
          "author",
          "contact",
          "passenger");

  private final SourceTable source;
  private final Pairing pairing;

  PersonNames(SourceTable source, Pairing pairing) {
    this.source = source;
    this.pairing = pairing;
  }

  /**
   * A column of whole names for two fields that a table has.
   *
   * @param parts by field how its part is taken
   */
  private record Whole(String column, Map<FieldInfo, List<Step>> parts, String because) {}

  /**
   * The pairs without those whose column is better joined, or parted: a first or last name makes no
   * whole one where the file has the other part as well, and a whole name is no first one.
   */
  List<Pair> without(TableInfo table, List<Pair> proposed) {
    List<Pair> chosen = proposed.stream().map(p -> ofThePart(table, p, proposed)).toList();
    Whole whole = whole(table, chosen);
    return chosen.stream()
        .filter(
            pair -> {
              if (pair.remembered() != null) {
                return true;
              }
              if (whole != null && whole.parts.containsKey(pair.field())) {
                return false;
              }
              List<Pair> others = chosen.stream().filter(p -> p != pair).toList();
              return !isWhole(pair.field())
                  || parts(pair.field(), others) == null
                  || !isPart(title(pair));
            })
        .collect(Collectors.toCollection(ArrayList::new));
  }

  /** The column of a first or last name in the place of one that only says that it is a name. */
  private Pair ofThePart(TableInfo table, Pair pair, List<Pair> chosen) {
    if (pair.remembered() != null || !isWholeTitle(title(pair))) {
      return pair;
    }
    for (String part : List.of("forename", "surname")) {
      String title = free(chosen, t -> isOnePart(t) && Words.says(t, part));
      if (title != null && Words.says(pair.field().name(), part)) {
        Pair own = pairing.of(table, pair.field(), source.columns().indexOf(title), title);
        return own == null ? pair : own;
      }
    }
    return pair;
  }

  /** Joins columns for a field; null if the file has no parts of a name, or the field no whole. */
  PlanDraft.@Nullable Own joined(FieldInfo field, List<Pair> chosen) {
    Origin.Joined joined = parts(field, chosen);
    return joined == null
        ? null
        : new PlanDraft.Own(
            Fill.of(field.name(), joined, Step.of(StepKind.COLLAPSE_SPACES)),
            "the file has the parts of a name: " + joined.template(),
            Pairing.ENOUGH);
  }

  /**
   * Parts a column of whole names for a table's fields; none if it has no such column or fields.
   */
  Map<FieldInfo, PlanDraft.Own> parted(TableInfo table, List<Pair> chosen) {
    Whole whole = whole(table, chosen);
    Map<FieldInfo, PlanDraft.Own> parted = new HashMap<>();
    if (whole != null) {
      whole.parts.forEach(
          (field, steps) -> {
            Fill fill =
                Fill.of(field.name(), Origin.column(whole.column), steps.toArray(Step[]::new))
                    .withGuess(true);
            parted.put(
                field,
                new PlanDraft.Own(
                    field.required() ? fill.rejectBlank() : fill, whole.because, Pairing.ENOUGH));
          });
    }
    return parted;
  }

  private String title(Pair pair) {
    return source.columns().get(pair.column());
  }

  private static boolean isWhole(FieldInfo field) {
    List<String> words = Words.split(field.name());
    return field.type() == FieldType.TEXT
        && (words.equals(List.of("name")) || words.equals(List.of("full", "name")));
  }

  static boolean isPart(String title) {
    return Words.says(title, "forename") || Words.says(title, "surname");
  }

  /** First and last name for a field that holds a person's whole name; null if it does not fit. */
  private Origin.@Nullable Joined parts(FieldInfo field, List<Pair> chosen) {
    if (!isWhole(field)) {
      return null;
    }
    String first = free(chosen, title -> Words.says(title, "forename"));
    String last = free(chosen, title -> Words.says(title, "surname"));
    return first != null && last != null
        ? new Origin.Joined(Formula.quote(first) + " " + Formula.quote(last))
        : null;
  }

  /** A column of texts that nothing uses yet and whose title is of a kind. */
  private @Nullable String free(List<Pair> chosen, Predicate<String> kind) {
    for (int c = 0; c < Math.min(PlanDraft.COLUMNS_DRAFTED, source.columns().size()); c++) {
      int column = c;
      if (chosen.stream().noneMatch(p -> p.column() == column)
          && source.profiles().get(c).type() == ValueType.TEXT
          && kind.test(source.columns().get(c))) {
        return source.columns().get(c);
      }
    }
    return null;
  }

  private @Nullable Whole whole(TableInfo table, List<Pair> chosen) {
    List<FieldInfo> fields = Called.people(table);
    if (fields.isEmpty()) {
      return told(table, chosen);
    }
    FieldInfo first = fields.get(0);
    FieldInfo last = fields.get(1);
    List<Pair> ofThem =
        chosen.stream().filter(p -> p.field() == first || p.field() == last).toList();
    boolean spoken = ofThem.stream().anyMatch(p -> p.remembered() != null || isOnePart(title(p)));
    List<Pair> others = chosen.stream().filter(p -> !ofThem.contains(p)).toList();
    String column = spoken ? null : free(others, PersonNames::isWholeTitle);
    if (column == null) {
      return null;
    }
    FieldInfo middle = Called.middle(table);
    NameParts parts = NameParts.of(column, values(column), middle != null);
    if (parts == null) {
      return null;
    }
    Map<FieldInfo, List<Step>> steps = new HashMap<>();
    steps.put(first, parts.first());
    steps.put(last, parts.last());
    if (middle != null && parts.middle() != null) {
      steps.put(middle, parts.middle());
    }
    return new Whole(
        column,
        steps,
        "“"
            + column
            + "” holds whole names; that of the family seems to stand "
            + parts.familyStands());
  }

  /**
   * A column whose title says two fields of texts, in whatever language: {@code Mbiemri, emri},
   * {@code Isem u kunjom}. Its cells are parted where the title is, or between their two words.
   */
  private @Nullable Whole told(TableInfo table, List<Pair> chosen) {
    for (int c = 0; c < Math.min(PlanDraft.COLUMNS_DRAFTED, source.columns().size()); c++) {
      String title = source.columns().get(c);
      Matcher parted = TWO_PARTS.matcher(title);
      if (!parted.matches() || source.profiles().get(c).type() != ValueType.TEXT) {
        continue;
      }
      FieldInfo first = called(table, parted.group("first"));
      FieldInfo second = called(table, parted.group("second"));
      int column = c;
      boolean isSpoken =
          chosen.stream()
              .filter(p -> p.column() == column || p.field() == first || p.field() == second)
              .anyMatch(p -> p.remembered() != null || p.column() != column);
      if (first == null || second == null || first == second || isSpoken) {
        continue;
      }
      List<String> values = values(title);
      String sign = NameParts.between(parted.group("sign"), values);
      if (sign != null) {
        return new Whole(
            title,
            Map.of(first, NameParts.part(sign, 1, values), second, NameParts.part(sign, 2, values)),
            "“" + title + "” says " + first.name() + " and " + second.name());
      }
    }
    return null;
  }

  private static @Nullable FieldInfo called(TableInfo table, String part) {
    return table.fillable().stream()
        .filter(f -> f.type() == FieldType.TEXT && f.choices() == null && f.link() == null)
        .filter(f -> Likeness.of(table, f, part).isSame())
        .findFirst()
        .orElse(null);
  }

  /** True for a title of a first or of a last name. */
  private static boolean isOnePart(String title) {
    return Words.says(title, "forename") != Words.says(title, "surname") && !saysBoth(title);
  }

  private static boolean isWholeTitle(String title) {
    if (Words.says(title, "wholename")) {
      return true;
    }
    return !isOnePart(title)
        && (isPart(title) || Words.says(title, "name"))
        && Words.split(title).stream()
            .allMatch(w -> AND.contains(w) || OF_PEOPLE.stream().anyMatch(p -> Words.says(w, p)));
  }

  /**
   * True for a name and a part of it side by side: {@code Nom et prénom}, {@code Name, Vorname}.
   */
  private static boolean saysBoth(String title) {
    List<String> words = Words.split(title);
    boolean parted = words.stream().anyMatch(AND::contains) || title.matches(".*[,/&+].*");
    boolean begins = words.size() == 2 && Words.says(words.get(0), "name");
    return (parted || begins) && isPart(title) && Words.says(title, "name");
  }

  private List<String> values(String column) {
    return values(source.distinct(source.columns().indexOf(column)));
  }

  /** Whole names as they are parted: without spaces at their ends, with single ones within. */
  static List<String> values(DistinctValues values) {
    return values.tallies().keySet().stream()
        .limit(VALUES_TRIED)
        .map(Cell::text)
        .map(t -> t.strip().replaceAll("\\s+", " "))
        .toList();
  }
}
