package org.zestyporter.core.formula;

import static org.zestyporter.core.formula.Function.Group.TEXT;
import static org.zestyporter.core.formula.Functions.refuse;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.List;
import java.util.Locale;
import org.zestyporter.core.value.Texts;
import org.zestyporter.core.value.ValueReader;

/** Text functions (ODF 1.2 part 2, 6.20). */
final class TextFunctions {
  private TextFunctions() {}

  private static Function.Builder text(String name, String parameters) {
    return Function.named(name, TEXT, parameters, Kind.TEXT);
  }

  private static Function.Builder number(String name, String parameters) {
    return Function.named(name, TEXT, parameters, Kind.NUMBER);
  }

  static List<Function> all() {
    return List.of(
        number("LEN", "text T")
            .says("the number of characters")
            .example("LEN([Boat name])", "10")
            .does((a, s) -> count((String) a[0])),
        text("LEFT", "text T, count N?")
            .says("the first characters; one if no count is given")
            .example("LEFT([Boat name]; 4)", "Grey")
            .example("LEFT([Boat name])", "G")
            .does((a, s) -> left((String) a[0], a)),
        text("RIGHT", "text T, count N?")
            .says("the last characters; one if no count is given")
            .example("RIGHT([Boat name]; 5)", "Heron")
            .does((a, s) -> right((String) a[0], a)),
        text("MID", "text T, start N, count N")
            .says("so many characters from a place on; the first character is 1")
            .example("MID([Reg No]; 4; 2)", "05")
            .does((a, s) -> middle((String) a[0], (BigDecimal) a[1], (BigDecimal) a[2])),
        text("TRIM", "text T")
            .says("without spaces at both ends, and with one space for several in between")
            .example("TRIM(\"  Grey   Heron \")", "Grey Heron")
            .does((a, s) -> ((String) a[0]).strip().replaceAll("[\\s\\u00A0]+", " ")),
        text("CLEAN", "text T")
            .says("without control characters such as line breaks")
            .example("CLEAN(\"Grey\" & CHAR(10) & \"Heron\")", "GreyHeron")
            .does((a, s) -> ((String) a[0]).replaceAll("\\p{Cntrl}", "")),
        text("UPPER", "text T")
            .says("in capitals")
            .example("UPPER([Reg No])", "QH 0566")
            .does((a, s) -> ((String) a[0]).toUpperCase(Locale.ROOT)),
        text("LOWER", "text T")
            .says("in small letters")
            .example("LOWER([Kind])", "ketch rig")
            .does((a, s) -> ((String) a[0]).toLowerCase(Locale.ROOT)),
        text("PROPER", "text T")
            .says("each word with a capital")
            .example("PROPER(\"GREY HERON\")", "Grey Heron")
            .does((a, s) -> proper((String) a[0])),
        text("CONCATENATE", "text T*")
            .says("the texts one behind the other, as & does")
            .example("CONCATENATE([Boat name]; \", \"; [Kind])", "Grey Heron, Ketch rig")
            .does((a, s) -> join("", false, a, 0)),
        text("TEXTJOIN", "between T, skipBlank L, text T*")
            .ours()
            .says("the texts with a text between them, blank ones passed over if wanted")
            .example(
                "TEXTJOIN(\" / \"; TRUE; [Kind]; [Berth]; [Boat name])", "Ketch rig / Grey Heron")
            .does((a, s) -> join((String) a[0], (Boolean) a[1], a, 2)),
        text("REPT", "text T, count N")
            .says("the text so many times")
            .example("REPT(\"0\"; 3)", "000")
            .does((a, s) -> repeat((String) a[0], (BigDecimal) a[1])),
        text("SUBSTITUTE", "text T, old T, new T, which N?")
            .says("one text in place of another, everywhere or at one occurrence; capitals matter")
            .example("SUBSTITUTE([Reg No]; \" \"; \"-\")", "qh-0566")
            .does((a, s) -> substitute(a)),
        text("REPLACE", "text T, start N, count N, new T")
            .says("another text in place of so many characters from a place on")
            .example("REPLACE([Reg No]; 1; 2; \"QH\")", "QH 0566")
            .does((a, s) -> replace(a)),
        number("FIND", "wanted T, text T, start N?")
            .says("the place of a text in another; capitals matter; a problem if it is not there")
            .example("FIND(\"H\"; [Boat name])", "6")
            .does((a, s) -> find((String) a[0], (String) a[1], a)),
        number("SEARCH", "wanted T, text T, start N?")
            .says("the place of a text in another; capitals don’t matter")
            .example("SEARCH(\"heron\"; [Boat name])", "6")
            .example("IFERROR(SEARCH(\"gull\"; [Boat name]); 0)", "0")
            .does(
                (a, s) ->
                    find(
                        ((String) a[0]).toLowerCase(Locale.ROOT),
                        ((String) a[1]).toLowerCase(Locale.ROOT),
                        a)),
        Function.named("EXACT", TEXT, "a T, b T", Kind.LOGICAL)
            .says("true if two texts are the same to the letter, capitals included")
            .example("EXACT(\"Ketch\"; \"ketch\")", "FALSE")
            .does((a, s) -> a[0].equals(a[1])),
        text("CHAR", "code N")
            .says("the character of a code, 1 to 255")
            .example("CHAR(65)", "A")
            .does((a, s) -> character((BigDecimal) a[0], 255)),
        number("CODE", "text T")
            .says("the code of the first character")
            .example("CODE(\"A\")", "65")
            .does((a, s) -> code((String) a[0])),
        text("UNICHAR", "code N")
            .says("the character of a Unicode code point")
            .example("UNICHAR(233)", "é")
            .does((a, s) -> character((BigDecimal) a[0], Character.MAX_CODE_POINT)),
        number("UNICODE", "text T")
            .says("the Unicode code point of the first character")
            .example("UNICODE(\"é\")", "233")
            .does((a, s) -> code((String) a[0])),
        text("TEXT", "value A, format T")
            .says(
                "a number or date written in a format: 0 and # for digits, y m d h s for dates and"
                    + " times; mm behind h means minutes")
            .example("TEXT(1204.5; \"#,##0.00\")", "1,204.50")
            .example("TEXT(7; \"0000\")", "0007")
            .example("TEXT(DATE(2026; 11; 3); \"d mmmm yyyy\")", "3 November 2026")
            .does((a, s) -> Formats.write(a[0], (String) a[1])),
        text("FIXED", "number N, places N?, plain L?")
            .says(
                "a number as text with so many decimals, two if not said, in groups of three unless plain")
            .example("FIXED(1204.567; 1)", "1,204.6")
            .example("FIXED(1204.567; 1; TRUE)", "1204.6")
            .does((a, s) -> fixed(a)),
        text("T", "value A")
            .says("the value if it is a text, else nothing")
            .example("T(12) & T(\"ketch\")", "ketch")
            .does((a, s) -> a[0] instanceof String ? a[0] : ""),
        number("VALUE", "text T")
            .says("a text as a number, with a point as decimal sign")
            .example("VALUE(\"38.5\") * 2", "77")
            .does((a, s) -> blankOr((String) a[0], t -> ValueReader.number(t, "."))),
        number("NUMBERVALUE", "text T, decimal T, group T?")
            .says("a text as a number with the decimal sign that is named")
            .example("NUMBERVALUE(\"1.204,5\"; \",\")", "1204.5")
            .does((a, s) -> numberValue((String) a[0], (String) a[1])));
  }

