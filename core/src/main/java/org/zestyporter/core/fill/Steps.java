package org.zestyporter.core.fill;

import com.google.re2j.Pattern;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.plan.Step;
import org.zestyporter.core.plan.StepKind;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Patterns;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.Values;

/** The functions behind the kinds of steps: those on texts here, others beside. */
final class Steps {
  private static final java.util.regex.Pattern SPACES =
      java.util.regex.Pattern.compile("[\\s\\u00A0\\u202F]+");

  /** Control characters, zero-width ones and marks of direction. */
  private static final java.util.regex.Pattern CONTROLS =
      java.util.regex.Pattern.compile("[\\p{Cc}\\p{Cf}\\p{Co}&&[^\\n\\r\\t]]+");

  private static final java.util.regex.Pattern BREAKS =
      java.util.regex.Pattern.compile("[\\n\\r\\t]+");

  /** Characters that a replacement may make. */
  private static final long MOST_MADE = 20_000_000;

  private Steps() {}

  static StepFunction compile(Step step, StepContext context) {
    StepKind kind = step.kind();
    kind.require(step);
    return switch (kind) {
      case TRIM -> text(Steps::trim);
      case COLLAPSE_SPACES -> text(s -> isCollapsed(s) ? s : SPACES.matcher(s).replaceAll(" "));
      case REMOVE_CONTROLS ->
          text(s -> CONTROLS.matcher(BREAKS.matcher(s).replaceAll(" ")).replaceAll(""));
      case CASE -> text(changeCase(step.setting("to")));
      case REMOVE_ACCENTS -> text(Texts::withoutAccents);
      case CUT -> cut(whole(step, "length"));
      case PAD -> pad(whole(step, "length"), step.setting("with"), step.setting("side"));
      case TAKE_LEFT -> text(s -> Texts.part(s, 0, whole(step, "count")));
      case TAKE_RIGHT ->
          text(s -> Texts.part(s, length(s) - whole(step, "count"), Integer.MAX_VALUE));
      case TAKE_BETWEEN -> text(between(step.setting("after"), step.setting("before")));
      case TAKE_WORD -> text(s -> Texts.word(s, whole(step, "which")));
      case TAKE_PATTERN -> takePattern(step);
      case SPLIT -> text(split(step.setting("at"), whole(step, "which")));
      case REPLACE -> replace(step.setting("from"), step.setting("to"));
      case REPLACE_WORDS -> replaceWords(step.setting("from"), step.setting("to"));
      case REPLACE_PATTERN -> replacePattern(step);
      case TRANSLATE -> translate(step, context);
      case JOIN -> join(context.require(step.setting("column")), step.setting("between"));
      case OR_COLUMN -> orColumn(context.require(step.setting("column")));
      case BLANK_WHEN -> blankWhen(step.setting("words"));
      case DEFAULT -> {
        String value = step.setting("value");
        yield StepFunction.onBlanksToo((v, row) -> v == null ? value : v);
      }
      case FORMULA -> formula(step.setting("formula"), context);
      case READ_NUMBER,
          READ_MONEY,
          READ_PERCENT,
          READ_MEASURE,
          READ_DATE,
          READ_TIME,
          READ_BOOLEAN ->
          ReadSteps.compile(step, context.locale());
      case MULTIPLY, ADD, ROUND, CONVERT_UNIT, SHIFT_DATE, PERIOD_EDGE, FORMAT ->
          ComputeSteps.compile(step);
      case PHONE, EMAIL, COUNTRY, LANGUAGE, CURRENCY -> KnownSteps.compile(step);
    };
  }

  static int whole(Step step, String setting) {
    return Integer.parseInt(step.setting(setting));
  }

  /** Text steps leave numbers and dates of a workbook as they are. */
  private static StepFunction text(UnaryOperator<String> change) {
    return (value, row) -> {
      if (!(value instanceof String text)) {
        return value;
      }
      String changed = change.apply(text);
      return changed.isEmpty() ? null : changed;
    };
  }

  /** Steps that look into a value take numbers and dates as they are shown. */
  private static StepFunction shown(UnaryOperator<String> change) {
    return (value, row) -> {
      String text = Values.text(value);
      String changed = change.apply(text);
      return changed.equals(text) ? value : changed.isEmpty() ? null : changed;
    };
  }

