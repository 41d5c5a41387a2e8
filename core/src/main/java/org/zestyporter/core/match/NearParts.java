package org.zestyporter.core.match;

import java.math.BigDecimal;
import java.security.SecureRandom;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.MatchKey;
import org.zestyporter.core.value.Hash;
import org.zestyporter.core.value.Spelling;
import org.zestyporter.core.value.Utf8;
import org.zestyporter.core.value.ValueColumn;
import org.zestyporter.core.value.Values;

/**
 * The fields of a match key that need not agree, and how near their values have to be.
 *
 * <p>So that few records have to be looked at for a row, each record has some signs, and a row has
 * signs of which any near record has at least one: for spelling, parts of the text (of two texts
 * with two slips between them, one of three parts is the same in both); for a distance, the stretch
 * of so much that a number lies in. The fields that have to agree, and the figures of texts, are
 * part of every sign.
 */
final class NearParts {
  /** What a comparison of doubles may be off. */
  private static final double TOLERANCE = 1e-9;

  private final Hash hash = new Hash(new SecureRandom().nextLong());
  private final @Nullable PreparedKey exact;
  private final int exacts;
  private final List<FieldInfo> fields;
  private final int[] indexes;

  /** The distance allowed in each field; 0 for similar spelling. */
  private final double[] within;

  /** The field whose values make the signs. */
  private final int sign;

  /**
   * The values of a row or a record.
   *
   * @param block the hash of those that have to agree; 0 if there are none
   * @param values the others, as their fields keep them
   */
  record Held(long block, Object[] values) {}

  /**
   * The same made ready to be compared.
   *
   * @param values a number or a {@link Spelling} for each that need not agree
   */
  record Ready(long block, Object[] values) {}

  /** Takes the sign of a record, and the letters of the text that it is made of. */
  @FunctionalInterface
  interface Signs {
    void take(long sign, long letters);
  }

  /**
   * @param key the fields that have to agree come first
   */
  NearParts(MatchKey key, TableInfo table) {
    List<String> same = key.fields().stream().filter(f -> key.near(f) == null).toList();
    List<String> near = key.fields().stream().filter(f -> key.near(f) != null).toList();
    this.exact =
        same.isEmpty()
            ? null
            : new PreparedKey(new MatchKey(same, key.ignoring(), key.ignoringIn()), table);
    this.exacts = same.size();
    this.fields = table.fields(near);
    this.indexes = fields.stream().mapToInt(table.fields()::indexOf).toArray();
    this.within = new double[indexes.length];
    int bySpelling = -1;
    for (int i = 0; i < within.length; i++) {
      String how = key.near(near.get(i));
      if (how.equals(MatchKey.SPELLING)) {
        bySpelling = bySpelling < 0 ? i : bySpelling;
      } else {
        within[i] = Double.parseDouble(how);
      }
    }
    this.sign = Math.max(0, bySpelling);
  }

  /**
   * The values of a row.
   *
   * @param byField the columns of the table's fields
   * @return null if one of them is blank
   */
  @Nullable Held ofRow(ValueColumn[] byField, int row, Utf8 scratch) {
    if (exact != null && !exact.ofRow(byField, row, scratch)) {
      return null;
    }
    Object[] values = new Object[indexes.length];
    for (int i = 0; i < values.length; i++) {
      ValueColumn column = byField[indexes[i]];
      values[i] = column == null ? null : column.value(row);
    }
    return of(values, scratch);
  }

  /**
   * The values of a record.
   *
   * @param parts columns of the key's fields, those that have to agree first
   */
  @Nullable Held ofParts(ValueColumn[] parts, int row, Utf8 scratch) {
    if (exact != null && !exact.ofParts(parts, row, scratch)) {
      return null;
    }
    Object[] values = new Object[indexes.length];
    for (int i = 0; i < values.length; i++) {
      values[i] = parts[exacts + i].value(row);
    }
    return of(values, scratch);
  }

  private @Nullable Held of(Object[] values, Utf8 scratch) {
    long block = exact == null ? 0 : hash.of(scratch.array(), scratch.size());
    for (int i = 0; i < values.length; i++) {
      values[i] = fields.get(i).storage().canonical(values[i]);
      boolean known =
          within[i] == 0
              ? values[i] instanceof String
              : values[i] instanceof BigDecimal || values[i] instanceof LocalDate;
      if (!known) {
        return null;
      }
    }
    return new Held(block, values);
  }

