package org.zestyporter.core.formula;

import java.util.List;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;

/**
 * A formula, compiled once and run for any number of rows.
 *
 * <p>A subset of OpenFormula (OASIS ODF 1.2 part 2): its literals, operators, precedence, and the
 * functions of {@link Functions}. Columns stand in brackets, {@code ]} in their names is doubled.
 * Running has no side effects, and its time, depth and memory are bounded. Safe for use by several
 * threads.
 *
 * <pre>{@code
 * Formula formula = Formula.compile("IF([Kind]=\"K\"; \"ketch\"; LOWER([Kind]))", names);
 * Object value = formula.run(scope);
 * }</pre>
 */
public final class Formula {
  /** The longest text that a formula may make. */
  static final int LONGEST_TEXT = 100_000;

  private final String text;
  private final Code code;
  private final Kind kind;
  private final List<Integer> columns;
  private final boolean usesLine;

  private Formula(String text, Compiler compiler) {
    Node node = Parser.parse(text);
    this.text = text;
    Compiler.Part part = compiler.compile(node);
    this.code = part.code();
    this.kind = part.kind();
    this.columns = compiler.columns();
    this.usesLine = compiler.usesLine();
  }

  /**
   * Compiles a formula.
   *
   * @throws FormulaException naming the place at fault and the cause
   */
  public static Formula compile(String text, Names names) {
    return new Formula(text, new Compiler(names));
  }

  /**
   * The titles of the columns that a formula names, in their order; empty if it can't be parsed.
   */
  public static List<String> columnsOf(String text) {
    try {
      return Token.of(text).stream()
          .filter(t -> t.sort() == Token.Sort.COLUMN)
          .map(Token::text)
          .distinct()
          .toList();
    } catch (FormulaException e) {
      return List.of();
    }
  }

  /** A column's name as it stands in a formula. */
  public static String quote(String column) {
    return "[" + column.replace("]", "]]") + "]";
  }

  /**
   * The value for a row.
   *
   * @return a text, {@link java.math.BigDecimal}, date, time or truth value; null for blank; a
   *     {@link Problem} if there is none
   */
  public Object run(Scope scope) {
    Object value = code.run(scope);
    if (value instanceof String s) {
      return s.isEmpty() ? null : s;
    }
    return value;
  }

  /** The type of its values, as far as it can be told beforehand. */
  public Kind kind() {
    return kind;
  }

  /** Indexes of the columns that it reads, each once. */
  public List<Integer> columns() {
    return columns;
  }

  /** True if the value depends on the row's line number. */
  public boolean usesLine() {
    return usesLine;
  }

  @Override
  public String toString() {
    return text;
  }

  static Object bounded(Object value) {
    return value instanceof String s && s.length() > LONGEST_TEXT
        ? new Problem(
            ProblemCode.FORMULA, s.substring(0, 40) + "…", "the text is over 100,000 characters")
        : value;
  }
}
