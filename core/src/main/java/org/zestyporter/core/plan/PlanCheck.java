package org.zestyporter.core.plan;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.database.FieldInfo;
import org.zestyporter.core.database.TableInfo;
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

  /** Everything that keeps a destination from being filled; empty if nothing does. */
  public static List<Matter> check(Destination destination, TableInfo table, List<String> columns) {
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
      checkFill(fill, field, columns, matters);
    }
    for (FieldInfo field : table.fields()) {
      if (field.required() && !filled.contains(field.name())) {
        matters.add(
            new Matter(
                "required-field",
                field.name(),
                field.name() + " is required and nothing fills it yet."));
      }
    }
    checkKeys(destination, table, filled, matters);
    return matters;
  }

  private static void checkFill(
      Fill fill, FieldInfo field, List<String> columns, List<Matter> matters) {
    Origin origin = fill.origin();
    if (origin == null || origin.kind() == null) {
      matters.add(new Matter("no-origin", field.name(), field.name() + " has no origin."));
      return;
    }
    if (origin.readsColumn()
        && columns.stream().noneMatch(c -> c.equalsIgnoreCase(origin.column()))) {
      matters.add(
          new Matter(
              "no-such-column",
              field.name(),
              "The file has no column “"
                  + origin.column()
                  + "”, which fills "
                  + field.name()
                  + "."));
    }
    if (origin.kind() == Origin.Kind.LINK && (field.link() == null || origin.link() == null)) {
      matters.add(
          new Matter("no-link", field.name(), field.name() + " is not a link to another table."));
    }
    if (origin.kind() == Origin.Kind.GENERATED && origin.generator() == null) {
      matters.add(
          new Matter(
              "no-generator", field.name(), "Say what is generated for " + field.name() + "."));
    }
    if (origin.kind() == Origin.Kind.DATABASE && field.required()) {
      matters.add(
          new Matter(
              "required-field",
              field.name(),
              field.name() + " is required and the database has no value of its own for it."));
    }
    for (Step step : fill.steps()) {
      String refusal = step.kind() == null ? "A step has no kind" : step.kind().refusal(step);
      if (refusal != null) {
        matters.add(new Matter("step-settings", field.name(), field.name() + ": " + refusal + "."));
      }
    }
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
  public static void require(Destination destination, TableInfo table, List<String> columns) {
    List<Matter> matters = check(destination, table, columns);
    if (!matters.isEmpty()) {
      throw PorterException.input(
          "plan-incomplete", String.join(" ", matters.stream().map(Matter::message).toList()));
    }
  }
}
