package org.zestyporter.core.formula;

import static org.zestyporter.core.formula.Function.Group.CONVERSION;
import static org.zestyporter.core.formula.Function.Group.OWN;
import static org.zestyporter.core.formula.Functions.refuse;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.RoundingMode;
import java.util.List;
import java.util.Locale;
import java.util.function.BiFunction;
import java.util.function.UnaryOperator;
import org.zestyporter.core.value.Measures;
import org.zestyporter.core.value.Patterns;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.Texts;

/**
 * Conversion (ODF 1.2 part 2, 6.9 and 6.19), and what we add to OpenFormula: patterns, phrasebooks
 * and the facts of the run.
 */
final class OwnFunctions {
  /** Characters that a replacement may make before anybody counts them. */
  private static final long MOST_MADE = 20_000_000;

  private OwnFunctions() {}

  private static Function.Builder conversion(String name, String parameters, Kind gives) {
    return Function.named(name, CONVERSION, parameters, gives);
  }

  private static Function.Builder own(String name, String parameters, Kind gives) {
    return Function.named(name, OWN, parameters, gives);
  }

  static List<Function> all() {
    return List.of(
        conversion("CONVERT", "number N, from T, to T", Kind.NUMBER)
            .says("a number from one unit of measure to another")
            .example("ROUND(CONVERT([LOA (ft)]; \"ft\"; \"m\"); 2)", "11.73")
            .example("CONVERT(20; \"C\"; \"F\")", "68")
            .does((a, s) -> convert((BigDecimal) a[0], (String) a[1], (String) a[2])),
        conversion("BASE", "number N, radix N, digits N?", Kind.TEXT)
            .says("a whole number written in another base")
            .example("BASE(255; 16; 4)", "00FF")
            .does((a, s) -> base(a)),
        conversion("DECIMAL", "text T, radix N", Kind.NUMBER)
            .says("a number that is written in another base")
            .example("DECIMAL(\"FF\"; 16)", "255")
            .does((a, s) -> decimal((String) a[0], (BigDecimal) a[1])),
        own("MATCHES", "text T, pattern T", Kind.LOGICAL)
            .says(
                "true if the whole text is of the pattern (a regular expression without look-around)")
            .example("MATCHES([Reg No]; \"[a-z]{2} \\d+\")", "TRUE")
            .lazily((c, call, parts) -> pattern(c, call, parts, "MATCHES", Pattern::matches)),
        own("EXTRACT", "text T, pattern T, group N?", Kind.TEXT)
            .says(
                "the first part of the text that is of the pattern, or a group of it; blank if there is none")
            .example("EXTRACT([Reg No]; \"\\d+\")", "0566")
            .example("EXTRACT(\"A-07\"; \"([A-Z])-(\\d+)\"; 2)", "07")
            .lazily(OwnFunctions::extract),
        own("SWAP", "text T, pattern T, new T", Kind.TEXT)
            .says("another text for all parts that are of the pattern; $1 is its first group")
            .example("SWAP([Reg No]; \"(\\w+) (\\d+)\"; \"$2/$1\")", "0566/qh")
            .lazily(OwnFunctions::swap),
        own("WORD", "text T, which N", Kind.TEXT)
            .says("the first, second… word; -1 is the last; blank if there is none")
            .example("WORD([Boat name]; -1)", "Heron")
            .does((a, s) -> Texts.word((String) a[0], TextFunctions.whole(a[1]))),
        own("FIRST", "value A*", Kind.ANY)
            .says("the first value that is not blank")
            .example("FIRST([Berth]; [Kind])", "Ketch rig")
            .does((a, s) -> first(a)),
        own("PLAIN", "text T", Kind.TEXT)
            .says("without accents")
            .example("PLAIN(\"Ångström, Zoë\")", "Angstrom, Zoe")
            .does((a, s) -> Texts.withoutAccents((String) a[0])),
        own("PHRASE", "text T, book T", Kind.TEXT)
            .says("the word that a phrasebook has for the text; not available if it has none")
            .example("PHRASE([Kind]; \"Kinds of boats\")", "ketch")
            .lazily(OwnFunctions::phrase),
        own("REFUSE", "reason T", Kind.ANY)
            .says("keeps the row out, for a reason in your own words")
            .example("IFERROR(REFUSE(\"too long for the harbour\"); \"refused\")", "refused")
            .does((a, s) -> new Problem(ProblemCode.NOT_AVAILABLE, "", said((String) a[0]))),
        own("LINE", "", Kind.NUMBER)
            .says("the number of the row’s line in the file")
            .example("LINE()", "12")
            .does((a, s) -> BigDecimal.valueOf(s.line())),
        own("WHO", "", Kind.TEXT)
            .says("the person who starts the run")
            .example("WHO()", "odile")
            .does((a, s) -> s.who()),
        own("FILENAME", "", Kind.TEXT)
            .says("the name of the file")
            .example("FILENAME()", "winter-arrivals.xlsx")
            .does((a, s) -> s.fileName()));
  }

  private static String said(String reason) {
    return reason.isBlank() ? "refused by the formula" : reason.strip();
  }

  private static Object first(Object[] values) {
    for (Object value : values) {
      if (value != null && !(value instanceof String s && s.isBlank())) {
        return value;
      }
    }
    return null;
  }

  private static Object convert(BigDecimal number, String from, String to) {
    Measures.Conversion conversion = Measures.conversion(from, to);
    if (conversion != null) {
      return Numbers.kept(conversion.apply(number));
    }
    for (String unit : List.of(from, to)) {
      if (Measures.find(unit) == null) {
        return refuse(unit, "no unit of measure that is known");
      }
    }
    return refuse(from, "can’t be converted to " + to);
  }

