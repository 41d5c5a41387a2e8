package org.zestyporter.core.formula;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Parses a formula by the precedence of OpenFormula (ODF 1.2 part 2, 5.5): signs before a value,
 * {@code %}, {@code ^}, {@code * /}, {@code + -}, {@code &}, comparisons; all of them bind to the
 * left.
 */
final class Parser {
  private static final int LONGEST = 8_000;
  private static final int DEEPEST = 64;
  private static final int MOST_WORDS = 2_000;
  private static final List<List<String>> LEVELS =
      List.of(
          List.of("=", "<>", "<", "<=", ">", ">="),
          List.of("&"),
          List.of("+", "-"),
          List.of("*", "/"),
          List.of("^"));

  private final List<Token> tokens;
  private int at;
  private int depth;

  private Parser(List<Token> tokens) {
    this.tokens = tokens;
  }

  static Node parse(String formula) {
    if (formula.length() > LONGEST) {
      throw new FormulaException("it is longer than 8,000 characters", LONGEST, formula.length());
    }
    List<Token> words = Token.of(formula);
    if (words.size() > MOST_WORDS) {
      Token last = words.get(MOST_WORDS);
      throw new FormulaException("it has more than 2,000 words", last.from(), formula.length());
    }
    Parser parser = new Parser(words);
    if (parser.peek().is("=")) {
      parser.at++;
    }
    if (parser.peek().sort() == Token.Sort.END) {
      throw new FormulaException("there is no formula yet", 0, formula.length());
    }
    Node node = parser.level(0);
    Token rest = parser.peek();
    if (rest.sort() != Token.Sort.END) {
      throw new FormulaException(surplus(rest), rest.from(), rest.to());
    }
    return node;
  }

  private static String surplus(Token rest) {
    if (rest.is(")")) {
      return "this ) closes nothing";
    }
    return rest.is(";") || rest.is(",")
        ? "“" + rest.text() + "” parts the arguments of a function, and there is none here"
        : "a sign such as + or & is missing before this";
  }

  private Token peek() {
    return tokens.get(at);
  }

  private Node level(int level) {
    if (level == LEVELS.size()) {
      return behind();
    }
    Node left = level(level + 1);
    while (peek().sort() == Token.Sort.SIGN && LEVELS.get(level).contains(peek().text())) {
      Token sign = tokens.get(at++);
      left = new Node.Binary(sign.text(), left, level(level + 1), sign.from());
    }
    return left;
  }

  /** Percent signs behind a value. */
  private Node behind() {
    Node node = before();
    while (peek().is("%")) {
      Token sign = tokens.get(at++);
      node = new Node.Sign("%", node, node.from(), sign.to());
    }
    return node;
  }

  /** Signs before a value. */
  private Node before() {
    Token token = peek();
    if (!token.is("-") && !token.is("+")) {
      return value();
    }
    at++;
    deeper(token);
    Node of = before();
    depth--;
    return new Node.Sign(token.text(), of, token.from(), of.to());
  }

  private void deeper(Token token) {
    if (++depth > DEEPEST) {
      throw new FormulaException(
          "more than 64 levels stand inside one another", token.from(), token.to());
    }
  }

  private Node value() {
    Token token = tokens.get(at++);
    switch (token.sort()) {
      case NUMBER:
        return new Node.Literal(token.number(), token.from(), token.to());
      case TEXT:
        return new Node.Literal(token.text(), token.from(), token.to());
      case COLUMN:
        return new Node.Column(token.text(), token.from(), token.to());
      case NAME:
        return name(token);
      default:
        break;
    }
    if (token.is("(")) {
      deeper(token);
      Node inside = level(0);
      close(token);
      depth--;
      return inside;
    }
    at--;
    throw new FormulaException(
        token.sort() == Token.Sort.END
            ? "it ends where a value must follow"
            : "a value must stand here, not “" + token.text() + "”",
        token.from(),
        token.to());
  }

  private Node name(Token token) {
    if (peek().is("(")) {
      return call(token);
    }
    String upper = token.text().toUpperCase(Locale.ROOT);
    if (upper.equals("TRUE") || upper.equals("FALSE")) {
      return new Node.Literal(upper.equals("TRUE"), token.from(), token.to());
    }
    throw new FormulaException(
        Functions.find(upper) != null
            ? upper + " needs its arguments in ( )"
            : "“" + token.text() + "”: a column stands in [ ], a text in \" \"",
        token.from(),
        token.to());
  }

  private Node call(Token name) {
    Token open = tokens.get(at++);
    deeper(open);
    List<Node> arguments = new ArrayList<>();
    Token separator = null;
    if (!peek().is(")")) {
      arguments.add(argument());
      while (peek().is(";") || peek().is(",")) {
        Token sign = tokens.get(at++);
        if (separator != null && !separator.text().equals(sign.text())) {
          Token comma = sign.is(",") ? sign : separator;
          throw new FormulaException(
              "; and , both part arguments here; use ; throughout, and a point in numbers: 1.5",
              comma.from(),
              comma.to());
        }
        separator = sign;
        arguments.add(argument());
      }
    }
    Token close = close(open);
    depth--;
    return new Node.Call(name.text().toUpperCase(Locale.ROOT), arguments, name.from(), close.to());
  }

  /** An argument, or null if it is left out between two separators. */
  private Node argument() {
    return peek().is(";") || peek().is(",") || peek().is(")") ? null : level(0);
  }

  private Token close(Token open) {
    Token close = peek();
    if (!close.is(")")) {
      if (close.sort() == Token.Sort.END) {
        throw new FormulaException("this ( is never closed", open.from(), open.to());
      }
      throw new FormulaException(
          close.sort() == Token.Sort.SIGN
              ? "“" + close.text() + "” can’t stand here"
              : "a sign such as + or ; is missing before this",
          close.from(),
          close.to());
    }
    at++;
    return close;
  }
}
