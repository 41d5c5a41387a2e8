package org.zestyporter.core.application.jdbc;

import static org.zestyporter.core.application.jdbc.SqlValues.and;
import static org.zestyporter.core.application.jdbc.SqlValues.not;

import com.google.re2j.Pattern;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiFunction;
import java.util.function.UnaryOperator;
import net.sf.jsqlparser.expression.BooleanValue;
import net.sf.jsqlparser.expression.CastExpression;
import net.sf.jsqlparser.expression.DoubleValue;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.Function;
import net.sf.jsqlparser.expression.LongValue;
import net.sf.jsqlparser.expression.NotExpression;
import net.sf.jsqlparser.expression.NullValue;
import net.sf.jsqlparser.expression.SignedExpression;
import net.sf.jsqlparser.expression.StringValue;
import net.sf.jsqlparser.expression.operators.arithmetic.Addition;
import net.sf.jsqlparser.expression.operators.arithmetic.Modulo;
import net.sf.jsqlparser.expression.operators.arithmetic.Multiplication;
import net.sf.jsqlparser.expression.operators.arithmetic.Subtraction;
import net.sf.jsqlparser.expression.operators.conditional.AndExpression;
import net.sf.jsqlparser.expression.operators.conditional.OrExpression;
import net.sf.jsqlparser.expression.operators.relational.Between;
import net.sf.jsqlparser.expression.operators.relational.EqualsTo;
import net.sf.jsqlparser.expression.operators.relational.ExpressionList;
import net.sf.jsqlparser.expression.operators.relational.GreaterThan;
import net.sf.jsqlparser.expression.operators.relational.GreaterThanEquals;
import net.sf.jsqlparser.expression.operators.relational.InExpression;
import net.sf.jsqlparser.expression.operators.relational.IsBooleanExpression;
import net.sf.jsqlparser.expression.operators.relational.IsNullExpression;
import net.sf.jsqlparser.expression.operators.relational.LikeExpression;
import net.sf.jsqlparser.expression.operators.relational.MinorThan;
import net.sf.jsqlparser.expression.operators.relational.MinorThanEquals;
import net.sf.jsqlparser.expression.operators.relational.NotEqualsTo;
import net.sf.jsqlparser.expression.operators.relational.RegExpMatchOperator;
import net.sf.jsqlparser.schema.Column;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.RowRule;
import org.zestyporter.core.value.Comparison.Ignore;
import org.zestyporter.core.value.Patterns;
import org.zestyporter.core.value.PorterException;

/**
 * A check constraint that is told as the database tells it: comparisons, lists, lengths, patterns,
 * sums, and what joins them, in the three-valued logic of SQL. What databases tell in different
 * ways (the order of texts, division, the time of day) is left to them.
 */
final class SqlRule implements RowRule {

  /**
   * What differs between databases.
   *
   * @param bytes true if LENGTH counts bytes
   * @param loose true if LIKE takes small letters for capitals
   */
  record Ways(boolean bytes, boolean loose) {}

  /** Computes a value from those of a record; null if it is unknown. */
  private interface Term {
    @Nullable Object of(Object[] values);
  }

