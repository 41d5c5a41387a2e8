package org.zestyporter.core.formula;

import static org.zestyporter.core.formula.Function.Group.LOGIC;

import java.math.BigDecimal;
import java.util.List;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;

/** Conditions (ODF 1.2 part 2, 6.15). A blank condition counts as false. */
final class LogicFunctions {
  private LogicFunctions() {}

  private static Function.Builder any(String name, String parameters) {
    return Function.named(name, LOGIC, parameters, Kind.ANY);
  }

  private static Function.Builder logical(String name, String parameters) {
    return Function.named(name, LOGIC, parameters, Kind.LOGICAL);
  }

  static List<Function> all() {
    return List.of(
        any("IF", "condition L, then A?, otherwise A?")
            .says("one value if the condition holds, else the other; blank if that is left out")
            .example("IF([Berth]=\"\"; \"ashore\"; \"afloat\")", "ashore")
            .example("IF([LOA (ft)] > 30; \"long\"; \"short\")", "long")
            .lazily(LogicFunctions::choose),
        any("IFS", "condition L, then A, more A*")
            .ours()
            .says("the value behind the first condition that holds; not available if none does")
            .example("IFS([LOA (ft)] < 20; \"S\"; [LOA (ft)] < 40; \"M\"; TRUE; \"L\")", "M")
            .lazily(LogicFunctions::firstThatHolds),
        any("SWITCH", "value A, is A, then A, more A*")
            .ours()
            .says(
                "the value behind the first case that equals the value; a last one without a case is for all others")
            .example("SWITCH([Kind]; \"Sloop\"; \"SLP\"; \"Ketch rig\"; \"KTC\"; \"?\")", "KTC")
            .lazily(LogicFunctions::cases),
        any("CHOOSE", "which N, first A, more A*")
            .says("the first, second, third… of the values")
            .example("CHOOSE(2; \"spring\"; \"summer\"; \"autumn\")", "summer")
            .lazily(LogicFunctions::nth),
        any("IFERROR", "value A, otherwise A")
            .says("the value, or the other one if it can’t be computed")
            .example("IFERROR([LOA (ft)] / 0; 0)", "0")
            .lazily((c, call, parts) -> rescued(parts, p -> true)),
        any("IFNA", "value A, otherwise A")
            .says("the value, or the other one if it is not available")
            .example("IFNA(NA(); \"none\")", "none")
            .lazily((c, call, parts) -> rescued(parts, LogicFunctions::isNotAvailable)),
        logical("AND", "condition L*")
            .says("true if all hold; blank ones are passed over")
            .example("AND([LOA (ft)] > 30; [Kind] = \"ketch rig\")", "TRUE")
            .does((a, s) -> all(a)),
        logical("OR", "condition L*")
            .says("true if one of them holds")
            .example("OR([LOA (ft)] > 60; [Berth] = \"\")", "TRUE")
            .does((a, s) -> any(a)),
        logical("XOR", "condition L*")
            .says("true if an odd number of them hold")
            .example("XOR(TRUE; TRUE)", "FALSE")
            .does((a, s) -> odd(a)),
        logical("NOT", "condition L")
            .says("true if it does not hold")
            .example("NOT([Berth] = \"\")", "FALSE")
            .does((a, s) -> !(Boolean) a[0]),
        logical("TRUE", "").says("true").example("TRUE()", "TRUE").does((a, s) -> true),
        logical("FALSE", "").says("false").example("FALSE()", "FALSE").does((a, s) -> false));
  }

  static boolean isNotAvailable(Problem problem) {
    return problem.code() == ProblemCode.NOT_AVAILABLE;
  }

  private static Code choose(Compiler compiler, Node.Call call, List<Compiler.Part> parts) {
    Code condition = compiler.need(parts.get(0), Kind.LOGICAL, "IF");
    Code then = code(parts, 1, true);
    Code otherwise = code(parts, 2, parts.size() < 2 ? false : null);
    return scope -> {
      Object holds = condition.run(scope);
      if (holds instanceof Problem) {
        return holds;
      }
      return Boolean.TRUE.equals(holds) ? then.run(scope) : otherwise.run(scope);
    };
  }

