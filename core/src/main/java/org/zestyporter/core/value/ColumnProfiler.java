package org.zestyporter.core.value;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zestyporter.core.value.ColumnProfile.Finding;
import org.zestyporter.core.value.ColumnProfile.FindingCode;

/**
 * Tells what a column holds from every one of its cells, in one pass and in bounded memory.
 *
 * <p>The cells are judged in the locale given; if {@link #votes} then speak for another one, the
 * column is profiled again.
 */
public final class ColumnProfiler {
  private static final Pattern PARTED_DATE =
      Pattern.compile(
          "(\\d{1,2})([./-])\\s?(\\d{1,2})\\2\\s?(\\d{2}|\\d{4})\\.?(?:(?:,? |T)[^\\d]*\\d.*)?");

  /** More characters than a word for blank has. */
  private static final int LONGEST_WORD = 8;

  /** More bytes than a word for blank has, with some spaces around it. */
  private static final int MOST_WORD = 40;

  private static final Pattern SHORTENED =
      // as spreadsheets show whole numbers of twelve digits and more
      Pattern.compile("[+-]?\\d([.,]\\d+)?[Ee]\\+(1[0-9]|[2-9]\\d|\\d{3})");
  private static final Pattern SHORT_YEAR =
      Pattern.compile(
          "\\d{1,2}([./-])\\s?\\d{1,2}\\1\\s?\\d{2}|\\d{1,2}[ ./-]\\p{L}{3,9}[ ./-]\\d{2}");
  private static final Pattern BLANK_WORD =
      Pattern.compile(
          "[-–—]{1,4}|(?i)n/a|n\\. ?a\\.|#n/[avd]|#nv|null|nil|\\(null\\)|\\(blank\\)"
              + "|k\\. ?a\\.|o\\. ?a\\.|n\\. ?v\\. ?t\\.|s/d|s\\. ?d\\.|n\\. ?d\\.");
  private static final Pattern NUMBER_BLANK_WORD = Pattern.compile("(?i)na|none|nan|\\?{1,3}|\\.");
  private static final Pattern DAY_AND_MONTH = Pattern.compile("\\d{1,2}-(\\p{L}{3})");
  private static final int SHOWN = 12;
  private static final int LONGEST_TYPED = 60;

  private final LocaleSettings locale;
  private final long[] fits = new long[ValueType.values().length];
  private final Examples[] examples = new Examples[ValueType.values().length];
  private final Ranges ranges = new Ranges();
  private final Map<FindingCode, Finding> findings = new EnumMap<>(FindingCode.class);
  private final Map<String, long[]> currencies = new LinkedHashMap<>();
  private final Map<String, long[]> blankWords = new LinkedHashMap<>();
  private final Map<String, Long> datePatterns = new LinkedHashMap<>();
  private String lastCurrency = "";
  private String lastCode = "";
  private Votes votes = Votes.NONE;
  private long rows;
  private int longest;
  private int maxScale;
  private boolean grouped;
  private boolean bound;
  private boolean ungrouped;
  private Finding storedDates;
  private final PlainText plain = new PlainText();
  private long plainVotes;
  private long plainEither;

  public ColumnProfiler(LocaleSettings locale) {
    this.locale = locale;
  }

  /**
   * Judges a cell for all rows that hold it; the line is that of the first of them. It may be
   * called again for the same cell.
   */
  public void add(Cell cell, long count, long line) {
    if (cell.isBlank()) {
      return;
    }
    rows += count;
    String text = cell.text();
    longest = Math.max(longest, text.length());
    ValueType type;
    Object value;
    if (cell.kind() == Cell.Kind.TEXT) {
      String stripped = text.strip();
      if (stripped.length() != text.length()) {
        find(FindingCode.OUTER_SPACES, count, line, text);
      }
      value = typed(AsciiSigns.of(stripped), count, line);
      type = typeOf(value);
    } else {
      value = stored(cell, count, line);
      type = typeOf(value);
      if (type == ValueType.DATE || type == ValueType.DATETIME) {
        storedDates = plus(storedDates, FindingCode.DATES_AMONG_CODES, count, line, text);
      }
    }
    fits[type.ordinal()] += count;
    ranges.add(type, value);
    Examples known = examples[type.ordinal()];
    if (known == null) {
      known = new Examples(SHOWN * 4);
      examples[type.ordinal()] = known;
    }
    known.count(text, count, line);
  }