  static String trim(String text) {
    int from = 0;
    int to = text.length();
    while (from < to && isSpace(text.charAt(from))) {
      from++;
    }
    while (to > from && isSpace(text.charAt(to - 1))) {
      to--;
    }
    return text.substring(from, to);
  }

  /** True if single plain spaces are all the space there is, as in most texts. */
  private static boolean isCollapsed(String text) {
    boolean space = false;
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (isSpace(c) && (c != ' ' || space)) {
        return false;
      }
      space = c == ' ';
    }
    return true;
  }

  private static boolean isSpace(char c) {
    return c <= ' ' || c == '\u00A0' || c == '\u202F' || Character.isWhitespace(c);
  }

  private static UnaryOperator<String> changeCase(String to) {
    return switch (to) {
      case "upper" -> s -> s.toUpperCase(Locale.ROOT);
      case "lower" -> s -> s.toLowerCase(Locale.ROOT);
      case "sentence" -> Texts::sentence;
      case "name" -> Texts::personalName;
      default -> Texts::title;
    };
  }

  private static int length(String text) {
    return text.codePointCount(0, text.length());
  }

  private static StepFunction cut(int most) {
    return (value, row) -> {
      if (!(value instanceof String text) || length(text) <= most) {
        return value;
      }
      String kept = Texts.part(text, 0, most);
      return new Noted(
          kept.isEmpty() ? null : kept,
          new Problem(ProblemCode.CUT, text, "cut to " + most + " characters"));
    };
  }

  private static StepFunction pad(int length, String with, String side) {
    return shown(
        s -> {
          int missing = length - length(s);
          if (missing <= 0) {
            return s;
          }
          String filling = Texts.part(with.repeat(missing), 0, missing);
          return "right".equals(side) ? s + filling : filling + s;
        });
  }

  private static UnaryOperator<String> between(String after, String before) {
    return s -> {
      int from = after == null ? -1 : s.indexOf(after);
      int start = from < 0 ? 0 : from + after.length();
      int end = before == null ? -1 : s.indexOf(before, start);
      return trim(s.substring(start, end < 0 ? s.length() : end));
    };
  }

  private static UnaryOperator<String> split(String at, int which) {
    return s -> {
      String[] parts = s.split(java.util.regex.Pattern.quote(at), -1);
      int index = which < 0 ? parts.length + which : which - 1;
      return which == 0 || index < 0 || index >= parts.length ? "" : trim(parts[index]);
    };
  }

  static Pattern pattern(Step step) {
    String text = step.setting("pattern");
    String mistake = Patterns.mistake(text);
    if (mistake != null) {
      throw ErrorCode.STEP_SETTINGS.error(
          step.kind().title() + ": “" + text + "” can't be used: " + mistake + ".");
    }
    return Patterns.compile(text);
  }

  private static StepFunction takePattern(Step step) {
    Pattern pattern = pattern(step);
    return shown(
        s -> {
          var matcher = pattern.matcher(s);
          if (!matcher.find()) {
            return "";
          }
          String found = pattern.groupCount() > 0 ? matcher.group(1) : matcher.group();
          return found == null ? "" : found;
        });
  }

  private static StepFunction replace(String from, String to) {
    return (value, row) -> Values.text(value).equalsIgnoreCase(from) ? to : value;
  }

  private static StepFunction replaceWords(String from, String to) {
    java.util.regex.Pattern wanted =
        java.util.regex.Pattern.compile(
            java.util.regex.Pattern.quote(from),
            java.util.regex.Pattern.CASE_INSENSITIVE | java.util.regex.Pattern.UNICODE_CASE);
    String with = java.util.regex.Matcher.quoteReplacement(to == null ? "" : to);
    return shown(s -> wanted.matcher(s).replaceAll(with));
  }

  private static StepFunction replacePattern(Step step) {
    Pattern pattern = pattern(step);
    String to = step.setting("to") == null ? "" : step.setting("to");
    try {
      pattern.matcher("").replaceAll(to);
    } catch (IndexOutOfBoundsException | IllegalArgumentException e) {
      throw ErrorCode.STEP_SETTINGS.error(
          "Replace by pattern: “" + to + "” names a group that is not there.");
    }
    return (value, row) -> {
      String text = Values.text(value);
      if ((text.length() + 1L) * to.length() > MOST_MADE) {
        return new Problem(ProblemCode.FORMULA, text, "the text could become too long");
      }
      try {
        String changed = pattern.matcher(text).replaceAll(to);
        return changed.equals(text) ? value : changed.isEmpty() ? null : changed;
      } catch (IndexOutOfBoundsException | IllegalArgumentException e) {
        return new Problem(
            ProblemCode.FORMULA, text, "“" + to + "” names a group that the pattern has not");
      }
    };
  }

  private static StepFunction translate(Step step, StepContext context) {
    String book = step.setting("book");
    Phrases phrases = context.phrases();
    String otherwise = step.setting("otherwise") == null ? "keep" : step.setting("otherwise");
    return (value, row) -> {
      Optional<String> found = phrases.find(book, Values.text(value));
      if (found != null) {
        return found.orElse(null);
      }
      return switch (otherwise) {
        case "blank" -> null;
        case "ask", "reject" ->
            new Problem(
                otherwise.equals("ask") ? ProblemCode.UNKNOWN_WORD : ProblemCode.NOT_AVAILABLE,
                Values.text(value),
                "the phrasebook “" + book + "” has no word for it");
        default -> value;
      };
    };
  }

  private static Object other(Row row, int column) {
    Cell cell = row.cell(column);
    Object value = cell.value();
    if (value instanceof String text) {
      String trimmed = trim(text);
      return trimmed.isEmpty() ? null : trimmed;
    }
    return value;
  }

  private static StepFunction join(int column, String between) {
    String part = between == null ? " " : between;
    return StepFunction.onBlanksToo(
        (value, row) -> {
          Object added = other(row, column);
          if (added == null || added instanceof Problem || value == null) {
            return added == null ? value : added;
          }
          return Values.text(value) + part + Values.text(added);
        });
  }

  private static StepFunction orColumn(int column) {
    return StepFunction.onBlanksToo((value, row) -> value == null ? other(row, column) : value);
  }

  private static StepFunction blankWhen(String words) {
    Set<String> blanks =
        Stream.of(words.split("\\|"))
            .map(w -> trim(w).toLowerCase(Locale.ROOT))
            .collect(Collectors.toSet());
    return (value, row) ->
        blanks.contains(trim(Values.text(value)).toLowerCase(Locale.ROOT)) ? null : value;
  }

  private static StepFunction formula(String text, StepContext context) {
    StepContext inStep = context.inStep();
    Formula formula = Formula.compile(text, inStep);
    int at = inStep.valueIndex();
    return StepFunction.onBlanksToo((value, row) -> formula.run(new WithValue(row, at, value)));
  }

  /** The columns that a step reads beside the value so far. */
  static List<Integer> columns(Step step, StepContext context) {
    return switch (step.kind()) {
      case JOIN, OR_COLUMN -> List.of(context.require(step.setting("column")));
      case FORMULA ->
          Formula.compile(step.setting("formula"), context.inStep()).columns().stream()
              .filter(c -> c != context.valueIndex())
              .toList();
      default -> List.of();
    };
  }

  /** True if a step gives another value in each row, whatever the columns hold. */
  static boolean usesLine(Step step, StepContext context) {
    return step.kind() == StepKind.FORMULA
        && Formula.compile(step.setting("formula"), context.inStep()).usesLine();
  }

  static Row withValue(Row row, int at, Object value) {
    return new WithValue(row, at, value);
  }

  /** A row in which the value so far is one more column. */
  private record WithValue(Row row, int at, Object value) implements Row {
    @Override
    public Object column(int index) {
      return index == at ? value : row.column(index);
    }

    @Override
    public Cell cell(int column) {
      return row.cell(column);
    }

    @Override
    public long index() {
      return row.index();
    }

    @Override
    public long line() {
      return row.line();
    }

    @Override
    public RunContext run() {
      return row.run();
    }
  }
}