  private static Code code(List<Compiler.Part> parts, int at, Object otherwise) {
    return at < parts.size() && parts.get(at) != null ? parts.get(at).code() : scope -> otherwise;
  }

  private static Code firstThatHolds(Compiler compiler, Node.Call call, List<Compiler.Part> parts) {
    if (parts.size() % 2 != 0) {
      throw new FormulaException(
          "IFS takes pairs of a condition and a value", call.from(), call.to());
    }
    Code[] conditions = new Code[parts.size() / 2];
    Code[] values = new Code[conditions.length];
    for (int i = 0; i < conditions.length; i++) {
      conditions[i] =
          parts.get(2 * i) == null
              ? scope -> null
              : compiler.need(parts.get(2 * i), Kind.LOGICAL, "IFS");
      values[i] = code(parts, 2 * i + 1, null);
    }
    return scope -> {
      for (int i = 0; i < conditions.length; i++) {
        Object holds = conditions[i].run(scope);
        if (holds instanceof Problem) {
          return holds;
        }
        if (Boolean.TRUE.equals(holds)) {
          return values[i].run(scope);
        }
      }
      return InformationFunctions.notAvailable("no condition holds");
    };
  }

  private static Code cases(Compiler compiler, Node.Call call, List<Compiler.Part> parts) {
    Code value = parts.get(0).code();
    int pairs = (parts.size() - 1) / 2;
    Code last = parts.size() % 2 == 0 ? code(parts, parts.size() - 1, null) : null;
    return scope -> {
      Object wanted = value.run(scope);
      for (int i = 0; i < pairs; i++) {
        Compiler.Part is = parts.get(1 + 2 * i);
        Object other = is == null ? null : is.code().run(scope);
        Object same =
            Comparing.compare(
                "=",
                wanted,
                other,
                parts.get(0).locale(),
                is == null ? parts.get(0).locale() : is.locale());
        if (same instanceof Problem) {
          return same;
        }
        if (Boolean.TRUE.equals(same)) {
          return code(parts, 2 + 2 * i, null).run(scope);
        }
      }
      return last == null
          ? InformationFunctions.notAvailable("no case equals it")
          : last.run(scope);
    };
  }

  private static Code nth(Compiler compiler, Node.Call call, List<Compiler.Part> parts) {
    Code which = compiler.need(parts.get(0), Kind.NUMBER, "CHOOSE");
    return scope -> {
      Object number = which.run(scope);
      if (!(number instanceof BigDecimal n)) {
        return number;
      }
      int at = TextFunctions.whole(n);
      return at < 1 || at >= parts.size()
          ? Compiler.located(
              Functions.refuse(n, "there are " + (parts.size() - 1) + " to choose from"),
              "CHOOSE",
              call.from())
          : code(parts, at, null).run(scope);
    };
  }

  private static Code rescued(
      List<Compiler.Part> parts, java.util.function.Predicate<Problem> which) {
    Code value = parts.get(0).code();
    Code otherwise = parts.get(1).code();
    return scope -> {
      Object found = value.run(scope);
      return found instanceof Problem p && which.test(p) ? otherwise.run(scope) : found;
    };
  }

  private static boolean all(Object[] conditions) {
    for (Object condition : conditions) {
      if (Boolean.FALSE.equals(condition)) {
        return false;
      }
    }
    return true;
  }

  private static boolean any(Object[] conditions) {
    for (Object condition : conditions) {
      if (Boolean.TRUE.equals(condition)) {
        return true;
      }
    }
    return false;
  }

  private static boolean odd(Object[] conditions) {
    boolean odd = false;
    for (Object condition : conditions) {
      odd ^= Boolean.TRUE.equals(condition);
    }
    return odd;
  }
}
