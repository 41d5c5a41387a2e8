package org.zestyporter.core.fill;

import java.util.List;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;

/**
 * A link to a record that the application does not have, and that a row of the same source may
 * make. It stands in the place of the key until that is known.
 *
 * @param table the linked table
 * @param key the field of it that the link holds
 * @param by names of the fields that it is looked up by
 * @param parts their values, as the fields compare them
 * @param missing what the fill gives if no row makes the record
 * @param shown what it was looked up by, as text
 */
public record Awaited(
    TableInfo table, FieldInfo key, LinkKey by, List<Object> parts, Filled missing, String shown) {
  @Override
  public String toString() {
    return "new " + shown;
  }
}
