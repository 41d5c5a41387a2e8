package org.zestyporter.core.formula;

import java.util.List;

/** A part of a parsed formula; {@code from} and {@code to} are its characters. */
sealed interface Node {
  int from();

  int to();

  /** A number, text or truth value that is written out. */
  record Literal(Object value, int from, int to) implements Node {}

  /** A column of the row. */
  record Column(String name, int from, int to) implements Node {}

  /** A function with its arguments; an argument that is left out is null. */
  record Call(String name, List<Node> arguments, int from, int to) implements Node {}

  /** A sign before or behind one value: {@code -}, {@code +}, {@code %}. */
  record Sign(String sign, Node of, int from, int to) implements Node {}

  /** A sign between two values, at character {@code at}. */
  record Binary(String sign, Node left, Node right, int at) implements Node {
    @Override
    public int from() {
      return left.from();
    }

    @Override
    public int to() {
      return right.to();
    }
  }
}
