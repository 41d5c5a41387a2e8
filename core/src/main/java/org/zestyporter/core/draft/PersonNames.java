package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
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

  /** Of a hundred values so many have to be names of several words. */
  private static final int MOST = 80;

  private static final int LONGEST = 60;
  private static final int WORDS_MOST = 6;

  /** What stands between two parts of a title. */
  private static final Set<String> AND =
      Set.of(
          "and", "und", "et", "e", "y", "en", "og", "och", "ja", "i", "a", "ve", "es", "si", "и",
          "та", "και", "ו");

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

  /** Words of capitals at the beginning; a group for the steps that take it. */
  private static final String CAPITALS = "^((?:\\p{Lu}[\\p{Lu}'’-]+)(?:\\s+\\p{Lu}[\\p{Lu}'’-]+)*)";

  /** The last word with the small ones before it: {@code van der Berg}, {@code De Rossi}. */
  private static final String LAST =
      "(?:(?:\\p{Ll}\\S*|(?i:van|von|der|den|de|del|della|di|da|dos|du|la|le|ten|ter|zu|al|el|bin"
          + "|ibn|ben))\\s+)*\\S+";

  private static final Pattern IN_CAPITALS = Pattern.compile(CAPITALS + "\\s+\\p{Lu}.*\\p{Ll}.*");

  /** Scripts whose names begin with that of the family. */
  private static final Pattern FAMILY_FIRST =
      Pattern.compile(".*[\\p{IsHan}\\p{IsHangul}\\p{IsHiragana}\\p{IsKatakana}].*");

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

  private static boolean isPart(String title) {
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
    FieldInfo first = only(table, "forename");
    FieldInfo last = only(table, "surname");
    if (first == null || last == null || first == last) {
      return null;
    }
    List<Pair> ofThem =
        chosen.stream().filter(p -> p.field() == first || p.field() == last).toList();
    boolean spoken = ofThem.stream().anyMatch(p -> p.remembered() != null || isOnePart(title(p)));
    List<Pair> others = chosen.stream().filter(p -> !ofThem.contains(p)).toList();
    String column = spoken ? null : free(others, PersonNames::isWholeTitle);
    if (column == null) {
      return null;
    }
    Boolean familyFirst = order(column);
    return familyFirst == null ? null : parted(column, first, last, familyFirst);
  }

  /** The only text field that says a part of a name; null if there is not just one. */
  private static @Nullable FieldInfo only(TableInfo table, String part) {
    List<FieldInfo> saying =
        table.fields().stream()
            .filter(f -> f.type() == FieldType.TEXT && f.isFillable() && !f.generated())
            .filter(f -> Words.says(f.name(), part))
            .toList();
    return saying.size() == 1 ? saying.get(0) : null;
  }

  /** True for a title of a first or of a last name. */
  private static boolean isOnePart(String title) {
    return Words.says(title, "forename") != Words.says(title, "surname") && !saysBoth(title);
  }

  private static boolean isWholeTitle(String title) {
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
    DistinctValues values = source.distinct(source.columns().indexOf(column));
    return values.tallies().keySet().stream()
        .limit(VALUES_TRIED)
        .map(Cell::text)
        .map(t -> t.strip().replaceAll("\\s+", " "))
        .toList();
  }

  /** True if the family's name stands first, false if last; null if these are no such names. */
  private @Nullable Boolean order(String column) {
    List<String> values = values(column);
    if (!most(values, PersonNames::looksLikeName)) {
      return null;
    }
    int name = place(column, "name");
    int forename = Words.says(column, "forename") ? place(column, "forename") : name;
    int surname = Words.says(column, "surname") ? place(column, "surname") : name;
    return isPart(column) && forename >= 0 && surname >= 0
        ? surname < forename
        : most(values, t -> t.indexOf(',') > 0)
            || most(values, t -> IN_CAPITALS.matcher(t).matches())
            || most(values, t -> FAMILY_FIRST.matcher(t).matches());
  }

  private static int place(String title, String part) {
    List<String> words = Words.split(title);
    for (int i = 0; i < words.size(); i++) {
      if (Words.says(words.get(i), part)) {
        return i;
      }
    }
    return -1;
  }

  private static boolean most(List<String> values, Predicate<String> of) {
    return !values.isEmpty() && values.stream().filter(of).count() * 100 >= values.size() * MOST;
  }

  private static boolean looksLikeName(String text) {
    int words = text.split(" ").length;
    return words > 1
        && words <= WORDS_MOST
        && text.length() <= LONGEST
        && text.chars().noneMatch(c -> Character.isDigit(c) || c == '@');
  }

  private Whole parted(String column, FieldInfo first, FieldInfo last, boolean familyFirst) {
    List<String> values = values(column);
    Step tidy = Step.of(StepKind.COLLAPSE_SPACES);
    if (familyFirst && most(values, t -> t.indexOf(',') > 0)) {
      return whole(column, first, at(",", 2), last, at(",", 1), "in front of the comma");
    }
    if (values.stream().allMatch(t -> t.split(" ").length <= 2)) {
      return whole(
          column,
          first,
          List.of(tidy, at(" ", familyFirst ? 2 : 1).get(0)),
          last,
          List.of(tidy, at(" ", familyFirst ? 1 : 2).get(0)),
          familyFirst ? "first" : "last");
    }
    if (!familyFirst) {
      return whole(
          column,
          first,
          List.of(tidy, take("^(.*?\\S)(?:\\s+" + LAST + ")?$")),
          last,
          List.of(tidy, take("^.*?\\S\\s+(" + LAST + ")$")),
          "last");
    }
    String family =
        most(values, t -> IN_CAPITALS.matcher(t).matches())
            ? CAPITALS + "(?:\\s+|$)"
            : "^(\\S+)(?:\\s+|$)";
    return whole(
        column,
        first,
        List.of(tidy, Step.of(StepKind.REPLACE_PATTERN, "pattern", family, "to", "")),
        last,
        List.of(tidy, take(family)),
        "first");
  }

  private static Step take(String pattern) {
    return Step.of(StepKind.TAKE_PATTERN, "pattern", pattern);
  }

  private static List<Step> at(String sign, int which) {
    return List.of(Step.of(StepKind.SPLIT, "at", sign, "which", String.valueOf(which)));
  }

  private static Whole whole(
      String column,
      FieldInfo first,
      List<Step> ofFirst,
      FieldInfo last,
      List<Step> ofLast,
      String where) {
    return new Whole(
        column,
        Map.of(first, ofFirst, last, ofLast),
        "“" + column + "” holds whole names; that of the family seems to stand " + where);
  }
}
