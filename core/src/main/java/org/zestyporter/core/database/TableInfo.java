package org.zestyporter.core.database;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.PorterException;

/**
 * A table of the application.
 *
 * @param schema the schema it was found in; null if the database has none
 * @param primaryKey its fields in order; empty if the table has no primary key
 * @param uniques sets of fields that identify a record, the primary key not among them
 */
public record TableInfo(
    @Nullable String schema,
    String name,
    @Nullable String comment,
    List<FieldInfo> fields,
    List<String> primaryKey,
    List<List<String>> uniques) {

  /** The field of a name, ignoring capitals; null if there is none. */
  public FieldInfo find(String field) {
    for (FieldInfo info : fields) {
      if (info.name().equalsIgnoreCase(field)) {
        return info;
      }
    }
    return null;
  }

  /**
   * The field of a name, ignoring capitals.
   *
   * @throws PorterException if there is none
   */
  public FieldInfo field(String field) {
    FieldInfo info = find(field);
    if (info == null) {
      throw PorterException.input(
          "no-such-field", "The table " + name + " has no field “" + field + "”.");
    }
    return info;
  }

  public List<FieldInfo> fields(List<String> names) {
    return names.stream().map(this::field).toList();
  }
}
