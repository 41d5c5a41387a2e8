package org.zestyporter.core.formula;

import java.math.BigDecimal;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.apache.commons.text.similarity.LevenshteinDistance;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueType;

/** Makes runnable code of a parsed formula and checks its types as far as they can be told. */
final class Compiler {
  private static final int NEAR = 3;

  private final Names names;
  private final Set<Integer> columns = new LinkedHashSet<>();
  private boolean usesLine;

  Compiler(Names names) {
    this.names = names;
  }

  /**
   * A compiled part.
   *
   * @param likely the type that the column's profile speaks of, where {@code kind} is any
   * @param locale how its texts are read
   * @param node where it stands
   */
  record Part(Code code, Kind kind, Kind likely, LocaleSettings locale, Node node) {}

  List<Integer> columns() {
    return List.copyOf(columns);
  }

  boolean usesLine() {
    return usesLine;
  }

  Names names() {
    return names;
  }

  Part compile(Node node) {
    if (node instanceof Node.Literal literal) {
      return literal(literal);
    }
    if (node instanceof Node.Column column) {
      return column(column);
    }
    if (node instanceof Node.Sign sign) {
      return sign(sign);
    }
    return node instanceof Node.Binary binary ? binary(binary) : call((Node.Call) node);
  }

  private Part literal(Node.Literal literal) {
    Object value = literal.value();
    Kind kind =
        value instanceof BigDecimal
            ? Kind.NUMBER
            : value instanceof Boolean ? Kind.LOGICAL : Kind.TEXT;
    return new Part(scope -> value, kind, kind, names.locale(), literal);
  }

  private Part column(Node.Column column) {
    int index = names.column(column.name());
    if (index < 0) {
      throw new FormulaException(noColumn(column.name()), column.from(), column.to());
    }
    columns.add(index);
    ValueType type = names.type(index);
    Kind likely =
        switch (type) {
          case WHOLE, DECIMAL -> Kind.NUMBER;
          case DATE, DATETIME -> Kind.DATE;
          case TIME -> Kind.TIME;
          default -> Kind.TEXT;
        };
    return new Part(scope -> scope.column(index), Kind.ANY, likely, names.locale(index), column);
  }

  private String noColumn(String name) {
    String near = nearest(name, names.columns());
    return "there is no column “" + name + "”" + (near == null ? "" : "; is it [" + near + "]?");
  }

  /** The name that is spelt most alike; null if none is. */
  static String nearest(String name, Iterable<String> known) {
    LevenshteinDistance distance = new LevenshteinDistance(NEAR);
    String nearest = null;
    int least = Math.min(NEAR, Math.max(1, name.length() / 2)) + 1;
    for (String other : known) {
      int between = distance.apply(name.toLowerCase(Locale.ROOT), other.toLowerCase(Locale.ROOT));
      if (between >= 0 && between < least) {
        least = between;
        nearest = other;
      }
    }
    return nearest;
  }

  private Part sign(Node.Sign sign) {
    Code of = need(compile(sign.of()), Kind.NUMBER, "“" + sign.sign() + "”");
    Code code =
        switch (sign.sign()) {
          case "-" -> number(of, BigDecimal::negate);
          case "%" -> number(of, Numbers::percent);
          default -> of;
        };
    return new Part(code, Kind.NUMBER, Kind.NUMBER, names.locale(), sign);
  }

  private static Code number(Code of, java.util.function.UnaryOperator<BigDecimal> change) {
    return scope -> {
      Object value = of.run(scope);
      return value instanceof BigDecimal n ? change.apply(n) : value;
    };
  }

  private Part binary(Node.Binary node) {
    Part left = compile(node.left());
    Part right = compile(node.right());
    LocaleSettings locale = left.node() instanceof Node.Literal ? right.locale() : left.locale();
    return switch (node.sign()) {
      case "&" -> new Part(join(left, right), Kind.TEXT, Kind.TEXT, locale, node);
      case "+", "-" -> sum(node, left, right, locale);
      case "*", "/", "^" ->
          new Part(
              arithmetic(
                  node.sign(),
                  need(left, Kind.NUMBER, "“" + node.sign() + "”"),
                  need(right, Kind.NUMBER, "“" + node.sign() + "”"),
                  node),
              Kind.NUMBER,
              Kind.NUMBER,
              locale,
              node);
      default -> new Part(comparison(node, left, right), Kind.LOGICAL, Kind.LOGICAL, locale, node);
    };
  }

  private static Code join(Part left, Part right) {
    Code a = left.code();
    Code b = right.code();
    return scope -> {
      Object x = Reads.text(a.run(scope));
      if (x instanceof Problem) {
        return x;
      }
      Object y = Reads.text(b.run(scope));
      return y instanceof Problem ? y : Formula.bounded(((String) x).concat((String) y));
    };
  }

  private static Code arithmetic(String sign, Code a, Code b, Node.Binary node) {
    return scope -> {
      Object x = a.run(scope);
      if (x instanceof Problem) {
        return x;
      }
      Object y = b.run(scope);
      if (y instanceof Problem) {
        return y;
      }
      // a calculation with a blank has no result: no 0 is written that nobody typed
      return x == null || y == null
          ? null
          : located(Numbers.arithmetic(sign, (BigDecimal) x, (BigDecimal) y), sign, node.at());
    };
  }