  /** Something that is left to the database. */
  private static final class NotToldException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    NotToldException() {
      super(null, null, false, false);
    }
  }

  private final String text;
  private final List<FieldInfo> table;
  private final Ways ways;
  private final Set<Integer> fields = new TreeSet<>();
  private final Term term;

  private SqlRule(String text, Expression parsed, List<FieldInfo> table, Ways ways) {
    this.text = text;
    this.table = table;
    this.ways = ways;
    this.term = truth(parsed);
  }

  /**
   * The rule in a constraint's text; null if it is left to the database.
   *
   * @param table the table's fields
   */
  static @Nullable SqlRule parse(String constraint, List<FieldInfo> table, Ways ways) {
    Expression parsed = SqlText.parse(constraint);
    try {
      return parsed == null
          ? null
          : new SqlRule(SqlText.bare(constraint), parsed, List.copyOf(table), ways);
    } catch (NotToldException e) {
      return null;
    }
  }

  @Override
  public String text() {
    return text;
  }

  @Override
  public Set<Integer> fields() {
    return fields;
  }

  @Override
  public boolean holds(Object[] values) {
    return !Boolean.FALSE.equals(term.of(values));
  }

  private Term truth(Expression given) {
    Expression e = SqlText.inner(given);
    if (e instanceof AndExpression and) {
      Term left = truth(and.getLeftExpression());
      Term right = truth(and.getRightExpression());
      return v -> and(left.of(v), right.of(v));
    } else if (e instanceof OrExpression or) {
      Term left = truth(or.getLeftExpression());
      Term right = truth(or.getRightExpression());
      return v -> not(and(not(left.of(v)), not(right.of(v))));
    } else if (e instanceof NotExpression not) {
      Term inner = truth(not.getExpression());
      return v -> not(inner.of(v));
    } else if (e instanceof IsNullExpression is) {
      Term inner = term(is.getLeftExpression());
      return v -> inner.of(v) == null != is.isNot();
    } else if (e instanceof IsBooleanExpression is) {
      Term inner = truth(is.getLeftExpression());
      return v -> Boolean.valueOf(is.isTrue()).equals(inner.of(v)) != is.isNot();
    } else if (e instanceof Between between) {
      Term value = term(between.getLeftExpression());
      Term least = term(between.getBetweenExpressionStart());
      Term greatest = term(between.getBetweenExpressionEnd());
      return maybeNot(
          between.isNot(),
          v ->
              and(
                  SqlValues.ordered(value.of(v), least.of(v), order -> order >= 0),
                  SqlValues.ordered(value.of(v), greatest.of(v), order -> order <= 0)));
    } else if (e instanceof InExpression in) {
      return in(in);
    } else if (e instanceof LikeExpression like) {
      return like(like);
    } else if (e instanceof RegExpMatchOperator match) {
      return match(match);
    }
    return comparison(e);
  }

  private Term comparison(Expression e) {
    if (e instanceof EqualsTo equal) {
      return same(equal.getLeftExpression(), equal.getRightExpression());
    } else if (e instanceof NotEqualsTo differs) {
      Term same = same(differs.getLeftExpression(), differs.getRightExpression());
      return v -> not(same.of(v));
    } else if (e instanceof GreaterThan c) {
      return ordered(c.getLeftExpression(), c.getRightExpression(), order -> order > 0);
    } else if (e instanceof GreaterThanEquals c) {
      return ordered(c.getLeftExpression(), c.getRightExpression(), order -> order >= 0);
    } else if (e instanceof MinorThan c) {
      return ordered(c.getLeftExpression(), c.getRightExpression(), order -> order < 0);
    } else if (e instanceof MinorThanEquals c) {
      return ordered(c.getLeftExpression(), c.getRightExpression(), order -> order <= 0);
    }
    Term value = term(e);
    return v -> value.of(v) instanceof Boolean truth ? truth : null;
  }

  private static Term maybeNot(boolean negated, Term term) {
    return negated ? v -> not(term.of(v)) : term;
  }

  private Term ordered(Expression left, Expression right, SqlValues.Order wanted) {
    Term a = term(left);
    Term b = term(right);
    return v -> SqlValues.ordered(a.of(v), b.of(v), wanted);
  }

  private Term same(Expression left, Expression right) {
    boolean caseless = isCaseless(left) || isCaseless(right);
    Term a = term(left);
    Term b = term(right);
    return v -> SqlValues.same(a.of(v), b.of(v), caseless);
  }

  /** True if the database takes small letters for capitals where a field is compared. */
  private boolean isCaseless(Expression given) {
    Expression e = SqlText.inner(given);
    return e instanceof Column column
        && table.stream()
            .anyMatch(
                f ->
                    f.name().equalsIgnoreCase(SqlText.name(column.getColumnName()))
                        && f.ignored().contains(Ignore.CASE));
  }

  private Term in(InExpression in) {
    if (!(in.getRightExpression() instanceof ExpressionList<?> list)) {
      throw new NotToldException();
    }
    boolean caseless = isCaseless(in.getLeftExpression());
    Term value = term(in.getLeftExpression());
    List<Term> members = new ArrayList<>();
    list.forEach(e -> members.add(term(e)));
    return maybeNot(
        in.isNot(),
        v -> {
          Object own = value.of(v);
          Boolean among = false;
          for (Term member : members) {
            among = not(and(not(among), not(SqlValues.same(own, member.of(v), caseless))));
          }
          return among;
        });
  }

  private Term like(LikeExpression like) {
    boolean matches = like.getLikeKeyWord() == LikeExpression.KeyWord.REGEXP;
    boolean plain = like.getLikeKeyWord() == LikeExpression.KeyWord.LIKE;
    boolean loose = like.getLikeKeyWord() == LikeExpression.KeyWord.ILIKE;
    if (!matches && !plain && !loose || like.getEscape() != null) {
      throw new NotToldException();
    }
    String pattern = literal(like.getRightExpression());
    boolean caseless = loose || isCaseless(like.getLeftExpression()) || plain && ways.loose();
    Pattern compiled = matches ? compile(pattern, caseless) : ofLike(pattern, caseless);
    Term value = term(like.getLeftExpression());
    return maybeNot(
        like.isNot(),
        v ->
            value.of(v) instanceof String text
                ? matches ? compiled.matcher(text).find() : compiled.matches(text)
                : null);
  }

  private Term match(RegExpMatchOperator match) {
    String operator = match.getStringExpression();
    Pattern compiled = compile(literal(match.getRightExpression()), operator.endsWith("*"));
    Term value = term(match.getLeftExpression());
    return maybeNot(
        operator.startsWith("!"),
        v -> value.of(v) instanceof String text ? compiled.matcher(text).find() : null);
  }

  private static String literal(Expression given) {
    if (SqlText.inner(given) instanceof StringValue text && text.getPrefix() == null) {
      return text.getNotExcapedValue();
    }
    throw new NotToldException();
  }

  private static Pattern compile(String pattern, boolean caseless) {
    // what the databases' own kinds of patterns have and ours has not, or has in another sense
    if (pattern.contains("\\") || pattern.contains("(?") || pattern.contains("[[")) {
      throw new NotToldException();
    }
    return patternOf(pattern, caseless);
  }

  private static Pattern patternOf(String pattern, boolean caseless) {
    try {
      return Patterns.compile(pattern, caseless ? Pattern.CASE_INSENSITIVE : 0);
    } catch (PorterException e) {
      // longer than patterns may be
      throw new NotToldException();
    }
  }

  private static Pattern ofLike(String pattern, boolean caseless) {
    if (pattern.contains("\\")) {
      throw new NotToldException();
    }
    StringBuilder regex = new StringBuilder();
    for (int c : pattern.codePoints().toArray()) {
      String one = Character.toString(c);
      regex.append(c == '%' ? "(?s:.*)" : c == '_' ? "(?s:.)" : Pattern.quote(one));
    }
    return patternOf(regex.toString(), caseless);
  }

  private Term term(Expression given) {
    Expression e = SqlText.inner(given);
    if (e instanceof Column column) {
      return column(column);
    } else if (e instanceof LongValue || e instanceof DoubleValue) {
      BigDecimal number = new BigDecimal(e.toString());
      return v -> number;
    } else if (e instanceof StringValue) {
      String literal = literal(e);
      return v -> literal;
    } else if (e instanceof BooleanValue truth) {
      return v -> truth.getValue();
    } else if (e instanceof NullValue) {
      return v -> null;
    } else if (e instanceof SignedExpression signed && signed.getSign() == '-') {
      Term inner = term(signed.getExpression());
      return v -> inner.of(v) instanceof BigDecimal number ? number.negate() : null;
    } else if (e instanceof CastExpression cast) {
      // what is cast is compared as what stands on the other side
      return term(cast.getLeftExpression());
    } else if (e instanceof Addition sum) {
      return sum(sum.getLeftExpression(), sum.getRightExpression(), BigDecimal::add);
    } else if (e instanceof Subtraction rest) {
      return sum(rest.getLeftExpression(), rest.getRightExpression(), BigDecimal::subtract);
    } else if (e instanceof Multiplication times) {
      return sum(times.getLeftExpression(), times.getRightExpression(), BigDecimal::multiply);
    } else if (e instanceof Modulo rest) {
      return sum(rest.getLeftExpression(), rest.getRightExpression(), SqlValues::remainder);
    } else if (e instanceof Function function) {
      return function(function);
    }
    throw new NotToldException();
  }

  private Term column(Column column) {
    String name = SqlText.name(column.getColumnName());
    if (column.getTable() == null && name.matches("(?i)true|false")) {
      boolean truth = name.equalsIgnoreCase("true");
      return v -> truth;
    }
    for (int i = 0; i < table.size(); i++) {
      if (column.getTable() == null && table.get(i).name().equalsIgnoreCase(name)) {
        if (table.get(i).type() == FieldType.OTHER) {
          throw new NotToldException();
        }
        int index = i;
        fields.add(index);
        return v -> v[index];
      }
    }
    throw new NotToldException();
  }

  private Term sum(
      Expression left, Expression right, BiFunction<BigDecimal, BigDecimal, BigDecimal> of) {
    Term a = term(left);
    Term b = term(right);
    return v ->
        a.of(v) instanceof BigDecimal x && b.of(v) instanceof BigDecimal y ? of.apply(x, y) : null;
  }

  private Term function(Function function) {
    List<Term> given = new ArrayList<>();
    if (function.getParameters() != null) {
      function.getParameters().forEach(e -> given.add(term(e)));
    }
    String name = function.getName().toLowerCase(Locale.ROOT);
    return switch (name + " " + given.size()) {
      case "length 1" -> length(given.get(0), ways.bytes());
      case "char_length 1", "character_length 1" -> length(given.get(0), false);
      case "octet_length 1" -> length(given.get(0), true);
      case "lower 1", "lcase 1" -> texts(given.get(0), t -> t.toLowerCase(Locale.ROOT));
      case "upper 1", "ucase 1" -> texts(given.get(0), t -> t.toUpperCase(Locale.ROOT));
      case "abs 1" -> v -> given.get(0).of(v) instanceof BigDecimal n ? n.abs() : null;
      case "mod 2" ->
          v ->
              given.get(0).of(v) instanceof BigDecimal a
                      && given.get(1).of(v) instanceof BigDecimal b
                  ? SqlValues.remainder(a, b)
                  : null;
      default -> {
        if (!name.equals("coalesce") || given.isEmpty()) {
          throw new NotToldException();
        }
        yield v -> given.stream().map(t -> t.of(v)).filter(o -> o != null).findFirst().orElse(null);
      }
    };
  }

  private static Term length(Term given, boolean bytes) {
    return v ->
        given.of(v) instanceof String text
            ? BigDecimal.valueOf(
                bytes
                    ? text.getBytes(StandardCharsets.UTF_8).length
                    : text.codePointCount(0, text.length()))
            : null;
  }

  private static Term texts(Term given, UnaryOperator<String> change) {
    return v -> given.of(v) instanceof String text ? change.apply(text) : null;
  }
}
