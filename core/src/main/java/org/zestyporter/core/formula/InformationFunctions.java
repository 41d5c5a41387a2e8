package org.zestyporter.core.formula;

import static org.zestyporter.core.formula.Function.Group.INFORMATION;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.temporal.Temporal;
import java.util.List;
import java.util.function.Predicate;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;

/** What a value is (ODF 1.2 part 2, 6.13). */
final class InformationFunctions {
  private InformationFunctions() {}

  static List<Function> all() {
    return List.of(
        test(
            "ISBLANK",
            "true if there is nothing, or only spaces",
            "ISBLANK([Berth])",
            true,
            v -> v == null || v instanceof String s && s.isBlank()),
        Function.named("ISNUMBER", INFORMATION, "value A", Kind.LOGICAL)
            .says("true for a number, and for a column’s text that can be read as one")
            .example("ISNUMBER([LOA (ft)])", "TRUE")
            .example("ISNUMBER(\"tbc\")", "FALSE")
            .lazily((c, call, parts) -> readable(parts.get(0), Kind.NUMBER)),
        Function.named("ISDATE", INFORMATION, "value A", Kind.LOGICAL)
            .says("true for a date, and for a column’s text that can be read as one")
            .ours()
            .example("ISDATE([Arrives])", "TRUE")
            .lazily((c, call, parts) -> readable(parts.get(0), Kind.DATE)),
        test("ISTEXT", "true for a text", "ISTEXT([Kind])", true, v -> v instanceof String),
        test(
            "ISNONTEXT",
            "true for anything but a text, blank included",
            "ISNONTEXT(12)",
            true,
            v -> !(v instanceof String)),
        test(
            "ISLOGICAL",
            "true for true and false",
            "ISLOGICAL(1 = 1)",
            true,
            v -> v instanceof Boolean),
        test(
            "ISERROR",
            "true if it can’t be computed",
            "ISERROR(1 / 0)",
            true,
            v -> v instanceof Problem),
        test(
            "ISERR",
            "true if it can’t be computed for another reason than being not available",
            "ISERR(NA())",
            false,
            v -> v instanceof Problem p && !LogicFunctions.isNotAvailable(p)),
        test(
            "ISNA",
            "true if it is not available",
            "ISNA(NA())",
            true,
            v -> v instanceof Problem p && LogicFunctions.isNotAvailable(p)),
        Function.named("ISEVEN", INFORMATION, "number N", Kind.LOGICAL)
            .says("true for an even number; decimals are dropped")
            .example("ISEVEN(4)", "TRUE")
            .does((a, s) -> !odd((BigDecimal) a[0])),
        Function.named("ISODD", INFORMATION, "number N", Kind.LOGICAL)
            .says("true for an odd number; decimals are dropped")
            .example("ISODD(4)", "FALSE")
            .does((a, s) -> odd((BigDecimal) a[0])),
        Function.named("N", INFORMATION, "value A", Kind.NUMBER)
            .says("a number as it is, true as 1, and 0 for blank or a text")
            .example("N([Berth])", "0")
            .does((a, s) -> asNumber(a[0])),
        Function.named("NA", INFORMATION, "", Kind.ANY)
            .says("“not available”: the row’s value can’t be taken")
            .example("ISNA(NA())", "TRUE")
            .does((a, s) -> notAvailable("not available")));
  }

  private static Function test(
      String name, String says, String example, boolean gives, Predicate<Object> test) {
    return Function.named(name, INFORMATION, "value A", Kind.LOGICAL)
        .says(says)
        .example(example, gives ? "TRUE" : "FALSE")
        .lazily(
            (c, call, parts) -> {
              Code value = parts.get(0).code();
              return scope -> test.test(value.run(scope));
            });
  }

  /** Tells whether a value is of a type or, as a column’s text, can be read as it. */
  private static Code readable(Compiler.Part part, Kind kind) {
    Code value = part.code();
    boolean column = part.node() instanceof Node.Column;
    return scope -> {
      Object found = value.run(scope);
      Object read = column ? Reads.as(kind, found, part.locale()) : found;
      return kind == Kind.NUMBER
          ? read instanceof BigDecimal
          : read instanceof Temporal && Reads.isDate(read);
    };
  }

  static Problem notAvailable(String reason) {
    return new Problem(ProblemCode.NOT_AVAILABLE, "", reason);
  }

  private static boolean odd(BigDecimal number) {
    return number.setScale(0, RoundingMode.DOWN).toBigInteger().testBit(0);
  }

  private static BigDecimal asNumber(Object value) {
    if (value instanceof BigDecimal number) {
      return number;
    }
    return Boolean.TRUE.equals(value) ? BigDecimal.ONE : BigDecimal.ZERO;
  }
}
