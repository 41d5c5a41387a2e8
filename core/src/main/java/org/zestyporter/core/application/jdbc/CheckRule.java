package org.zestyporter.core.application.jdbc;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import net.sf.jsqlparser.expression.CastExpression;
import net.sf.jsqlparser.expression.DoubleValue;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.LongValue;
import net.sf.jsqlparser.expression.SignedExpression;
import net.sf.jsqlparser.expression.StringValue;
import net.sf.jsqlparser.expression.operators.conditional.AndExpression;
import net.sf.jsqlparser.expression.operators.relational.Between;
import net.sf.jsqlparser.expression.operators.relational.ComparisonOperator;
import net.sf.jsqlparser.expression.operators.relational.ExpressionList;
import net.sf.jsqlparser.expression.operators.relational.GreaterThanEquals;
import net.sf.jsqlparser.expression.operators.relational.InExpression;
import net.sf.jsqlparser.expression.operators.relational.MinorThanEquals;
import net.sf.jsqlparser.schema.Column;
import org.jspecify.annotations.Nullable;

/**
 * What a check constraint says of one field, where it is a list of texts or a range of numbers.
 *
 * <p>What else can be told beforehand is a {@link SqlRule}.
 */
record CheckRule(
    String field,
    @Nullable List<String> choices,
    @Nullable BigDecimal least,
    @Nullable BigDecimal greatest) {

  /** Both rules at once; the narrower bound counts. */
  CheckRule and(@Nullable CheckRule other) {
    if (other == null) {
      return this;
    }
    List<String> both = choices == null ? other.choices : choices;
    return new CheckRule(
        field,
        both,
        least == null || other.least != null && other.least.compareTo(least) > 0
            ? other.least
            : least,
        greatest == null || other.greatest != null && other.greatest.compareTo(greatest) < 0
            ? other.greatest
            : greatest);
  }

  /** The rule in a constraint's text, or null if it is of another kind. */
  static @Nullable CheckRule parse(String constraint) {
    Expression parsed = SqlText.parse(constraint);
    return parsed == null ? null : of(parsed);
  }

  private static @Nullable CheckRule of(Expression given) {
    Expression e = SqlText.inner(given);
    if (e instanceof AndExpression and) {
      CheckRule left = of(and.getLeftExpression());
      CheckRule right = of(and.getRightExpression());
      boolean both = left != null && right != null && left.field.equalsIgnoreCase(right.field);
      return both ? left.and(right) : null;
    }
    if (e instanceof InExpression in && !in.isNot()) {
      return choices(in);
    }
    if (e instanceof Between between && !between.isNot()) {
      String field = field(between.getLeftExpression());
      BigDecimal least = number(between.getBetweenExpressionStart());
      BigDecimal greatest = number(between.getBetweenExpressionEnd());
      boolean range = field != null && least != null && greatest != null;
      return range ? new CheckRule(field, null, least, greatest) : null;
    }
    boolean atLeast = e instanceof GreaterThanEquals;
    if (atLeast || e instanceof MinorThanEquals) {
      ComparisonOperator compares = (ComparisonOperator) e;
      String field = field(compares.getLeftExpression());
      BigDecimal bound = number(compares.getRightExpression());
      if (field == null) {
        field = field(compares.getRightExpression());
        bound = number(compares.getLeftExpression());
        atLeast = !atLeast;
      }
      return field == null || bound == null
          ? null
          : new CheckRule(field, null, atLeast ? bound : null, atLeast ? null : bound);
    }
    return null;
  }

  private static @Nullable CheckRule choices(InExpression in) {
    String field = field(in.getLeftExpression());
    if (field == null || !(in.getRightExpression() instanceof ExpressionList<?> list)) {
      return null;
    }
    List<String> choices = new ArrayList<>();
    for (Expression one : list) {
      if (!(SqlText.inner(one) instanceof StringValue text)) {
        return null;
      }
      choices.add(text.getNotExcapedValue());
    }
    return new CheckRule(field, choices, null, null);
  }

  private static @Nullable String field(Expression e) {
    return SqlText.inner(e) instanceof Column column && column.getTable() == null
        ? SqlText.name(column.getColumnName())
        : null;
  }

  private static @Nullable BigDecimal number(Expression given) {
    Expression e = SqlText.inner(given);
    if (e instanceof CastExpression cast) {
      return number(cast.getLeftExpression());
    }
    if (e instanceof SignedExpression signed && signed.getSign() == '-') {
      BigDecimal number = number(signed.getExpression());
      return number == null ? null : number.negate();
    }
    boolean numeric =
        e instanceof LongValue
            || e instanceof DoubleValue
            || e instanceof StringValue text
                && text.getValue().matches("-?\\d{1,30}(\\.\\d{1,30})?");
    return numeric ? new BigDecimal(e.toString().replace("'", "")) : null;
  }
}