  /** The same for a cell given by its text in UTF-8. */
  public void add(Cell.Kind kind, byte[] bytes, int from, int to, long count, long line) {
    if (kind != Cell.Kind.TEXT || !addPlain(bytes, from, to, count)) {
      add(new Cell(kind, new String(bytes, from, to - from, StandardCharsets.UTF_8)), count, line);
    }
  }

  /** Judges a text whose type is plain to see, without making it; false if it is not. */
  private boolean addPlain(byte[] bytes, int from, int to, long count) {
    int length = to - from;
    if (length > LONGEST_TYPED) {
      return false;
    }
    PlainText plain = this.plain.look(bytes, from, to, locale.decimal().charAt(0));
    ValueType type = plain.type();
    // what stands for a type is counted by its text, as long as there are few
    Examples known = type == null ? null : examples[type.ordinal()];
    if (known == null || known.isOpen() || known.has(bytes, from, to)) {
      return false;
    }
    rows += count;
    longest = Math.max(longest, plain.characters());
    fits[type.ordinal()] += count;
    switch (type) {
      case TEXT -> {
        bound |= plain.isSigned();
        ranges.addText(bytes, from, to);
      }
      case DATE -> ranges.addDay(plain.number());
      default -> numbers(plain, count);
    }
    return true;
  }

  private void numbers(PlainText plain, long count) {
    int scale = plain.scale();
    bound |= scale > 0;
    maxScale = Math.max(maxScale, scale);
    if (plain.digitsBefore() > 3) {
      grouped |= plain.isNegative();
      ungrouped |= !plain.isNegative();
    }
    if (scale > 0) {
      vote(plain.digitsBefore(), scale, count);
    }
    ranges.addNumber(plain.number(), scale);
  }

  /** What a number with a decimal sign says of it: three digits behind it may be thousands. */
  private void vote(int before, int behind, long count) {
    if (behind != 3) {
      plainVotes += count;
    } else if (before >= 1 && before <= 3) {
      plainEither += count;
    }
  }

  private static void count(Map<String, long[]> counts, String text, long count, long line) {
    long[] known = counts.get(text);
    if (known != null) {
      known[0] += count;
    } else if (counts.size() < SHOWN * 4) {
      counts.put(text, new long[] {count, line});
    }
  }

  private Object stored(Cell cell, long count, long line) {
    Object value = cell.value();
    if (value instanceof Problem problem) {
      find(
          problem.code() == ProblemCode.UNDECODABLE ? FindingCode.UNDECODABLE : FindingCode.ERRORS,
          count,
          line,
          cell.text());
      return cell.text();
    }
    if (value instanceof BigDecimal number) {
      if (isCode(cell.text())) {
        find(FindingCode.LEADING_ZEROS, count, line, cell.text());
        return cell.text();
      }
      maxScale = Math.max(maxScale, number.scale());
    }
    return value;
  }

  /** The text as a value of the narrowest type that it can be read as. */
  private Object typed(String text, long count, long line) {
    if (text.length() > LONGEST_TYPED) {
      return text;
    }
    if (isBlankWord(text)) {
      count(blankWords, text, count, line);
    }
    if (!hasDigit(text)) {
      // one letter says it where letters are syllables or words; of ours hardly any does
      boolean one = text.charAt(0) > 0x7F || "yYnNjJ".contains(text);
      boolean word = text.length() > 1 ? !"on".equalsIgnoreCase(text) : one;
      return word && ValueReader.truth(text) instanceof Boolean truth ? truth : text;
    }
    boolean shortened = text.indexOf('+') > 0 && SHORTENED.matcher(text).matches();
    boolean none = shortened || text.indexOf(':') > 0;
    BigDecimal number = none ? null : NumberReader.find(text, locale.decimal());
    return number == null ? moment(text, count, line) : number(text, number, count, line);
  }

  private static boolean isBlankWord(String text) {
    return text.length() < LONGEST_WORD
        && mayBeBlankWord(text.charAt(0))
        && (BLANK_WORD.matcher(text).matches() || NUMBER_BLANK_WORD.matcher(text).matches());
  }

  /** True if a cell holds a word that may stand for a blank. */
  public static boolean isBlankWord(Cell cell) {
    return cell.kind() == Cell.Kind.TEXT && !cell.isBlank() && isBlankWord(cell.text().strip());
  }

