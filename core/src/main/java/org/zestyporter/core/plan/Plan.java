package org.zestyporter.core.plan;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.Reading;

/**
 * The saved set-up: how a source is read, which tables it fills and how the run goes.
 *
 * <p>The document is the same in the interface, over HTTP, on the command line and in a repository;
 * its JSON Schema is {@code docs/plan.schema.json}. Tables, fields and columns are named, never
 * numbered.
 *
 * @param name what the person calls it
 * @param connection name of the connection to write to
 * @param reading what is fixed of the reading; what is null is found in each file anew
 * @param destinations in writing order
 * @param run how the run goes
 */
public record Plan(
    String name,
    @Nullable String connection,
    Reading reading,
    List<Destination> destinations,
    RunSettings run) {

  public Plan {
    reading = reading == null ? Reading.FIND : reading;
    destinations = destinations == null ? List.of() : List.copyOf(destinations);
    run = run == null ? RunSettings.ALL_OR_NOTHING : run;
  }
}
