package org.zestyporter.core.formula;

import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.zestyporter.core.value.Problem;

/**
 * A function of formulas, with what its users are told of it.
 *
 * @param gives the type of its values
 * @param says what it does, in a line
 * @param examples runnable on {@link Functions#SAMPLE}
 * @param ours true if it is an addition of ours to OpenFormula
 */
public record Function(
    String name,
    Group group,
    List<Parameter> parameters,
    Kind gives,
    String says,
    List<Example> examples,
    boolean ours,
    @JsonIgnore Body body) {

  /** The chapters of the reference. */
  public enum Group {
    TEXT("Text"),
    LOGIC("Conditions"),
    NUMBER("Numbers and rounding"),
    DATE("Dates and times"),
    INFORMATION("What a value is"),
    CONVERSION("Conversion"),
    OWN("Our additions");

    private final String title;

    Group(String title) {
      this.title = title;
    }

    public String title() {
      return title;
    }

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /**
   * An argument.
   *
   * @param optional true if it may be left out
   * @param repeats true if any number of further ones may follow
   */
  public record Parameter(String name, Kind kind, boolean optional, boolean repeats) {}

  /** A formula and the value that it gives for the sample row, as text; null for blank. */
  public record Example(String formula, String gives) {}

  /** What a function does. */
  sealed interface Body {}

  /** Of computed arguments: none of them is a problem, and required numbers and dates are there. */
  @FunctionalInterface
  non-sealed interface Eager extends Body {
    Object apply(Object[] arguments, Scope scope);
  }

  /** Of arguments that are computed only where they are needed, or not at all. */
  @FunctionalInterface
  non-sealed interface Lazy extends Body {
    Code compile(Compiler compiler, Node.Call call, List<Compiler.Part> parts);
  }

  /** Throws if a call has too few or too many arguments. */
  void requireCount(Node.Call call) {
    long required = parameters.stream().filter(p -> !p.optional()).count();
    boolean open = !parameters.isEmpty() && parameters.get(parameters.size() - 1).repeats();
    int given = call.arguments().size();
    if (given < required || (!open && given > parameters.size())) {
      throw new FormulaException(
          name + " takes (" + signature() + "), and is given " + (given == 0 ? "nothing" : given),
          call.from(),
          call.to());
    }
    for (int i = 0; i < required; i++) {
      if (call.arguments().get(i) == null) {
        throw new FormulaException(
            name + " needs “" + parameter(i).name() + "”", call.from(), call.to());
      }
    }
  }

  private Parameter parameter(int index) {
    return parameters.get(Math.min(index, parameters.size() - 1));
  }

  /** The arguments as they are shown: {@code text; [count]}. */
  public String signature() {
    StringBuilder text = new StringBuilder();
    for (Parameter p : parameters) {
      text.append(text.isEmpty() ? "" : "; ");
      text.append(p.optional() ? "[" + p.name() + "]" : p.name()).append(p.repeats() ? "; …" : "");
    }
    return text.toString();
  }

  Compiler.Part compile(Compiler compiler, Node.Call call) {
    List<Compiler.Part> parts = new ArrayList<>();
    for (Node argument : call.arguments()) {
      parts.add(argument == null ? null : compiler.compile(argument));
    }
    var locale =
        parts.stream()
            .filter(p -> p != null && !(p.node() instanceof Node.Literal))
            .findFirst()
            .map(Compiler.Part::locale)
            .orElse(compiler.names().locale());
    Code code =
        body instanceof Lazy lazy
            ? lazy.compile(compiler, call, parts)
            : eager(compiler, call, parts, (Eager) body);
    return new Compiler.Part(code, gives, gives, locale, call);
  }

  private Code eager(Compiler compiler, Node.Call call, List<Compiler.Part> parts, Eager eager) {
    Code[] codes = new Code[parts.size()];
    boolean[] needed = new boolean[parts.size()];
    for (int i = 0; i < codes.length; i++) {
      Parameter p = parameter(i);
      codes[i] = parts.get(i) == null ? scope -> null : compiler.need(parts.get(i), p.kind(), name);
      needed[i] = !p.optional() && !p.repeats() && p.kind() != Kind.ANY && p.kind() != Kind.TEXT;
    }
    int at = call.from();
    String what = name;
    return scope -> {
      Object[] arguments = new Object[codes.length];
      boolean blank = false;
      for (int i = 0; i < codes.length; i++) {
        Object value = codes[i].run(scope);
        if (value instanceof Problem) {
          return value;
        }
        blank |= needed[i] && value == null;
        arguments[i] = value;
      }
      return blank
          ? null
          : Compiler.located(Formula.bounded(eager.apply(arguments, scope)), what, at);
    };
  }

  /** Begins the description of a function; parameters as in {@code "text T, count N?, more A*"}. */
  static Builder named(String name, Group group, String parameters, Kind gives) {
    return new Builder(name, group, parameters, gives);
  }

  /** Collects the parts of a function. */
  static final class Builder {
    private final String name;
    private final Group group;
    private final List<Parameter> parameters;
    private final Kind gives;
    private final List<Example> examples = new ArrayList<>();
    private String says = "";
    private boolean ours;

    private Builder(String name, Group group, String parameters, Kind gives) {
      this.name = name;
      this.group = group;
      this.gives = gives;
      this.ours = group == Group.OWN;
      this.parameters =
          parameters.isEmpty()
              ? List.of()
              : Arrays.stream(parameters.split(", ")).map(Builder::parameter).toList();
    }

    private static Parameter parameter(String text) {
      String[] parts = text.split(" ");
      Kind kind =
          switch (parts[1].charAt(0)) {
            case 'T' -> Kind.TEXT;
            case 'N' -> Kind.NUMBER;
            case 'D' -> Kind.DATE;
            case 'C' -> Kind.TIME;
            case 'L' -> Kind.LOGICAL;
            default -> Kind.ANY;
          };
      return new Parameter(
          parts[0], kind, parts[1].endsWith("?") || parts[1].endsWith("*"), parts[1].endsWith("*"));
    }

    Builder says(String what) {
      says = what;
      return this;
    }

    Builder example(String formula, String value) {
      examples.add(new Example(formula, value));
      return this;
    }

    /** Marks an addition to the functions of ODF 1.2. */
    Builder ours() {
      ours = true;
      return this;
    }

    Function does(Eager eager) {
      return build(eager);
    }

    Function lazily(Lazy lazy) {
      return build(lazy);
    }

    private Function build(Body body) {
      return new Function(name, group, parameters, gives, says, List.copyOf(examples), ours, body);
    }
  }
}
