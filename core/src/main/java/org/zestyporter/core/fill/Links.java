package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.value.Comparison;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Storage;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.Values;

/**
 * The keys of linked records, by what they are looked up by. What it has to know it is told: it
 * asks, and learns from the answers.
 *
 * <p>Only values that the source asks for are kept, so memory follows the source's distinct values
 * and not the linked table.
 */
final class Links {
  private static final Object SEVERAL = new Object();
  private static final int MOST = 200_000;
  private static final String BETWEEN = "\u001F";

  private final TableInfo table;
  private final FieldInfo keyField;
  private final List<FieldInfo> by;
  private final Comparison comparison;

  /** Columns that hold the values of the further fields. */
  private final List<Integer> columns;

  private final Map<String, Object> keys = new ConcurrentHashMap<>();
  private final Set<String> asked = ConcurrentHashMap.newKeySet();
  private volatile boolean askedForAll;

  /** Makes records that are missing; null if none is to be made. */
  private @Nullable RecordMaker maker;

  /** Values for which records are made, as they are compared; null for any. */
  private final @Nullable Set<String> makesOnly;

  private final Map<String, Object> made = new ConcurrentHashMap<>();

  /** How rows of the same source are looked up that may make the record; null if none does. */
  private @Nullable LinkKey awaited;

  /** What the records that they make are found by, prepared; null if that is not known. */
  private volatile @Nullable Set<String> expected;

  Links(TableInfo table, FieldInfo keyField, Origin.Link link, List<Integer> columns) {
    this.table = table;
    this.keyField = keyField;
    this.comparison = Comparison.ignoring(link.ignoring());
    this.columns = columns;
    List<String> names = new ArrayList<>(List.of(link.by()));
    link.also().forEach(a -> names.add(a.field()));
    this.by = table.fields(names);
    this.makesOnly =
        link.createOnly() == null
            ? null
            : link.createOnly().stream().map(comparison::prepare).collect(Collectors.toSet());
  }

  void makeMissing(RecordMaker how) {
    maker = how;
  }

  /** How missing records are made; null if they are not. */
  @Nullable RecordMaker maker() {
    return maker;
  }

  void await(LinkKey key) {
    awaited = key;
  }

  /** How rows of the same source are looked up that may make the record; null if none does. */
  @Nullable LinkKey awaited() {
    return awaited;
  }

  /** Awaits no records but those that are found by some values. */
  void expect(Collection<List<Object>> values) {
    Set<String> prepared = new HashSet<>();
    for (List<Object> parts : values) {
      List<Object> canonical = new ArrayList<>(parts.size());
      for (int i = 0; i < parts.size(); i++) {
        canonical.add(by.get(i).storage().canonical(parts.get(i)));
      }
      prepared.add(prepared(canonical));
    }
    expected = prepared;
  }

  /** True if a row of the same source may make the record. */
  boolean expects(List<Object> parts) {
    return expected == null || expected.contains(prepared(parts));
  }

  TableInfo table() {
    return table;
  }

  /** The field of the table that the link holds. */
  FieldInfo keyField() {
    return keyField;
  }

  boolean isKnown(String prepared) {
    return askedForAll || asked.contains(prepared);
  }

  /**
   * The inquiry after some values.
   *
   * @param wanted their parts by their prepared forms
   */
  Inquiry inquiry(Map<String, List<Object>> wanted) {
    Ask ask =
        comparison.isLoose()
            ? Ask.all(table, read())
            : Ask.keyed(table, read(), by, wanted.values());
    return Inquiry.byRecord(
        ask, learning(wanted::containsKey), () -> asked.addAll(wanted.keySet()));
  }

  /** The inquiry after all records that there are, up to a limit. */
  Inquiry inquiryForAll() {
    return Inquiry.byRecord(
        Ask.all(table, read()), learning(key -> keys.size() < MOST), () -> askedForAll = true);
  }

  private List<FieldInfo> read() {
    List<FieldInfo> read = new ArrayList<>(by);
    read.add(keyField);
    return read;
  }

  private java.util.function.Consumer<Object[]> learning(Predicate<String> wanted) {
    int last = by.size();
    return found -> {
      List<Object> parts = new ArrayList<>(last);
      for (int i = 0; i < last; i++) {
        if (found[i] == null) {
          return;
        }
        parts.add(by.get(i).storage().canonical(found[i]));
      }
      String prepared = prepared(parts);
      if (found[last] != null && wanted.test(prepared)) {
        keys.merge(prepared, found[last], (a, b) -> same(a, b) ? a : SEVERAL);
      }
    };
  }

  private boolean same(Object a, Object b) {
    return a != SEVERAL && b != SEVERAL && keyField.storage().same(a, b);
  }

  /** A value with the row's further values, each as its field compares it. */
  List<Object> parts(Object value, Row row) {
    List<Object> parts = new ArrayList<>(by.size());
    parts.add(by.get(0).storage().canonical(value));
    for (int i = 0; i < columns.size(); i++) {
      Object also = row.column(columns.get(i));
      Object bare = also instanceof String text ? Texts.trim(text) : also;
      Storage storage = by.get(i + 1).storage();
      parts.add(bare == null || bare instanceof Problem ? "" : storage.canonical(bare));
    }
    return parts;
  }

  /** The form in which a value with its further values is looked up. */
  String prepared(List<Object> parts) {
    if (parts.size() == 1) {
      return comparison.prepare(parts.get(0));
    }
    StringBuilder key = new StringBuilder();
    for (int i = 0; i < parts.size(); i++) {
      key.append(i == 0 ? "" : BETWEEN).append(comparison.prepare(parts.get(i)));
    }
    return key.toString();
  }

  /** The key of the record that the application has for the value; null if it has none. */
  @Nullable Object known(List<Object> parts) {
    return keys.get(prepared(parts));
  }

  /** The key of the record that has the value, or a problem. */
  Object find(Object value, Row row) {
    String wanted = prepared(parts(value, row));
    Object key = keys.get(wanted);
    if (key == null && makes(value)) {
      return made.computeIfAbsent(wanted, w -> maker.make(value, row));
    }
    if (key == null) {
      return new Problem(
          ProblemCode.UNKNOWN_LINK,
          Values.text(value),
          "no " + table.name() + " has this " + fields());
    }
    return key == SEVERAL
        ? new Problem(
            ProblemCode.SEVERAL_LINKS,
            Values.text(value),
            "several records of " + table.name() + " have this " + fields())
        : key;
  }

  private boolean makes(Object value) {
    return maker != null
        && (makesOnly == null
            || makesOnly.contains(comparison.prepare(by.get(0).storage().canonical(value))));
  }

  private String fields() {
    List<String> names = by.stream().map(FieldInfo::name).toList();
    return names.size() == 1
        ? names.get(0)
        : String.join(", ", names.subList(0, names.size() - 1))
            + " and "
            + names.get(names.size() - 1);
  }
}
