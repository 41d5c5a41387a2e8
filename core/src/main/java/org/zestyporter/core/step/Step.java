package org.zestyporter.core.step;

import java.util.HashMap;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * One operation on a value in a fill's chain, as the plan says it.
 *
 * @param kind what it does
 * @param with its settings, by name
 * @param off true if it is passed over
 */
public record Step(StepKind kind, Map<String, String> with, boolean off) {

  public Step {
    with = with == null ? Map.of() : Map.copyOf(with);
  }

  /** A step with settings given as name, value, name, value… */
  public static Step of(StepKind kind, String... settings) {
    Map<String, String> with = new HashMap<>();
    for (int i = 0; i < settings.length; i += 2) {
      with.put(settings[i], settings[i + 1]);
    }
    return new Step(kind, with, false);
  }

  /** A setting, or null if it is left open. */
  public @Nullable String setting(String name) {
    String value = with.get(name);
    return value == null || value.isEmpty() ? null : value;
  }

  /** A setting, or what it is if it is left open. */
  String setting(String name, String otherwise) {
    String value = setting(name);
    return value == null ? otherwise : value;
  }

  /** A setting that is a whole number. */
  int whole(String name) {
    return Integer.parseInt(with.get(name));
  }

  /** True if it takes the file's own order of day and month. */
  public boolean followsDateOrder() {
    return !off && kind.operation().followsDateOrder(this);
  }

  /** True if it takes the file's own decimal sign. */
  public boolean followsDecimal() {
    return !off && kind.operation().followsDecimal(this);
  }

  /** Why its settings can't be used, without a full stop; null if they can. */
  public @Nullable String refusal() {
    for (Setting setting : kind.settings()) {
      String refusal = setting.refusal(setting(setting.name()));
      if (refusal != null) {
        return kind.title() + " " + refusal;
      }
    }
    return null;
  }

  /**
   * What it does, ready for use.
   *
   * @param names what its settings may refer to
   * @throws PorterException if its settings can't be used, or name what there is not
   */
  public StepFunction compile(Names names) {
    String refusal = refusal();
    if (refusal != null) {
      throw ErrorCode.STEP_SETTINGS.error(refusal + ".");
    }
    return kind.operation().compile(this, names);
  }

  /** The columns that it reads besides the value; none if it is off. */
  public Stream<String> columnsRead() {
    return off
        ? Stream.empty()
        : kind.settings().stream()
            .filter(s -> setting(s.name()) != null)
            .flatMap(this::columnsRead);
  }

  private Stream<String> columnsRead(Setting of) {
    String said = setting(of.name());
    return switch (of.type()) {
      case "column" -> Stream.of(said);
      case "formula" ->
          Formula.columnsOf(said).stream().filter(name -> !name.equals(WithValueName.VALUE));
      default -> Stream.empty();
    };
  }
}
