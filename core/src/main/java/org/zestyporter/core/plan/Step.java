package org.zestyporter.core.plan;

import java.util.Map;

/**
 * One operation on a value in a fill's chain.
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
    Map<String, String> with = new java.util.HashMap<>();
    for (int i = 0; i < settings.length; i += 2) {
      with.put(settings[i], settings[i + 1]);
    }
    return new Step(kind, with, false);
  }

  /** A setting, or null if it is left open. */
  public String setting(String name) {
    String value = with.get(name);
    return value == null || value.isEmpty() ? null : value;
  }
}
