package org.zestyporter.core.application;

import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What has to be looked up, as data: some fields of the records of a table.
 *
 * <p>How it is answered (a scan, keys in sets) is the application's choice by size. Whoever asks
 * compares by rules of its own, so an answer may hold more records than were asked for, never
 * fewer.
 *
 * @param fields the fields whose values are wanted
 * @param by the fields that tell which records; empty for all
 * @param wanted the values of these fields, in the form that {@link
 *     org.zestyporter.core.value.Storage#canonical} gives; null for all records
 */
public record Ask(
    TableInfo table,
    List<FieldInfo> fields,
    List<FieldInfo> by,
    @Nullable Collection<List<Object>> wanted) {

  /** For all records of a table. */
  public static Ask all(TableInfo table, List<FieldInfo> fields) {
    return new Ask(table, fields, List.of(), null);
  }

  /** For the records in which some fields hold one of these sets of values. */
  public static Ask keyed(
      TableInfo table,
      List<FieldInfo> fields,
      List<FieldInfo> by,
      Collection<List<Object>> wanted) {
    return new Ask(table, fields, by, wanted);
  }
}
