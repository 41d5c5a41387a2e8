package org.zestyporter.core.application;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Problem;

/**
 * A table of the application.
 *
 * @param schema the schema it was found in; null if the database has none
 * @param name what plans call it: its name, after its schema and a point if that is not the
 *     connection's own
 * @param relation its name alone
 * @param primaryKey its fields in order; empty if the table has no primary key
 * @param uniques sets of fields that identify a record, the primary key not among them
 * @param rules rules over the fields of a record that can be told beforehand
 * @param ownRules rules that only the database knows, in a few words each: triggers, checks that
 *     can't be understood beforehand, indexes over more than fields
 * @param checks the texts of its check constraints by the constraints' names
 */
public record TableInfo(
    @Nullable String schema,
    String name,
    @JsonIgnore String relation,
    @Nullable String comment,
    List<FieldInfo> fields,
    List<String> primaryKey,
    List<List<String>> uniques,
    @JsonIgnore List<RowRule> rules,
    List<String> ownRules,
    @JsonIgnore Map<String, String> checks) {

  /** A table of the connection's own schema. */
  public TableInfo(
      @Nullable String schema,
      String name,
      @Nullable String comment,
      List<FieldInfo> fields,
      List<String> primaryKey,
      List<List<String>> uniques) {
    this(schema, name, name, comment, fields, primaryKey, uniques, List.of(), List.of(), Map.of());
  }

  /** The same table with a link of one of its fields. */
  public TableInfo with(String field, LinkInfo link) {
    List<FieldInfo> linked =
        fields.stream().map(f -> f.name().equalsIgnoreCase(field) ? f.withLink(link) : f).toList();
    return new TableInfo(
        schema, name, relation, comment, linked, primaryKey, uniques, rules, ownRules, checks);
  }

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
   * The fields that point at another table; where any is declared to, none of those that seem to.
   */
  public List<FieldInfo> linksTo(TableInfo other) {
    List<FieldInfo> all =
        fields.stream()
            .filter(f -> f.link() != null && f.link().table().equals(other.name()))
            .toList();
    List<FieldInfo> declared = all.stream().filter(f -> f.link().declared()).toList();
    return declared.isEmpty() ? all : declared;
  }

  /**
   * The field of a name, ignoring capitals.
   *
   * @throws PorterException if there is none
   */
  public FieldInfo field(String field) {
    FieldInfo info = find(field);
    if (info == null) {
      throw ErrorCode.NO_SUCH_FIELD.error("The table " + name + " has no field “" + field + "”.");
    }
    return info;
  }

  /** The fields to which a new record can be given a value, but those that the database numbers. */
  public List<FieldInfo> fillable() {
    return fields.stream().filter(f -> !f.generated() && f.isFillable()).toList();
  }

  public List<FieldInfo> fields(List<String> names) {
    return names.stream().map(this::field).toList();
  }

  /**
   * The primary key that is written as a {@link KeyText}.
   *
   * @return null if it can be no key of this table
   */
  public @Nullable List<Object> key(String text) {
    List<FieldInfo> keyFields = fields(primaryKey);
    List<String> parts = KeyText.parts(text, keyFields.size());
    if (parts.size() != keyFields.size()) {
      return null;
    }
    List<Object> key = new ArrayList<>(parts.size());
    for (int i = 0; i < parts.size(); i++) {
      Object part = keyFields.get(i).type().read(parts.get(i));
      if (part == null || keyFields.get(i).storage().stored(part) instanceof Problem) {
        return null;
      }
      key.add(keyFields.get(i).storage().canonical(part));
    }
    return key;
  }

  /** The rules that look at one field alone, by its index. */
  public List<RowRule> rulesOf(int field) {
    return rules.stream().filter(r -> r.fields().equals(Set.of(field))).toList();
  }
}
