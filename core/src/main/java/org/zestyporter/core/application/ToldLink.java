package org.zestyporter.core.application;

import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * A link that the database does not declare, told by somebody who knows the application.
 *
 * @param table the table that has it
 * @param field the field that holds a key
 * @param to the table whose key that is
 * @param key the field of that table that is held; null for its primary key or, if that is of
 *     another type, for the only other field that identifies a record and is of this one
 */
public record ToldLink(String table, String field, String to, @Nullable String key) {
  public ToldLink {
    // a document may leave them out, and what is wrong then is told where the plan is checked
    table = table == null ? "" : table;
    field = field == null ? "" : field;
    to = to == null ? "" : to;
  }

  /** True if a table has it, ignoring capitals. */
  public boolean isOf(TableInfo own) {
    return own.name().equalsIgnoreCase(table);
  }

  /**
   * The link that it is.
   *
   * @param own the table that has it
   * @param target the table that it points at
   * @throws PorterException if it can be none, with code {@code no-link}
   */
  public LinkInfo link(TableInfo own, TableInfo target) {
    FieldInfo holds = own.find(field);
    if (holds == null) {
      throw error(own.name() + " has no field “" + field + "” that could hold its key.");
    }
    LinkInfo other = holds.link();
    if (other != null && other.declared()) {
      if (other.table().equals(target.name())
          && (key == null || key.equalsIgnoreCase(other.keyField()))) {
        return other;
      }
      String to = other.table() + "." + other.keyField();
      throw error("the database says that " + field + " points at " + to + ".");
    }
    return new LinkInfo(target.name(), key(holds, target).name());
  }

  private FieldInfo key(FieldInfo holds, TableInfo target) {
    if (key != null) {
      FieldInfo held = target.find(key);
      if (held == null) {
        throw error(target.name() + " has no field “" + key + "”.");
      }
      if (!isAlike(holds, held)) {
        throw error(typed(holds) + " can't hold " + typed(held) + ".");
      }
      return held;
    }
    List<List<String>> primary = List.of(target.primaryKey());
    List<FieldInfo> held = alike(holds, target, primary);
    List<FieldInfo> keys = held.isEmpty() ? alike(holds, target, target.uniques()) : held;
    if (keys.size() != 1) {
      throw error(
          (keys.isEmpty()
                  ? "it has no key of one field that " + typed(holds) + " could hold"
                  : "it has several fields that " + typed(holds) + " could hold")
              + ". Say which of its fields that is.");
    }
    return keys.get(0);
  }

  private static List<FieldInfo> alike(
      FieldInfo holds, TableInfo target, List<List<String>> identifying) {
    Stream<String> single = identifying.stream().filter(f -> f.size() == 1).map(f -> f.get(0));
    return single.map(target::field).filter(f -> isAlike(holds, f)).distinct().toList();
  }

  private static boolean isAlike(FieldInfo one, FieldInfo other) {
    return LinkInfo.isAlike(one.type(), one.typeName(), other.type(), other.typeName());
  }

  private static String typed(FieldInfo field) {
    return field.name() + " (" + field.typeName() + ")";
  }

  private PorterException error(String why) {
    return ErrorCode.NO_LINK.error(
        "The plan says that " + field + " of " + table + " points at " + to + ", but " + why);
  }
}
