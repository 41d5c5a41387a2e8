package org.zestyporter.core.plan;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.value.PorterException;

/** Checks a plan against the table and the source that it is used with. */
public final class PlanCheck {
  private PlanCheck() {}

  /**
   * Something that keeps a plan from being used.
   *
   * @param code a stable word for programs
   * @param field the field it concerns; null if none
   * @param message in the user's words
   */
  public record Matter(String code, @Nullable String field, String message) {}

  /** As {@link #check(Destination, TableInfo, List, Predicate)}, whatever phrasebooks there are. */
  public static List<Matter> check(Destination destination, TableInfo table, List<String> columns) {
    return check(destination, table, columns, book -> true);
  }

  /**
   * Everything that keeps a destination from being filled; empty if nothing does.
   *
   * @param columns names of the file's columns
   * @param hasBook tells whether there is a phrasebook of a name
   */
  public static List<Matter> check(
      Destination destination, TableInfo table, List<String> columns, Predicate<String> hasBook) {
    List<Matter> matters = new ArrayList<>();
    Set<String> filled = new HashSet<>();
    for (Fill fill : destination.fills()) {
      FieldInfo field = table.find(fill.field());
      if (field == null) {
        matters.add(
            new Matter(
                "no-such-field",
                fill.field(),
                "The table " + table.name() + " has no field “" + fill.field() + "”."));
        continue;
      }
      if (!filled.add(field.name())) {
        matters.add(new Matter("filled-twice", field.name(), field.name() + " is filled twice."));
      }
      boolean given = fill.origin() == null || fill.origin().kind() != Origin.Kind.DATABASE;
      if (given && !field.isFillable()) {
        matters.add(
            new Matter(
                "unfillable-field",
                field.name(),
                field.name() + ": " + field.unfillable() + ". Leave it to the database."));
        continue;
      }
      new FillCheck(field, columns, hasBook, matters).check(fill);
    }
    for (FieldInfo field : table.fields()) {
      if (field.required() && !filled.contains(field.name())) {
        matters.add(
            new Matter(
                "required-field",
                field.name(),
                field.name()
                    + " is required and "
                    + (field.isFillable() ? "nothing fills it yet" : field.unfillable())
                    + "."));
      }
    }
    checkKeys(destination, table, filled, matters);
    return matters;
  }

  private static void checkKeys(
      Destination destination, TableInfo table, Set<String> filled, List<Matter> matters) {
    for (MatchKey key : destination.keys()) {
      if (key.fields().isEmpty()) {
        matters.add(new Matter("empty-key", null, "A match key needs at least one field."));
      }
      for (String name : key.fields()) {
        FieldInfo field = table.find(name);
        if (field == null || !filled.contains(field.name())) {
          matters.add(
              new Matter(
                  "key-not-filled", name, "The match key uses " + name + ", which nothing fills."));
        }
      }
    }
    if (!destination.keys().isEmpty() && table.primaryKey().isEmpty()) {
      matters.add(
          new Matter(
              "no-primary-key",
              null,
              table.name()
                  + " has no primary key, so its records can't be updated. Take away the"
                  + " match key to add every row."));
    }
  }

  /**
   * Throws if anything keeps the destination from being filled.
   *
   * @throws PorterException with all matters in its message and code {@code plan-incomplete}
   */
  public static void require(
      Destination destination, TableInfo table, List<String> columns, Predicate<String> hasBook) {
    List<Matter> matters = check(destination, table, columns, hasBook);
    if (!matters.isEmpty()) {
      throw PorterException.input(
          "plan-incomplete", String.join(" ", matters.stream().map(Matter::message).toList()));
    }
  }
}
