package org.zestyporter.core.run;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/**
 * What a rehearsal or run does to the fields of records that are there: how many change, from blank
 * or to blank, how far at most, which values appear or vanish, and what their numbers add up to
 * before and after.
 */
public final class FieldSummary {
  /** A field with more values is not one whose values are told. */
  private static final int VALUES = 400;

  private static final int VALUES_TOLD = 8;

  private final List<Field> fields = new ArrayList<>();

  /**
   * What becomes of a field.
   *
   * @param records how many of them are written differently in it
   * @param filled of these, those that were blank
   * @param cleared of these, those that will be blank
   * @param largest the number or day that moves farthest; null if none does
   * @param appear values that no matched record held before, most frequent first; null if the field
   *     holds too many different ones
   * @param vanish values that no matched record holds any more
   * @param before what its numbers add up to in all matched records; null if it holds none
   * @param after the same as they will stand
   */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  public record Changed(
      String field,
      long records,
      long filled,
      long cleared,
      @Nullable Shift largest,
      @Nullable List<Counted> appear,
      @Nullable List<Counted> vanish,
      @Nullable BigDecimal before,
      @Nullable BigDecimal after) {}

  /**
   * How far a value moves.
   *
   * @param line of the row
   */
  public record Shift(long line, String from, String to) {}

  /** A value, and how many records hold it. */
  public record Counted(String value, long records) {}

  private static final class Field {
    private final String name;
    private long records;
    private long filled;
    private long cleared;
    private @Nullable Shift largest;
    private double distance;
    private @Nullable Map<String, long[]> values = new HashMap<>();
    private BigDecimal before = BigDecimal.ZERO;
    private BigDecimal after = BigDecimal.ZERO;
    private boolean isNumber;

    Field(String name) {
      this.name = name;
    }

    void stands(@Nullable Object was, @Nullable Object will) {
      if (was instanceof BigDecimal number) {
        before = before.add(number);
        isNumber = true;
      }
      if (will instanceof BigDecimal number) {
        after = after.add(number);
        isNumber = true;
      }
      if (values != null) {
        count(was, 0);
        count(will, 1);
      }
    }

    private void count(@Nullable Object value, int at) {
      boolean isWord = value instanceof String || value instanceof Boolean;
      if (value != null && !isWord) {
        values = null;
      } else if (value != null && values != null) {
        values.computeIfAbsent(Values.text(value), v -> new long[2])[at]++;
        values = values.size() > VALUES ? null : values;
      }
    }

    void changes(long line, @Nullable Object was, @Nullable Object will) {
      records++;
      filled += was == null ? 1 : 0;
      cleared += will == null ? 1 : 0;
      double far = distance(was, will);
      if (far > distance) {
        distance = far;
        largest = new Shift(line, Values.text(was), Values.text(will));
      }
    }

    Changed told() {
      boolean isTold = values != null && !isNumber;
      return new Changed(
          name,
          records,
          filled,
          cleared,
          largest,
          isTold ? counted(0, 1) : null,
          isTold ? counted(1, 0) : null,
          isNumber ? before : null,
          isNumber ? after : null);
    }

    /** Values that are counted on one side only. */
    private List<Counted> counted(int none, int some) {
      return values.entrySet().stream()
          .filter(e -> e.getValue()[none] == 0 && e.getValue()[some] > 0)
          .map(e -> new Counted(e.getKey(), e.getValue()[some]))
          .sorted(Comparator.comparingLong(Counted::records).reversed())
          .limit(VALUES_TOLD)
          .toList();
    }
  }

  /** How far two values are apart; 0 if that can't be said. */
  private static double distance(@Nullable Object was, @Nullable Object will) {
    if (was instanceof BigDecimal a && will instanceof BigDecimal b) {
      return a.subtract(b).abs().doubleValue();
    }
    LocalDateTime a = moment(was);
    LocalDateTime b = moment(will);
    return a == null || b == null ? 0 : Math.abs(ChronoUnit.SECONDS.between(a, b));
  }

  private static @Nullable LocalDateTime moment(@Nullable Object value) {
    if (value instanceof LocalDate day) {
      return day.atTime(LocalTime.MIDNIGHT);
    }
    return value instanceof LocalDateTime moment ? moment : null;
  }

  /** Adds the entries of a chunk; all have to be of one destination. */
  public void add(LedgerChunk chunk) {
    LedgerLayout layout = chunk.layout();
    while (fields.size() < layout.fields().size()) {
      fields.add(new Field(layout.fields().get(fields.size())));
    }
    for (int entry = 0; entry < chunk.size(); entry++) {
      Outcome outcome = chunk.outcome(entry);
      boolean isMatched =
          chunk.stood().get(entry) && (outcome == Outcome.CHANGED || outcome == Outcome.UNCHANGED);
      if (isMatched) {
        int[] changed = chunk.changed()[entry];
        for (int f = 0; f < layout.fields().size(); f++) {
          add(chunk, layout, entry, f, contains(changed, f));
        }
      }
    }
  }

  private static boolean contains(int @Nullable [] changed, int field) {
    return changed != null && Arrays.stream(changed).anyMatch(one -> one == field);
  }

  private void add(LedgerChunk chunk, LedgerLayout layout, int entry, int f, boolean changes) {
    Field field = fields.get(f);
    ValueColumn held = chunk.before()[layout.positions().get(f)];
    Object was = held.value(entry);
    Object will = changes ? chunk.after()[f].value(entry) : was;
    field.stands(was, will);
    if (changes) {
      field.changes(chunk.lines()[entry], was, will);
    }
  }

  /** The fields that change, those of most records first. */
  public List<Changed> result() {
    return fields.stream()
        .filter(f -> f.records > 0)
        .map(Field::told)
        .sorted(Comparator.comparingLong(Changed::records).reversed().thenComparing(Changed::field))
        .toList();
  }
}