  private static boolean isRadix(BigDecimal radix) {
    int base = TextFunctions.whole(radix);
    return base >= Character.MIN_RADIX && base <= Character.MAX_RADIX;
  }

  private static Object base(Object[] a) {
    BigDecimal number = (BigDecimal) a[0];
    if (!isRadix((BigDecimal) a[1]) || number.signum() < 0) {
      return refuse(a[number.signum() < 0 ? 0 : 1], "a number from 0, a base from 2 to 36");
    }
    String digits =
        number
            .setScale(0, RoundingMode.DOWN)
            .toBigInteger()
            .toString(TextFunctions.whole(a[1]))
            .toUpperCase(Locale.ROOT);
    int length = Math.min(1_000, TextFunctions.whole(a, 2, 0));
    return "0".repeat(Math.max(0, length - digits.length())) + digits;
  }

  private static Object decimal(String text, BigDecimal radix) {
    try {
      return text.length() > 200 || !isRadix(radix)
          ? refuse(text, "too long, or no base from 2 to 36")
          : new BigDecimal(new BigInteger(text.strip(), TextFunctions.whole(radix)));
    } catch (NumberFormatException e) {
      return refuse(text, "no number in base " + radix);
    }
  }

  /** A pattern that is written out is compiled once, any other for each row. */
  private static java.util.function.Function<String, Object> compiled(Node.Call call) {
    Node node = call.arguments().get(1);
    if (node instanceof Node.Literal literal && literal.value() instanceof String text) {
      String mistake = Patterns.mistake(text);
      if (mistake != null) {
        throw new FormulaException(
            "“" + text + "” can't be used: " + mistake, node.from(), node.to());
      }
      Pattern pattern = Patterns.compile(text);
      return given -> pattern;
    }
    return given -> {
      String mistake = Patterns.mistake(given);
      return mistake == null ? Patterns.compile(given) : refuse(given, mistake);
    };
  }

  private interface Found {
    Object in(Pattern pattern, String text, Scope scope);
  }

  private static Code matching(
      Compiler compiler, Node.Call call, List<Compiler.Part> parts, String name, Found found) {
    Code text = compiler.need(parts.get(0), Kind.TEXT, name);
    Code given = compiler.need(parts.get(1), Kind.TEXT, name);
    java.util.function.Function<String, Object> patterns = compiled(call);
    return scope -> {
      Object t = text.run(scope);
      Object g = given.run(scope);
      if (t instanceof Problem || g instanceof Problem) {
        return t instanceof Problem ? t : g;
      }
      Object pattern = patterns.apply((String) g);
      return pattern instanceof Pattern p
          ? Formula.bounded(found.in(p, (String) t, scope))
          : Compiler.located(pattern, name, call.from());
    };
  }

  private static Code pattern(
      Compiler compiler,
      Node.Call call,
      List<Compiler.Part> parts,
      String name,
      BiFunction<Pattern, String, Boolean> test) {
    return matching(compiler, call, parts, name, (p, t, s) -> test.apply(p, t));
  }

  private static Code extract(Compiler compiler, Node.Call call, List<Compiler.Part> parts) {
    Code group =
        parts.size() > 2 && parts.get(2) != null
            ? compiler.need(parts.get(2), Kind.NUMBER, "EXTRACT")
            : scope -> BigDecimal.ZERO;
    return matching(
        compiler,
        call,
        parts,
        "EXTRACT",
        (pattern, text, scope) -> {
          Object which = group.run(scope);
          if (!(which instanceof BigDecimal number)) {
            return which;
          }
          int at = TextFunctions.whole(number);
          if (at < 0 || at > pattern.groupCount()) {
            return Compiler.located(
                refuse(number, "the pattern has " + pattern.groupCount() + " groups"),
                "EXTRACT",
                call.from());
          }
          Matcher matcher = pattern.matcher(text);
          return matcher.find() ? matcher.group(at) : null;
        });
  }

  private static Code swap(Compiler compiler, Node.Call call, List<Compiler.Part> parts) {
    Code replacement = compiler.need(parts.get(2), Kind.TEXT, "SWAP");
    return matching(
        compiler,
        call,
        parts,
        "SWAP",
        (pattern, text, scope) -> {
          Object with = replacement.run(scope);
          if (with instanceof Problem) {
            return with;
          }
          // an empty match may stand between any two characters
          if ((text.length() + 1L) * ((String) with).length() > MOST_MADE) {
            return Compiler.located(
                refuse(text, "the text could become too long"), "SWAP", call.from());
          }
          try {
            return pattern.matcher(text).replaceAll((String) with);
          } catch (IndexOutOfBoundsException | IllegalArgumentException e) {
            return Compiler.located(
                refuse(with, "names a group that the pattern does not have"), "SWAP", call.from());
          }
        });
  }

  private static Code phrase(Compiler compiler, Node.Call call, List<Compiler.Part> parts) {
    Code text = compiler.need(parts.get(0), Kind.TEXT, "PHRASE");
    if (!(call.arguments().get(1) instanceof Node.Literal book)) {
      throw new FormulaException(
          "the phrasebook’s name is written out in \" \"",
          call.arguments().get(1).from(),
          call.arguments().get(1).to());
    }
    UnaryOperator<String> phrases = compiler.names().phrasebook(String.valueOf(book.value()));
    if (phrases == null) {
      throw new FormulaException(
          "there is no phrasebook “" + book.value() + "”", book.from(), book.to());
    }
    return scope -> {
      Object word = text.run(scope);
      if (!(word instanceof String s) || s.isBlank()) {
        return word instanceof Problem ? word : null;
      }
      String found = phrases.apply(s);
      return found == null
          ? new Problem(
              ProblemCode.NOT_AVAILABLE,
              s,
              "the phrasebook “" + book.value() + "” has no word for it")
          : found;
    };
  }
}
