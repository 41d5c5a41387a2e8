package org.zestyporter.core.plan;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * What a person said of rows with certain key values, against or beyond what the match keys say. It
 * lapses where the values change: other values are no longer spoken of.
 *
 * @param of values of the fields of one match key, as the rows give them
 * @param act what becomes of such rows
 * @param record primary key of the record that they speak of, for {@code take}
 * @param not primary keys of the records that they do not speak of, for {@code other}: a record
 *     that the key finds besides, such as the one that they have become, is theirs, or asked about;
 *     null if they speak of none, whatever it finds
 */
public record Decision(
    Map<String, String> of,
    Act act,
    @Nullable List<String> record,
    @Nullable List<List<String>> not) {

  /** What becomes of rows. */
  public enum Act {
    /** They speak of this record. */
    TAKE,
    /** They speak of none of the records that this key finds, or found when it was said. */
    OTHER,
    SKIP,
    REJECT,
    /** Of several rows that say different things the first is right. */
    FIRST,
    /** The last is right. */
    LAST,
    /** They are one record, in which each field takes the first value that is not blank. */
    MERGE;

    /** True for what is said of several rows with the same key, not of the record they mean. */
    public boolean isOfRepeats() {
      return this == FIRST || this == LAST || this == MERGE;
    }

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  public Decision {
    of = of == null ? Map.of() : new TreeMap<>(of);
    act = act == null ? Act.OTHER : act;
    record = record == null ? null : List.copyOf(record);
    not = not == null ? null : not.stream().map(List::copyOf).toList();
  }

  public Decision(Map<String, String> of, Act act, @Nullable List<String> record) {
    this(of, act, record, null);
  }
}