  /** Values made ready to be compared; null if a text has nothing to be compared. */
  @Nullable Ready ready(Held values) {
    Object[] ready = new Object[within.length];
    for (int i = 0; i < ready.length; i++) {
      ready[i] = ready(values.values[i]);
      if (ready[i] instanceof Spelling spelling && spelling.isBlank()) {
        return null;
      }
    }
    return new Ready(values.block, ready);
  }

  private static Object ready(Object value) {
    if (value instanceof String text) {
      return Spelling.of(text);
    }
    return value instanceof BigDecimal number
        ? (Double) number.doubleValue()
        : (Double) (double) ((LocalDate) value).toEpochDay();
  }

  /**
   * How far two are apart: 0 for the same, more for less alike.
   *
   * @return under 0 if they are not near
   */
  double distance(Ready a, Held b) {
    if (a.block != b.block) {
      return -1;
    }
    double all = 0;
    for (int i = 0; i < within.length; i++) {
      double one;
      if (within[i] == 0) {
        int slips = Spelling.slips((Spelling) a.values[i], (Spelling) ready(b.values[i]));
        if (slips < 0) {
          return -1;
        }
        one = slips;
      } else {
        double x = (Double) a.values[i];
        double y = (Double) ready(b.values[i]);
        one = Math.abs(x - y) / within[i];
        if (one > 1 + TOLERANCE * Math.max(1, Math.abs(x) / within[i])) {
          return -1;
        }
      }
      all += one;
    }
    return all;
  }

  /** Hands over the signs of a record. */
  void signs(Ready record, Signs signs) {
    long letters = letters(record);
    long agreed = agreed(record);
    if (record.values[sign] instanceof Spelling spelling) {
      for (String form : spelling.forms()) {
        int parts = Spelling.mostSlips(form.length()) + 1;
        for (int part = 0; part < parts; part++) {
          int from = part * form.length() / parts;
          int to = (part + 1) * form.length() / parts;
          signs.take(sign(agreed, form.length(), part, form, from, to), letters);
        }
      }
    } else {
      signs.take(stretch(agreed, stretch(record)), letters);
    }
  }

  /** Letters of the text that makes the signs; 0 if that is no text. */
  long letters(Ready ready) {
    return ready.values[sign] instanceof Spelling spelling ? spelling.letters() : 0;
  }

  /** Hands over signs, of which every record that is near to a row has at least one. */
  void wanted(Ready row, LongConsumer signs) {
    long agreed = agreed(row);
    if (row.values[sign] instanceof Spelling spelling) {
      for (String form : spelling.forms()) {
        wanted(agreed, form, signs);
      }
    } else {
      for (long by = -1; by <= 1; by++) {
        signs.accept(stretch(agreed, stretch(row) + by));
      }
    }
  }

  /** What has to be the same, as a hash: the fields that have to agree, and figures in texts. */
  private static long agreed(Ready ready) {
    long agreed = ready.block;
    for (Object value : ready.values) {
      if (value instanceof Spelling spelling) {
        agreed = agreed * 31 + spelling.figures().hashCode();
      }
    }
    return agreed;
  }

  private static void wanted(long block, String form, LongConsumer signs) {
    int own = form.length();
    int longest = Spelling.mostSlips(own);
    for (int length = Math.max(1, own - longest); length <= own + longest; length++) {
      int most = Spelling.mostSlips(Math.min(own, length));
      int parts = Spelling.mostSlips(length) + 1;
      for (int part = 0; Math.abs(own - length) <= most && part < parts; part++) {
        int from = part * length / parts;
        int size = (part + 1) * length / parts - from;
        for (int at = Math.max(0, from - most); at <= from + most && at + size <= own; at++) {
          signs.accept(sign(block, length, part, form, at, at + size));
        }
      }
    }
  }

  private static long sign(long block, int length, int part, String text, int from, int to) {
    long hash = block * 31 + length * 8L + part;
    for (int i = from; i < to; i++) {
      hash = hash * 0x9E3779B97F4A7C15L + text.charAt(i);
    }
    return spread(hash);
  }

  private long stretch(Ready ready) {
    return (long) Math.floor((Double) ready.values[sign] / within[sign]);
  }

  private static long stretch(long block, long stretch) {
    return spread(block * 31 + stretch);
  }

  private static long spread(long hash) {
    long mixed = (hash ^ hash >>> 32) * 0xD1B54A32D192ED03L;
    return mixed ^ mixed >>> 29;
  }

  /** The values of a record that need not agree, such as {@code name Marigolde}. */
  String told(Held record) {
    List<String> parts = new ArrayList<>();
    for (int i = 0; i < fields.size(); i++) {
      parts.add(fields.get(i).name() + " " + Values.text(record.values[i]));
    }
    return String.join(", ", parts);
  }
}
