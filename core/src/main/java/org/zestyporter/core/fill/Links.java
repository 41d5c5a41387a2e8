package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
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
import org.zestyporter.core.value.HashedTexts;
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
  private static final int MOST = 200_000;
  private static final String BETWEEN = "\u001F";

  private final TableInfo table;
  private final FieldInfo keyField;
  private final LinkKey key;
  private final LinkParts by;

  /** Columns that hold the values of the further fields. */
  private final List<Integer> columns;

  private final LinkAnswers answers = new LinkAnswers(this::isSame);
  private volatile boolean askedForAll;

  /** Makes records that are missing; null if none is to be made. */
  private @Nullable RecordMaker maker;

  /** Values for which records are made, as they are compared; null for any. */
  private final @Nullable Set<String> makesOnly;

  private final Map<String, Made> made = new ConcurrentHashMap<>();

  /** True if rows of the same source may make the record. */
  private boolean awaits;

  /** What the records that they make are found by, prepared; null if that is not known. */
  private volatile @Nullable HashedTexts expected;

  Links(TableInfo table, FieldInfo keyField, Origin.Link link, List<Integer> columns) {
    this.table = table;
    this.keyField = keyField;
    this.columns = columns;
    List<String> names = new ArrayList<>(link.together());
    link.also().forEach(a -> names.add(a.field()));
    this.key = LinkKey.of(table.name(), names(table.fields(names)), link);
    this.by = new LinkParts(key, table);
    this.makesOnly =
        link.createOnly() == null
            ? null
            : link.createOnly().stream()
                .map(value -> by.prepared(by.first(value)))
                .collect(Collectors.toSet());
  }

  private static List<String> names(List<FieldInfo> fields) {
    return fields.stream().map(FieldInfo::name).toList();
  }

  /** How records are looked up. */
  LinkKey key() {
    return key;
  }

  void makeMissing(RecordMaker how) {
    maker = how;
  }

  /** How missing records are made; null if they are not. */
  @Nullable RecordMaker maker() {
    return maker;
  }

  /** Lets it await records that rows of the same source make. */
  void await() {
    awaits = true;
  }

  /** How rows of the same source are looked up that may make the record; null if none does. */
  @Nullable LinkKey awaited() {
    return awaits ? key : null;
  }

  /**
   * Awaits no records but some.
   *
   * @param values of their fields that are looked in; null for blank
   */
  void expect(Collection<List<Object>> values) {
    HashedTexts prepared = new HashedTexts();
    for (List<Object> record : values) {
      List<Object> parts = by.of(record);
      if (parts != null) {
        prepared.put(prepared(parts));
      }
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
    return askedForAll || answers.isAsked(prepared);
  }

  /**
   * The inquiry after some values.
   *
   * @param wanted their parts by their prepared forms
   */
  Inquiry inquiry(Map<String, List<Object>> wanted) {
    Ask ask =
        by.isLoose()
            ? Ask.all(table, read())
            : Ask.keyed(table, read(), by.fields(), wanted.values());
    return Inquiry.byRecord(ask, learning(wanted::containsKey), () -> answers.ask(wanted.keySet()));
  }

  /** The inquiry after all records that there are, up to a limit. */
  Inquiry inquiryForAll() {
    return Inquiry.byRecord(
        Ask.all(table, read()), learning(key -> answers.size() < MOST), () -> askedForAll = true);
  }

  private List<FieldInfo> read() {
    List<FieldInfo> read = new ArrayList<>(by.fields());
    read.add(keyField);
    return read;
  }

  private java.util.function.Consumer<Object[]> learning(Predicate<String> wanted) {
    int last = by.fields().size();
    return found -> {
      List<Object> parts =
          found[last] == null ? null : by.of(Arrays.asList(found).subList(0, last));
      String prepared = parts == null ? null : prepared(parts);
      if (prepared != null && wanted.test(prepared)) {
        answers.find(prepared, found[last]);
      }
    };
  }

  private boolean isSame(Object a, Object b) {
    return keyField.storage().same(a, b);
  }

  /** A value with the row's further values, each as its field compares it. */
  List<Object> parts(Object value, Row row) {
    List<FieldInfo> of = by.ofParts();
    List<Object> parts = new ArrayList<>(of.size());
    parts.add(by.first(value));
    for (int i = 0; i < columns.size(); i++) {
      Object also = row.column(columns.get(i));
      Object bare = also instanceof String text ? Texts.trim(text) : also;
      Storage storage = of.get(i + 1).storage();
      parts.add(bare == null || bare instanceof Problem ? "" : storage.canonical(bare));
    }
    return parts;
  }

  /** The form in which a value with its further values is looked up. */
  String prepared(List<Object> parts) {
    if (parts.size() == 1) {
      return by.prepared(parts.get(0));
    }
    StringBuilder key = new StringBuilder();
    for (int i = 0; i < parts.size(); i++) {
      key.append(i == 0 ? "" : BETWEEN).append(by.prepared(parts.get(i)));
    }
    return key.toString();
  }

  /** The key of the record that the application has for the value; null if it has none. */
  @Nullable Object known(List<Object> parts) {
    return answers.key(prepared(parts));
  }

  /** The key of the record that has the value, or a problem. */
  Object find(Object value, Row row) {
    String wanted = prepared(parts(value, row));
    Object found = answers.key(wanted);
    if (found == null && makes(value)) {
      return madeOf(wanted, value, row);
    }
    if (found == null) {
      return new Problem(
          ProblemCode.UNKNOWN_LINK,
          Values.text(value),
          "no " + table.name() + " has this " + fields());
    }
    return found == LinkAnswers.SEVERAL
        ? new Problem(
            ProblemCode.SEVERAL_LINKS,
            Values.text(value),
            "several records of " + table.name() + " have this " + fields())
        : found;
  }

  /** The record made of the first row that can make it; what keeps the rows before it from that. */
  private Object madeOf(String wanted, Object value, Row row) {
    Made own = made.get(wanted);
    if (own == null || row.index() < own.first) {
      Object record = maker.make(value, row);
      if (record instanceof Problem) {
        return record;
      }
      own = made.computeIfAbsent(wanted, w -> new Made(record, row.index()));
    }
    return own.record;
  }

  /**
   * A record that is to be made.
   *
   * @param first index of the row that it is made of
   */
  private record Made(Object record, long first) {}

  private boolean makes(Object value) {
    return maker != null && (makesOnly == null || makesOnly.contains(by.prepared(by.first(value))));
  }

  private String fields() {
    List<String> names = key.fields();
    return names.size() == 1
        ? names.get(0)
        : String.join(", ", names.subList(0, names.size() - 1))
            + " and "
            + names.get(names.size() - 1);
  }
}