  static BigDecimal count(String text) {
    return BigDecimal.valueOf(text.codePointCount(0, text.length()));
  }

  /** A whole number of an argument, cut to a sensible size; decimals are dropped. */
  static int whole(Object number) {
    return ((BigDecimal) number)
        .setScale(0, RoundingMode.DOWN)
        .max(BigDecimal.valueOf(-10_000_000))
        .min(BigDecimal.valueOf(10_000_000))
        .intValue();
  }

  static int whole(Object[] arguments, int at, int otherwise) {
    return arguments.length > at && arguments[at] != null ? whole(arguments[at]) : otherwise;
  }

  private static Object left(String text, Object[] a) {
    int count = whole(a, 1, 1);
    return count < 0 ? refuse(a[1], "the count is under 0") : Texts.part(text, 0, count);
  }

  private static Object right(String text, Object[] a) {
    int count = whole(a, 1, 1);
    int length = text.codePointCount(0, text.length());
    return count < 0
        ? refuse(a[1], "the count is under 0")
        : Texts.part(text, Math.max(0, length - count), count);
  }

  private static Object middle(String text, BigDecimal start, BigDecimal count) {
    if (whole(start) < 1 || whole(count) < 0) {
      return refuse(
          whole(start) < 1 ? start : count,
          whole(start) < 1 ? "the first character is 1" : "the count is under 0");
    }
    return Texts.part(text, whole(start) - 1, whole(count));
  }

