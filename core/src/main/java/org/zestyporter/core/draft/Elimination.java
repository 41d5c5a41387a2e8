package org.zestyporter.core.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Words;

/** Pairs what is left over. */
final class Elimination {
  private static final Set<FieldType> ONLY_THEMSELVES =
      Set.of(FieldType.DATE, FieldType.DATETIME, FieldType.TIME, FieldType.BOOLEAN);

  private final Pairing pairing;
  private final SourceTable source;
  private final TableInfo table;

  Elimination(Pairing pairing, SourceTable source, TableInfo table) {
    this.pairing = pairing;
    this.source = source;
    this.table = table;
  }

  /**
   * Fields that nothing fills, and columns that feed nothing: where only one column is left that
   * fits a field, and only one field that it fits, they are paired. Of fields that need no value
   * only days, times, and yes or no, which hardly anything else is taken for, and only where the
   * title says nothing or the values agree. A field that needs one takes the column that is called
   * just as it is, though it may have held nothing of the kind so far.
   *
   * @param used names of columns that feed something else already
   */
  List<Pair> of(List<FieldInfo> fields, List<Pair> chosen, Set<String> used) {
    List<Integer> free =
        IntStream.range(0, Math.min(PlanDraft.COLUMNS_DRAFTED, source.columns().size()))
            .filter(c -> chosen.stream().noneMatch(p -> p.column() == c))
            .filter(c -> !pairing.isConstant(c) && !used.contains(source.columns().get(c)))
            .boxed()
            .toList();
    List<FieldInfo> open =
        fields.stream()
            .filter(f -> f.link() == null && f.choices() == null && !f.unique())
            .filter(f -> !isKey(f) && Stamps.of(f) == null)
            .filter(f -> chosen.stream().noneMatch(p -> p.field() == f))
            .toList();
    List<Pair> pairs = new ArrayList<>();
    for (FieldInfo field : open) {
      List<Integer> called = free.stream().filter(c -> isCalled(c, field)).toList();
      if (field.required() && called.size() == 1) {
        pairs.add(left(field, called.get(0), "the names agree, and nothing else can fill it"));
        continue;
      }
      List<Integer> fitting = free.stream().filter(c -> pairing.types().fits(c, field)).toList();
      if (!isWanted(field) || fitting.size() != 1) {
        continue;
      }
      int column = fitting.get(0);
      long rivals =
          open.stream()
              .filter(f -> f.required() || areOfAKind(f, field))
              .filter(f -> pairing.types().fits(column, f))
              .count();
      // a title that says something, but not this, is not passed over for what need not be filled
      boolean isOpen =
          field.required()
              || isSilent(source.columns().get(column), field)
              || pairing.agreement(table, field, column).score() >= Pairing.ENOUGH;
      if (rivals == 1 && isOpen) {
        pairs.add(left(field, column, "the only column left whose values it can take"));
      }
    }
    return pairs;
  }

  private static Pair left(FieldInfo field, int column, String because) {
    return new Pair(field, column, Pairing.ENOUGH, null, because, Certainty.GUESS);
  }

  /** True if a column that a field can take is called just as the field is. */
  private boolean isCalled(int column, FieldInfo field) {
    return pairing.types().fits(column, field)
        && Likeness.of(table, field, source.columns().get(column)).isSame();
  }

  /** True for a number that is called a key: of a table that is not known, or nobody else's. */
  private static boolean isKey(FieldInfo field) {
    List<String> words = Words.split(field.name());
    return field.type().isNumber() && words.get(words.size() - 1).equals("id");
  }

  private static boolean isWanted(FieldInfo field) {
    return field.required() || ONLY_THEMSELVES.contains(field.type()) && !field.hasDefault();
  }

  private static boolean areOfAKind(FieldInfo a, FieldInfo b) {
    return ONLY_THEMSELVES.contains(a.type()) && ONLY_THEMSELVES.contains(b.type());
  }

  /**
   * True for a title that was made up, since there was none, that says as little, or that only says
   * that it is a day, for a field that holds one.
   */
  private static boolean isSilent(String title, FieldInfo field) {
    boolean isDay = field.type() == FieldType.DATE || field.type() == FieldType.DATETIME;
    return title.matches("Column [A-Z]+")
        || title.strip().length() <= 2
        || isDay && Words.of(title).size() == 1 && Words.says(title, "date");
  }
}
