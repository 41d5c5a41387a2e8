package org.zestyporter.core.plan;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.ToldLink;
import org.zestyporter.core.source.Correction;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.ErrorCode;

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
 * @param phrasebooks phrasebooks of this plan alone; they go before shared ones of the same name
 * @param corrections cells that are read as another text
 * @param links links between the application's tables that its database does not declare
 */
@RecordBuilder
public record Plan(
    String name,
    @Nullable String connection,
    Reading reading,
    List<Destination> destinations,
    RunSettings run,
    List<Phrasebook> phrasebooks,
    List<Correction> corrections,
    List<ToldLink> links)
    implements PlanBuilder.With {

  public Plan {
    reading = reading == null ? Reading.FIND : reading;
    destinations = destinations == null ? List.of() : List.copyOf(destinations);
    run = run == null ? RunSettings.ALL_OR_NOTHING : run;
    phrasebooks = phrasebooks == null ? List.of() : List.copyOf(phrasebooks);
    corrections = corrections == null ? List.of() : List.copyOf(corrections);
    links = links == null ? List.of() : List.copyOf(links);
  }

  public Plan(
      String name,
      @Nullable String connection,
      @Nullable Reading reading,
      List<Destination> destinations,
      @Nullable RunSettings run) {
    this(name, connection, reading, destinations, run, null, null, null);
  }

  /**
   * The destination that the screens show: the first.
   *
   * @throws PorterException with code {@code no-destination} if it has none
   */
  public Destination shown() {
    return destinations.stream()
        .findFirst()
        .orElseThrow(() -> ErrorCode.NO_DESTINATION.error("The plan fills no table yet."));
  }

  /** The destination of a plan that has just one; null for other plans. */
  public @Nullable Destination only() {
    return destinations.size() == 1 ? destinations.get(0) : null;
  }

  /** The destination whose records those of another one belong to; null if there is none. */
  public @Nullable Destination parentOf(Destination child) {
    return child.parent() == null
        ? null
        : destinations.stream()
            .filter(d -> d.label().equals(child.parent().destination()))
            .findFirst()
            .orElse(null);
  }

  /** Name of the table that the screens show; empty if there is none. */
  public String shownTable() {
    return destinations.stream().findFirst().map(Destination::table).orElse("");
  }
}