  /** True if a word that may stand for a blank can begin so: with a sign, or a byte of UTF-8. */
  public static boolean mayBeBlankWord(int first) {
    return switch (first) {
      case '-', 'n', 'N', '#', '(', '?', '.', 'k', 'K', 'o', 'O', 's', 'S' -> true;
      // a dash, or what begins with spaces
      default -> first >= 0x80 || first > 0 && first <= ' ';
    };
  }

  /**
   * True if a text may be such a word, by its beginning and its length.
   *
   * @param bytes holds it in UTF-8
   */
  public static boolean mayBeBlankWord(byte[] bytes, int from, int to) {
    if (from == to || to - from >= MOST_WORD || !mayBeBlankWord(bytes[from] & 0xFF)) {
      return false;
    }
    int end = to;
    while (end > from && bytes[end - 1] == ' ') {
      end--;
    }
    int characters = 0;
    for (int i = from; i < end; i++) {
      characters += (bytes[i] & 0xC0) == 0x80 ? 0 : 1;
    }
    // spaces of other kinds may stand around it
    return characters < LONGEST_WORD || bytes[from] <= ' ' || bytes[Math.max(from, end - 1)] <= ' ';
  }

  private Object number(String text, BigDecimal number, long count, long line) {
    if (isCode(text)) {
      find(FindingCode.LEADING_ZEROS, count, line, text);
      return text;
    }
    bound |= text.indexOf('.') >= 0 || text.indexOf(',') >= 0;
    votes = votes.plus(Votes.ofNumber(text, count));
    String currency = NumberReader.currencyOf(text);
    if (currency != null) {
      if (!currency.equals(lastCurrency)) {
        lastCurrency = currency;
        lastCode = Codes.currency(currency) instanceof String code ? code : currency;
      }
      count(currencies, lastCode, count, line);
    }
    maxScale = Math.max(maxScale, number.scale());
    if (number.precision() - number.scale() > 3) {
      boolean hasGroups =
          text.chars().filter(c -> !Character.isDigit(c)).count() > (number.scale() > 0 ? 1 : 0);
      grouped |= hasGroups;
      ungrouped |= !hasGroups;
    }
    return number;
  }

  private Object moment(String text, long count, long line) {
    boolean signed = text.indexOf('.') >= 0 || text.indexOf(',') >= 0;
    Matcher parted = mayBeParted(text) ? PARTED_DATE.matcher(text) : null;
    boolean isParted = parted != null && parted.matches();
    bound |= isParted || signed;
    if (isParted) {
      int first = Integer.parseInt(parted.group(1));
      int second = Integer.parseInt(parted.group(3));
      votes = votes.plus(Votes.ofDate(first, second, count));
    } else if (signed) {
      votes = votes.plus(Votes.ofNumber(text, count));
    }
    String century = locale.century() == null ? "20" : locale.century();
    Object value = null;
    int clock = ClockReader.begin(text);
    if (clock >= 0) {
      value = clock == 0 ? ValueReader.time(text) : null;
      if (value == null || value instanceof Problem) {
        value = ValueReader.dateTime(text, locale.dateOrder(), century);
        value = value instanceof OffsetDateTime moment ? Storage.local(moment) : value;
      }
    } else if (ValueReader.mayBeDate(text)) {
      value = ValueReader.date(text, locale.dateOrder(), century);
    }
    if (value != null && !(value instanceof Problem)) {
      if (value instanceof LocalDate && SHORT_YEAR.matcher(text).matches()) {
        find(FindingCode.SHORT_YEARS, count, line, text);
      }
      if (value instanceof LocalDate && isParted) {
        datePatterns.merge(datePattern(parted), count, Long::sum);
      }
      return value;
    }
    if (text.indexOf('+') > 0 && SHORTENED.matcher(text).matches()) {
      find(FindingCode.SHORTENED_NUMBERS, count, line, text);
    } else if (isDayAndMonth(text)) {
      storedDates = plus(storedDates, FindingCode.DATES_AMONG_CODES, count, line, text);
    }
    return text;
  }

  private static boolean mayBeParted(String text) {
    int digits = text.length() > 2 && Character.isDigit(text.charAt(1)) ? 2 : 1;
    return Character.isDigit(text.charAt(0))
        && text.length() > digits
        && "./-".indexOf(text.charAt(digits)) >= 0;
  }

  /** A code such as MAR2, as a spreadsheet shows it once it took it for a date. */
  private static boolean isDayAndMonth(String text) {
    Matcher m = text.length() > 7 ? null : DAY_AND_MONTH.matcher(text);
    return m != null && m.matches() && MonthNames.number(m.group(1)) != null;
  }