  static String proper(String text) {
    StringBuilder changed = new StringBuilder(text.length());
    boolean start = true;
    for (int i = 0; i < text.length(); ) {
      int c = text.codePointAt(i);
      changed.appendCodePoint(start ? Character.toTitleCase(c) : Character.toLowerCase(c));
      start = !Texts.isLetter(c);
      i += Character.charCount(c);
    }
    return changed.toString();
  }

  private static String join(String between, boolean skipBlank, Object[] texts, int from) {
    StringBuilder joined = new StringBuilder();
    boolean first = true;
    for (int i = from; i < texts.length && joined.length() <= Formula.LONGEST_TEXT; i++) {
      String text = texts[i] == null ? "" : (String) texts[i];
      if (skipBlank && text.isBlank()) {
        continue;
      }
      joined.append(first ? "" : between).append(text);
      first = false;
    }
    return joined.toString();
  }

  private static Object repeat(String text, BigDecimal count) {
    int times = whole(count);
    if (times < 0) {
      return refuse(count, "the count is under 0");
    }
    return (long) text.length() * times > Formula.LONGEST_TEXT
        ? refuse(count, "the text would be over 100,000 characters")
        : text.repeat(times);
  }

  private static Object substitute(Object[] a) {
    String text = (String) a[0];
    String old = (String) a[1];
    if (old.isEmpty()) {
      return text;
    }
    if (a.length < 4 || a[3] == null) {
      long most = (long) text.length() / old.length() * ((String) a[2]).length();
      return most > Formula.LONGEST_TEXT && made(text, old, (String) a[2]) > Formula.LONGEST_TEXT
          ? refuse(old, "the text would be over 100,000 characters")
          : text.replace(old, (String) a[2]);
    }
    int which = whole(a[3]);
    if (which < 1) {
      return refuse(a[3], "the first occurrence is 1");
    }
    int at = -1;
    for (int i = 0; i < which; i++) {
      at = text.indexOf(old, at + (i == 0 ? 1 : old.length()));
      if (at < 0) {
        return text;
      }
    }
    return text.substring(0, at) + a[2] + text.substring(at + old.length());
  }

  /** Length of a text after a replacement, without making it. */
  private static long made(String text, String old, String with) {
    long length = text.length();
    for (int at = text.indexOf(old); at >= 0; at = text.indexOf(old, at + old.length())) {
      length += with.length() - old.length();
    }
    return length;
  }

  private static Object replace(Object[] a) {
    String text = (String) a[0];
    Object gone = middle(text, (BigDecimal) a[1], (BigDecimal) a[2]);
    if (!(gone instanceof String cut)) {
      return gone;
    }
    String before = Texts.part(text, 0, whole(a[1]) - 1);
    return before + a[3] + text.substring(before.length() + cut.length());
  }

  private static Object find(String wanted, String text, Object[] a) {
    int start = whole(a, 2, 1);
    if (start < 1) {
      return refuse(a[2], "the first character is 1");
    }
    int from = Texts.part(text, 0, start - 1).length();
    int at = text.indexOf(wanted, from);
    return at < 0
        ? refuse(text, "“" + wanted + "” is not in it")
        : BigDecimal.valueOf(text.codePointCount(0, at) + 1L);
  }

  private static Object character(BigDecimal code, int most) {
    int point = whole(code);
    boolean none = point < 1 || point > most || (point >= 0xD800 && point <= 0xDFFF);
    return none ? refuse(code, "no character has this code") : Character.toString(point);
  }

  private static Object code(String text) {
    return text.isEmpty()
        ? refuse(text, "there is no first character")
        : BigDecimal.valueOf(text.codePointAt(0));
  }

  private static Object fixed(Object[] a) {
    int places = Math.max(-20, Math.min(20, whole(a, 1, 2)));
    BigDecimal number = ((BigDecimal) a[0]).setScale(places, RoundingMode.HALF_UP);
    boolean plain = a.length > 2 && Boolean.TRUE.equals(a[2]);
    String digits = number.setScale(Math.max(0, places), RoundingMode.HALF_UP).toPlainString();
    return plain ? digits : Formats.write(new BigDecimal(digits), pattern(places));
  }

  private static String pattern(int places) {
    return places > 0 ? "#,##0." + "0".repeat(places) : "#,##0";
  }

  private static Object numberValue(String text, String decimal) {
    return decimal.equals(",") || decimal.equals(".")
        ? blankOr(text, t -> ValueReader.number(t, decimal))
        : refuse(decimal, "the decimal sign is a comma or a point");
  }

  static Object blankOr(String text, java.util.function.Function<String, Object> read) {
    return text.isBlank() ? null : read.apply(text);
  }
}
