package org.zestyporter.core.application;

/**
 * The table and key field that a link points at.
 *
 * @param table what plans call it, with its schema if that is another one
 * @param declared false if the database does not say so, and only the names do: many applications
 *     keep their links to themselves
 */
public record LinkInfo(String table, String keyField, boolean declared) {
  public LinkInfo(String table, String keyField) {
    this(table, keyField, true);
  }

  /**
   * True if a field of a type can hold keys of another.
   *
   * @param name the type in the database's own words; likewise the other
   */
  public static boolean isAlike(FieldType type, String name, FieldType other, String otherName) {
    return type == other && (type != FieldType.OTHER || name.equals(otherName));
  }
}