  private String datePattern(Matcher parted) {
    String sign = parted.group(2);
    String year = parted.group(4).length() == 2 ? "yy" : "yyyy";
    return locale.dateOrder() == DateOrder.MONTH_DAY_YEAR
        ? "M" + sign + "d" + sign + year
        : "d" + sign + "M" + sign + year;
  }

  private static boolean isCode(String text) {
    int at = text.startsWith("-") || text.startsWith("+") ? 1 : 0;
    return text.length() > at + 1
        && text.charAt(at) == '0'
        && Character.isDigit(text.charAt(at + 1))
        && text.indexOf('.') < 0
        && text.indexOf(',') < 0;
  }

  private static boolean hasDigit(String text) {
    for (int i = 0; i < text.length(); i++) {
      if (Character.isDigit(text.charAt(i))) {
        return true;
      }
    }
    return false;
  }

  private void find(FindingCode code, long count, long line, String sample) {
    findings.put(code, plus(findings.get(code), code, count, line, sample));
  }

  private static Finding plus(
      Finding known, FindingCode code, long count, long line, String sample) {
    return known == null
        ? new Finding(code, count, line, sample)
        : new Finding(
            code,
            known.rows() + count,
            Math.min(known.line(), line),
            known.line() <= line ? known.sample() : sample);
  }

  private static ValueType typeOf(Object value) {
    if (value instanceof BigDecimal number) {
      return number.scale() > 0 ? ValueType.DECIMAL : ValueType.WHOLE;
    }
    if (value instanceof LocalDate) {
      return ValueType.DATE;
    }
    if (value instanceof LocalDateTime) {
      return ValueType.DATETIME;
    }
    if (value instanceof LocalTime) {
      return ValueType.TIME;
    }
    return value instanceof Boolean ? ValueType.BOOLEAN : ValueType.TEXT;
  }

  /** What the cells said about decimal sign and date order. */
  public Votes votes() {
    boolean comma = ",".equals(locale.decimal());
    return votes.plus(
        new Votes(comma ? plainVotes : 0, comma ? 0 : plainVotes, plainEither, 0, 0, 0));
  }

  public LocaleSettings locale() {
    return locale;
  }

  /** True if a cell was met that another locale would read otherwise. */
  public boolean dependsOnLocale() {
    return bound;
  }

  /** Words that mean blank elsewhere but stand here among other words. */
  public Set<String> wordsThatMayBeValues() {
    Set<String> words = new HashSet<>(blankWords.keySet());
    words.removeAll(blankWords().keySet());
    return words;
  }

  /**
   * Words that stand for a blank: dashes and the like anywhere, {@code NA}, {@code none} and
   * question marks only where all else is numbers or dates.
   *
   * @return each word with its rows
   */
  public Map<String, Long> blankWords() {
    Map<String, Long> words = new LinkedHashMap<>();
    long all = blankWords.values().stream().mapToLong(n -> n[0]).sum();
    boolean typed = all < rows && decide(all) != ValueType.TEXT;
    blankWords.forEach(
        (word, n) -> {
          if (typed || BLANK_WORD.matcher(word).matches()) {
            words.put(word, n[0]);
          }
        });
    return words;
  }

  /**
   * The column as it was found to be.
   *
   * @param own the locale in which its texts are to be read
   */
  public ColumnProfile profile(
      String name, String letter, LocaleSettings own, DistinctValues values) {
    ValueType type = decide(0);
    return new ColumnProfile(
        name,
        letter,
        type,
        pattern(type),
        own,
        values.blank(),
        values.tallies().size(),
        values.beyond() > 0,
        ranges.least(type),
        ranges.greatest(type),
        longest,
        isAmbiguous(type),
        samples(values),
        misfits(type),
        settled(type));
  }

  private boolean isAmbiguous(ValueType type) {
    return (type == ValueType.DATE || type == ValueType.DATETIME)
        && votes.eitherWay() > 0
        && votes.dayFirst() == 0
        && votes.monthFirst() == 0;
  }

