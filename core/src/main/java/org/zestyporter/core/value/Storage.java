package org.zestyporter.core.value;

import com.fasterxml.jackson.annotation.JsonValue;
import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * How a field keeps a value, and so what <em>the same</em> means for it.
 *
 * <p>This is the only place that says whether two values of a field are the same: the fills bring
 * their values into the form in which they will stand, and matching, comparing with existing
 * records, the books and reading back all ask here.
 *
 * <pre>{@code
 * Storage.of(Kind.REAL).stored(new BigDecimal("24.123456789")); // 24.123457
 * Storage.of(Kind.UUID).same("9F…", "9f…");                     // true
 * }</pre>
 *
 * @param kind the family of types
 * @param digits digits of a second that a time keeps; null if all, or if it is no time
 * @param members what a set may hold, in its own order; empty if it is no set
 * @param element how a list keeps each of its values; null if it is no list
 */
public record Storage(
    Kind kind, @Nullable Integer digits, List<String> members, @Nullable Storage element) {

  /** Families of types that compare alike. */
  public enum Kind {
    /** Text, character by character. */
    TEXT,
    /** Text in which spaces at the end have no meaning (SQL's {@code CHARACTER(n)}). */
    PADDED,
    /** Text in which capitals have no meaning. */
    CASELESS,
    /** Exact numbers; 20 and 20.0 are the same. */
    NUMBER,
    /** Binary floating point of 32 bits (IEEE 754). */
    REAL,
    /** Binary floating point of 64 bits (IEEE 754). */
    DOUBLE,
    DATE,
    TIME,
    /** A date with a time of day, and no zone. */
    MOMENT,
    /** A point in time; shown in UTC. */
    INSTANT,
    BOOLEAN,
    /** RFC 9562, capitals without meaning. */
    UUID,
    /** RFC 8259; order of keys and spaces without meaning. */
    JSON,
    /** Bytes, as {@code \x} and hexadecimal digits. */
    BINARY,
    /** Some of the values of a list, with commas between them; their order has no meaning. */
    SET,
    /** Any number of values of one type, in their order. */
    LIST,
    /** A length of time, in months, days and a part of a day. */
    INTERVAL,
    /** Anything else, as the database writes it. */
    OTHER;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  private static final Pattern HEX = Pattern.compile("\\\\x(?:[0-9A-Fa-f]{2})*");
  private static final Pattern UUIDS =
      Pattern.compile("\\{?(\\p{XDigit}{8}-?(?:\\p{XDigit}{4}-?){3}\\p{XDigit}{12})}?");

  public static Storage of(Kind kind) {
    return new Storage(kind, null, List.of(), null);
  }

  /** A kind of time that keeps so many digits of a second. */
  public static Storage timed(Kind kind, int digits) {
    return new Storage(kind, digits, List.of(), null);
  }

  /** A set of some of these values. */
  public static Storage set(List<String> members) {
    return new Storage(Kind.SET, null, List.copyOf(members), null);
  }

  /** A list of values that are kept so. */
  public static Storage list(Storage element) {
    return new Storage(Kind.LIST, null, List.of(), element);
  }

  /**
   * The form in which the field keeps a value of its own type.
   *
   * @return the value, or a {@link Problem} if the field can't keep it
   */
  public Object stored(Object value) {
    if (value == null || value instanceof Problem) {
      return value;
    }
    return switch (kind) {
      case PADDED -> value instanceof String text ? stripSpaces(text) : value;
      case REAL, DOUBLE -> value instanceof BigDecimal number ? floating(number) : value;
      case TIME -> value instanceof LocalTime time ? rounded(time) : value;
      case MOMENT ->
          value instanceof OffsetDateTime moment
              ? rounded(local(moment))
              : value instanceof LocalDateTime moment ? rounded(moment) : value;
      case INSTANT ->
          value instanceof OffsetDateTime moment
              ? instant(moment)
              : value instanceof LocalDateTime moment
                  ? instant(moment.atZone(ZoneId.systemDefault()).toOffsetDateTime())
                  : value;
      case UUID -> value instanceof String text ? uuid(text) : value;
      case JSON -> value instanceof String text ? json(text) : value;
      case BINARY -> value instanceof String text ? binary(text) : value;
      case SET -> value instanceof String text ? set(text) : value;
      case LIST -> value instanceof String text ? ListTexts.canonical(text, element) : value;
      case INTERVAL -> value instanceof String text ? interval(text) : value;
      default -> value;
    };
  }

  /**
   * Which of two values comes first, as {@link java.util.Comparator#compare}: numbers, days and
   * times by their size, all else by their texts.
   */
  @SuppressWarnings({"unchecked", "rawtypes"})
  public int compare(Object a, Object b) {
    Object left = canonical(a);
    Object right = canonical(b);
    return left instanceof Comparable one && left.getClass() == right.getClass()
        ? one.compareTo(right)
        : Values.text(left).compareTo(Values.text(right));
  }

  /**
   * The form in which values are compared: two values are the same if these are equal. Takes values
   * of the field's type, and texts of a source where they can be read so.
   */
  public Object canonical(Object value) {
    Object stored = stored(value);
    if (stored instanceof Problem) {
      return value;
    }
    return switch (kind) {
      case CASELESS -> stored instanceof String s ? s.toLowerCase(Locale.ROOT) : stored;
      case JSON -> stored instanceof String s ? JsonTexts.canonical(s) : stored;
      case NUMBER, REAL, DOUBLE -> number(stored);
      default -> stored;
    };
  }

  /** True if the field would hold the same for both. */
  public boolean same(Object a, Object b) {
    if (a == null || b == null) {
      return a == b;
    }
    if (a instanceof BigDecimal x && b instanceof BigDecimal y && kind == Kind.NUMBER) {
      return x.compareTo(y) == 0;
    }
    return a.equals(b) || canonical(a).equals(canonical(b));
  }

  private static Object number(Object value) {
    if (value instanceof BigDecimal number) {
      return Values.bare(number);
    }
    BigDecimal read =
        value instanceof String text && text.chars().allMatch(c -> c < 128)
            ? NumberReader.find(text, ".")
            : null;
    return read == null ? value : Values.bare(read);
  }

  private Object floating(BigDecimal number) {
    double nearest = kind == Kind.REAL ? number.floatValue() : number.doubleValue();
    if (Double.isInfinite(nearest) || (nearest == 0 && number.signum() != 0)) {
      return new Problem(
          ProblemCode.OUT_OF_RANGE, Values.text(number), "beyond what the field can keep");
    }
    // the shortest decimal that stands for this number and no other
    BigDecimal kept =
        new BigDecimal(kind == Kind.REAL ? Float.toString((float) nearest) : "" + nearest);
    boolean whole = number.stripTrailingZeros().scale() <= 0;
    return whole && kept.compareTo(number) != 0
        ? new Problem(
            ProblemCode.TOO_PRECISE,
            Values.text(number),
            "the field keeps only about " + (kind == Kind.REAL ? 7 : 15) + " digits")
        : Values.bare(kept);
  }

  private LocalTime rounded(LocalTime time) {
    LocalDateTime rounded = rounded(time.atDate(java.time.LocalDate.EPOCH));
    // what would be midnight of the next day stays the last moment of this one
    return rounded.toLocalDate().toEpochDay() > 0
        ? LocalTime.MAX.truncatedTo(digits == 0 ? ChronoUnit.SECONDS : ChronoUnit.MICROS)
        : rounded.toLocalTime();
  }

  private LocalDateTime rounded(LocalDateTime moment) {
    if (digits == null || digits >= 9) {
      return moment;
    }
    long unit = 1;
    for (int i = digits; i < 9; i++) {
      unit *= 10;
    }
    long nanos = moment.getNano();
    long up = (nanos + unit / 2) / unit * unit;
    return moment.plusNanos(up - nanos);
  }

  private OffsetDateTime instant(OffsetDateTime moment) {
    return rounded(moment.withOffsetSameInstant(ZoneOffset.UTC).toLocalDateTime())
        .atOffset(ZoneOffset.UTC);
  }

  /** A point in time on the clock of the zone that this installation stands in. */
  public static LocalDateTime local(OffsetDateTime moment) {
    return moment.atZoneSameInstant(ZoneId.systemDefault()).toLocalDateTime();
  }

  private static Object uuid(String text) {
    String bare = text.strip();
    if (!UUIDS.matcher(bare).matches()) {
      return new Problem(
          ProblemCode.MALFORMED, text, "no UUID, which has 32 digits from 0 to 9 and a to f");
    }
    String digits = bare.replaceAll("[{}-]", "").toLowerCase(Locale.ROOT);
    return new UUID(
            Long.parseUnsignedLong(digits.substring(0, 16), 16),
            Long.parseUnsignedLong(digits.substring(16), 16))
        .toString();
  }

  private static Object json(String text) {
    String mistake = JsonTexts.mistake(text);
    return mistake == null ? text : new Problem(ProblemCode.MALFORMED, text, mistake);
  }

  /** The members of a set once each, in the order of the field's own list. */
  private Object set(String text) {
    Set<String> given = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    for (String part : text.isBlank() ? new String[0] : text.split(",")) {
      String member = part.strip();
      if (members.stream().noneMatch(member::equalsIgnoreCase)) {
        return new Problem(
            ProblemCode.UNKNOWN_CHOICE, member, "allowed are " + String.join(", ", members));
      }
      given.add(member);
    }
    return members.stream().filter(given::contains).collect(Collectors.joining(","));
  }

  private static Object interval(String text) {
    String span = TimeSpans.canonical(text);
    return span == null
        ? new Problem(
            ProblemCode.MALFORMED, text, "no length of time, such as 2 days 03:30 or P2DT3H30M")
        : span;
  }

  private static Object binary(String text) {
    return HEX.matcher(text).matches()
        ? text.toLowerCase(Locale.ROOT)
        : new Problem(
            ProblemCode.MALFORMED, text, "bytes are written as \\x and two digits 0 to f for each");
  }

  private static String stripSpaces(String text) {
    int end = text.length();
    while (end > 0 && text.charAt(end - 1) == ' ') {
      end--;
    }
    return text.substring(0, end);
  }
}
