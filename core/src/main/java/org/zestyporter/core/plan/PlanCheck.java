package org.zestyporter.core.plan;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.ToldLink;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** Checks a plan against the table and the source that it is used with. */
public final class PlanCheck {
  /** Columns that are missing are told so many times by their names. */
  private static final int MISSING_TOLD = 3;

  private PlanCheck() {}

  /**
   * Something that keeps a plan from being used.
   *
   * @param code what kind of thing it is
   * @param field the field it concerns; null if none
   * @param message in the user's words
   */
  public record Matter(ErrorCode code, @Nullable String field, String message) {}

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
    return check(destination, table, columns, hasBook, null);
  }

  /**
   * The same for a destination that belongs to another one.
   *
   * @param parent name of the field that takes the parent's key; null if there is none
   */
  public static List<Matter> check(
      Destination destination,
      TableInfo table,
      List<String> columns,
      Predicate<String> hasBook,
      @Nullable String parent) {
    List<Matter> matters = new ArrayList<>();
    // who only updates records need not give what a new one can't do without
    boolean adds = destination.policies().onNone() == Policies.OnNone.ADD;
    Set<String> filled = new HashSet<>();
    if (parent != null) {
      filled.add(parent);
    }
    for (Fill fill : destination.fills()) {
      FieldInfo field = table.find(fill.field());
      if (field == null) {
        matters.add(
            new Matter(
                ErrorCode.NO_SUCH_FIELD,
                fill.field(),
                "The table " + table.name() + " has no field “" + fill.field() + "”."));
        continue;
      }
      if (!filled.add(field.name())) {
        matters.add(
            new Matter(ErrorCode.FILLED_TWICE, field.name(), field.name() + " is filled twice."));
      }
      if (fill.isGiven() && !field.isFillable()) {
        matters.add(
            new Matter(
                ErrorCode.UNFILLABLE_FIELD,
                field.name(),
                field.name() + ": " + field.unfillable() + ". Leave it to the database."));
        continue;
      }
      new FillCheck(field, adds && field.required(), columns, hasBook, matters).check(fill);
    }
    for (FieldInfo field : table.fields()) {
      if (adds && field.required() && !filled.contains(field.name())) {
        matters.add(
            new Matter(
                ErrorCode.REQUIRED_FIELD,
                field.name(),
                field.name()
                    + " is required and "
                    + (field.isFillable() ? "nothing fills it yet" : field.unfillable())
                    + "."));
      }
    }
    new KeyCheck(destination, table, matters).check(filled);
    return matters;
  }

  /**
   * Everything that is wrong with a destination's place among the others: its name, the rows it
   * takes, its parent, its table's links that the plan tells.
   *
   * @param columns names of the file's columns
   */
  public static List<Matter> places(
      Plan plan,
      Destination destination,
      List<String> columns,
      Function<String, TableInfo> tables) {
    List<Matter> matters = new ArrayList<>(links(plan, destination, tables));
    String label = destination.label();
    long same = plan.destinations().stream().filter(d -> d.label().equals(label)).count();
    if (same > 1) {
      matters.add(
          new Matter(
              ErrorCode.SAME_NAME,
              null,
              same
                  + " destinations are called “"
                  + label
                  + "”. Give each of them a name of its own."));
    }
    if (destination.distinct() && destination.keys().isEmpty()) {
      matters.add(
          new Matter(
              ErrorCode.DISTINCT_KEY,
              null,
              label + " takes distinct records only, so it needs a match key to tell them apart."));
    }
    Destination.Split split = destination.split();
    if (split != null && (split.at().isEmpty() || split.at().contains(""))) {
      matters.add(
          new Matter(ErrorCode.SPLIT, null, label + " is split, but nothing says at which sign."));
    } else if (split != null && columns.stream().noneMatch(split.column()::equalsIgnoreCase)) {
      matters.add(
          new Matter(
              ErrorCode.NO_SUCH_COLUMN,
              null,
              "The file has no column “" + split.column() + "”, at which " + label + " is split."));
    }
    if (destination.parent() != null) {
      String wrong = wrongParent(plan, destination, tables);
      if (wrong != null) {
        matters.add(new Matter(ErrorCode.PARENT, destination.parent().field(), wrong));
      }
    }
    return matters;
  }

  private static List<Matter> links(
      Plan plan, Destination destination, Function<String, TableInfo> tables) {
    List<Matter> matters = new ArrayList<>();
    TableInfo table = plan.links().isEmpty() ? null : tables.apply(destination.table());
    for (ToldLink link : plan.links()) {
      try {
        if (link.isOf(table)) {
          link.link(table, tables.apply(link.to()));
        }
      } catch (PorterException e) {
        FieldInfo field = table.find(link.field());
        String name = field == null ? link.field() : field.name();
        matters.add(new Matter(e.code(), name, e.getMessage()));
      }
    }
    return matters;
  }

  private static @Nullable String wrongParent(
      Plan plan, Destination destination, Function<String, TableInfo> tables) {
    Destination.Parent wanted = destination.parent();
    Destination parent = before(plan, destination);
    if (parent == null) {
      return destination.label()
          + " belongs to “"
          + wanted.destination()
          + "”, which is no destination before it.";
    }
    if (parent.split() != null) {
      return destination.label()
          + " can't belong to "
          + parent.label()
          + ", which makes several records of a row.";
    }
    TableInfo above = tables.apply(parent.table());
    FieldInfo field = parentField(destination, tables.apply(destination.table()), above);
    if (field == null) {
      return wanted.field() == null
          ? destination.table()
              + " has not just one field that points at "
              + parent.table()
              + ". Say which one takes its key."
          : wanted.field()
              + " of "
              + destination.table()
              + " does not point at "
              + parent.table()
              + ".";
    }
    if (destination.fills().stream().anyMatch(f -> f.field().equalsIgnoreCase(field.name()))) {
      return field.name() + " takes the key of " + parent.label() + ", and is filled besides.";
    }
    return above.primaryKey().equals(List.of(above.field(field.link().keyField()).name()))
        ? null
        : field.name() + " does not point at the primary key of " + parent.table() + ".";
  }

  private static @Nullable Destination before(Plan plan, Destination destination) {
    for (Destination other : plan.destinations()) {
      if (other.equals(destination)) {
        return null;
      }
      if (other.label().equals(destination.parent().destination())) {
        return other;
      }
    }
    return null;
  }

  /** The field that takes the parent's key; null if there is no parent or it can't be told. */
  public static @Nullable FieldInfo parentField(
      Plan plan, Destination destination, Function<String, TableInfo> tables) {
    Destination parent = destination.parent() == null ? null : before(plan, destination);
    return parent == null
        ? null
        : parentField(destination, tables.apply(destination.table()), tables.apply(parent.table()));
  }

  /** The field of a table that takes the key of its parent's; null if it can't be told. */
  public static @Nullable FieldInfo parentField(
      Destination destination, TableInfo table, TableInfo parent) {
    List<FieldInfo> links =
        table.linksTo(parent).stream()
            .filter(
                f ->
                    destination.parent().field() == null
                        || f.name().equalsIgnoreCase(destination.parent().field()))
            .toList();
    return links.size() == 1 ? links.get(0) : null;
  }

  /**
   * Throws if anything keeps the destination from being filled.
   *
   * @throws PorterException with all matters in its message and code {@code plan-incomplete}
   */
  public static void require(
      Destination destination, TableInfo table, List<String> columns, Predicate<String> hasBook) {
    require(check(destination, table, columns, hasBook));
  }

  /** Throws if there are matters. */
  public static void require(List<Matter> matters) {
    if (!matters.isEmpty()) {
      throw ErrorCode.PLAN_INCOMPLETE.error(told(matters));
    }
  }

  /** A file that is not the plan's has many columns that are missing, and one reason for all. */
  private static String told(List<Matter> matters) {
    List<String> told = new ArrayList<>();
    int missing = 0;
    for (Matter matter : matters) {
      boolean isMissing = matter.code() == ErrorCode.NO_SUCH_COLUMN;
      missing += isMissing ? 1 : 0;
      if (!isMissing || missing <= MISSING_TOLD) {
        told.add(matter.message());
      }
    }
    if (missing > MISSING_TOLD) {
      told.add(
          "%d more are missing. Is it another file, or are its titles in another line?"
              .formatted(missing - MISSING_TOLD));
    }
    return String.join(" ", told);
  }
}