  private ValueType decide(long leftOut) {
    long all = rows - leftOut;
    if (all <= 0) {
      return ValueType.EMPTY;
    }
    long needed = (all * 9 + 9) / 10;
    long decimal = fits[ValueType.DECIMAL.ordinal()];
    if (fits[ValueType.WHOLE.ordinal()] + decimal >= needed) {
      if (findings.containsKey(FindingCode.LEADING_ZEROS)) {
        // 0042 and 1042 are codes of one kind, and no zero of them may go
        return ValueType.TEXT;
      }
      return decimal == 0 ? ValueType.WHOLE : ValueType.DECIMAL;
    }
    long dateTime = fits[ValueType.DATETIME.ordinal()];
    if (dateTime > 0 && fits[ValueType.DATE.ordinal()] + dateTime >= needed) {
      return ValueType.DATETIME;
    }
    for (ValueType type : List.of(ValueType.DATE, ValueType.TIME, ValueType.BOOLEAN)) {
      if (fits[type.ordinal()] >= needed) {
        return type;
      }
    }
    return ValueType.TEXT;
  }

  private static boolean fits(ValueType cell, ValueType column) {
    return cell == column
        || (column == ValueType.DECIMAL && cell == ValueType.WHOLE)
        || (column == ValueType.DATETIME && cell == ValueType.DATE);
  }

  private String pattern(ValueType type) {
    return switch (type) {
      case WHOLE -> ungrouped && !grouped ? "0" : "#,##0";
      case DECIMAL ->
          (ungrouped && !grouped ? "0." : "#,##0.")
              + "0".repeat(Math.max(1, Math.min(9, maxScale)));
      case DATE ->
          datePatterns.entrySet().stream()
              .max(Map.Entry.comparingByValue())
              .map(Map.Entry::getKey)
              .orElse("yyyy-MM-dd");
      case DATETIME -> "yyyy-MM-dd HH:mm";
      case TIME -> "H:mm";
      default -> null;
    };
  }

  private static List<ColumnProfile.ValueCount> samples(DistinctValues values) {
    List<Map.Entry<Cell, DistinctValues.Tally>> top = new ArrayList<>();
    for (Map.Entry<Cell, DistinctValues.Tally> e : values.tallies().entrySet()) {
      long n = e.getValue().rows();
      if (top.size() == SHOWN && top.get(SHOWN - 1).getValue().rows() >= n) {
        continue;
      }
      int at = top.size();
      while (at > 0 && top.get(at - 1).getValue().rows() < n) {
        at--;
      }
      top.add(at, e);
      if (top.size() > SHOWN) {
        top.remove(SHOWN);
      }
    }
    return top.stream()
        .map(
            e ->
                new ColumnProfile.ValueCount(
                    e.getKey().text(), e.getValue().rows(), e.getValue().line()))
        .toList();
  }

  private List<ColumnProfile.ValueCount> misfits(ValueType type) {
    if (type == ValueType.TEXT) {
      return List.of();
    }
    return Arrays.stream(ValueType.values())
        .filter(t -> examples[t.ordinal()] != null && !fits(t, type))
        .flatMap(t -> examples[t.ordinal()].counts().entrySet().stream())
        .map(e -> new ColumnProfile.ValueCount(e.getKey(), e.getValue()[0], e.getValue()[1]))
        .sorted(
            Comparator.comparingLong((ColumnProfile.ValueCount v) -> -v.rows())
                .thenComparingLong(ColumnProfile.ValueCount::line))
        .limit(SHOWN)
        .toList();
  }

  /** The findings that say something about a column of this type. */
  private List<Finding> settled(ValueType type) {
    Map<FindingCode, Finding> all = new EnumMap<>(findings);
    if (type != ValueType.DATE && type != ValueType.DATETIME) {
      all.remove(FindingCode.SHORT_YEARS);
    }
    if (type == ValueType.TEXT && storedDates != null && storedDates.rows() * 2 < rows) {
      all.put(FindingCode.DATES_AMONG_CODES, storedDates);
    }
    if (!currencies.isEmpty() && (type == ValueType.WHOLE || type == ValueType.DECIMAL)) {
      String names = String.join(", ", currencies.keySet());
      long count = currencies.values().stream().mapToLong(n -> n[0]).sum();
      long line = currencies.values().stream().mapToLong(n -> n[1]).min().orElse(0);
      FindingCode code =
          Codes.mayBeOne(currencies.keySet())
              ? FindingCode.CURRENCY
              : FindingCode.SEVERAL_CURRENCIES;
      all.put(code, new Finding(code, count, line, names));
    }
    blankWords()
        .forEach(
            (word, n) ->
                all.put(
                    FindingCode.BLANK_WORDS,
                    plus(
                        all.get(FindingCode.BLANK_WORDS),
                        FindingCode.BLANK_WORDS,
                        n,
                        blankWords.get(word)[1],
                        word)));
    return List.copyOf(all.values());
  }
}