  /** Sums and differences, of dates and days too. */
  private Part sum(Node.Binary node, Part left, Part right, LocaleSettings locale) {
    Kind a = typeOf(left);
    Kind b = typeOf(right);
    boolean minus = node.sign().equals("-");
    String place = "“" + node.sign() + "”";
    if (a == Kind.DATE && b == Kind.DATE && !minus) {
      throw new FormulaException("two dates can’t be added", node.at(), node.at() + 1);
    }
    if (a == Kind.DATE && b == Kind.DATE) {
      Code from = need(right, Kind.DATE, place);
      Code to = need(left, Kind.DATE, place);
      Code code = both(from, to, Numbers::days);
      return new Part(code, Kind.NUMBER, Kind.NUMBER, locale, node);
    }
    if (a == Kind.DATE || (b == Kind.DATE && !minus)) {
      Code date = need(a == Kind.DATE ? left : right, Kind.DATE, place);
      Code days = need(a == Kind.DATE ? right : left, Kind.NUMBER, place);
      Code code =
          both(
              date,
              days,
              (d, n) -> {
                BigDecimal shift = minus ? ((BigDecimal) n).negate() : (BigDecimal) n;
                return located(Numbers.shift(d, shift), node.sign(), node.at());
              });
      return new Part(code, Kind.DATE, Kind.DATE, locale, node);
    }
    Code x = need(left, Kind.NUMBER, place);
    Code y = need(right, Kind.NUMBER, place);
    return new Part(arithmetic(node.sign(), x, y, node), Kind.NUMBER, Kind.NUMBER, locale, node);
  }

  private static Code both(Code a, Code b, java.util.function.BinaryOperator<Object> function) {
    return scope -> {
      Object x = a.run(scope);
      Object y = b.run(scope);
      if (x instanceof Problem || y instanceof Problem) {
        return x instanceof Problem ? x : y;
      }
      return x == null || y == null ? null : function.apply(x, y);
    };
  }

  private static Kind typeOf(Part part) {
    return part.kind() == Kind.ANY ? part.likely() : part.kind();
  }

  private Code comparison(Node.Binary node, Part left, Part right) {
    Kind a = typeOf(left);
    Kind b = typeOf(right);
    // two columns of numbers or of dates are compared as such, not letter by letter
    boolean typed = a == b && (a == Kind.NUMBER || a == Kind.DATE || a == Kind.TIME);
    Code x = typed ? need(left, a, "“" + node.sign() + "”") : left.code();
    Code y = typed ? need(right, a, "“" + node.sign() + "”") : right.code();
    LocaleSettings localeOfX = left.locale();
    LocaleSettings localeOfY = right.locale();
    String sign = node.sign();
    return scope ->
        located(
            Comparing.compare(sign, x.run(scope), y.run(scope), localeOfX, localeOfY),
            sign,
            node.at());
  }

  /** Code that gives a part's value as a type. */
  Code need(Part part, Kind kind, String place) {
    Code code = part.code();
    if (kind == Kind.ANY || part.kind() == kind) {
      return code;
    }
    Node node = part.node();
    boolean never =
        switch (kind) {
          case NUMBER -> part.kind() == Kind.DATE || part.kind() == Kind.TIME;
          case DATE -> part.kind() == Kind.NUMBER || part.kind() == Kind.LOGICAL;
          case TIME -> part.kind() == Kind.NUMBER || part.kind() == Kind.LOGICAL;
          case LOGICAL -> part.kind() == Kind.DATE || part.kind() == Kind.TIME;
          default -> false;
        };
    if (never) {
      throw new FormulaException(
          place + " needs " + kind.phrase() + ", and this is " + part.kind().phrase(),
          node.from(),
          node.to());
    }
    LocaleSettings locale = part.locale();
    if (node instanceof Node.Literal literal) {
      Object read = Reads.as(kind, literal.value(), locale);
      if (read instanceof Problem) {
        throw new FormulaException(
            place + " needs " + kind.phrase() + ", and “" + literal.value() + "” is none",
            node.from(),
            node.to());
      }
      return scope -> read;
    }
    int at = node.from();
    return scope -> {
      Object value = code.run(scope);
      Object read = Reads.as(kind, value, locale);
      return read instanceof Problem p && p != value ? at(p, place, at) : read;
    };
  }

  private Part call(Node.Call call) {
    Function function = Functions.find(call.name());
    if (function == null) {
      String near = nearest(call.name(), Functions.names());
      throw new FormulaException(
          "there is no function " + call.name() + (near == null ? "" : "; is it " + near + "?"),
          call.from(),
          call.from() + call.name().length());
    }
    function.requireCount(call);
    usesLine |= function.name().equals("LINE");
    return function.compile(this, call);
  }

  /** A new problem of a function or sign, with its place. */
  static Object located(Object result, String what, int at) {
    return result instanceof Problem p && p.code() == ProblemCode.FORMULA
        ? at(p, "“" + what + "”", at)
        : result;
  }

  private static Problem at(Problem problem, String place, int at) {
    return problem.reason().endsWith(")")
        ? problem
        : new Problem(
            problem.code(),
            problem.value(),
            problem.reason() + " (" + place + " at character " + (at + 1) + ")");
  }
}
