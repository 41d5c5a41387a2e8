package org.zestyporter.core.undo;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What an undo would do as things stand.
 *
 * @param tried true if it was tried in the database and taken back, so that it is known what the
 *     database would keep
 * @param edited records that were edited since, the first of them
 * @param held records that the database keeps, the first of them
 */
public record Prospect(
    List<Part> parts, boolean tried, List<EditedRecord> edited, List<HeldRecord> held) {

  /**
   * What it does in one destination of the run.
   *
   * @param removed records that the run added, and that go
   * @param putBack records that the run changed, and that are put back
   * @param broughtBack records that the run removed, and that come back
   * @param edited records that were edited since, for which it has to be decided
   * @param gone records that are not there any more, or there again
   * @param held records that the database keeps
   */
  public record Part(
      String destination,
      String table,
      long removed,
      long putBack,
      long broughtBack,
      long edited,
      long gone,
      long held) {}

  /**
   * A record that was edited since.
   *
   * @param added true if the run added it
   * @param fields those in which it is not as the run left it, or that the run had changed
   */
  public record EditedRecord(
      String destination,
      Decisions.Place place,
      long line,
      String key,
      boolean added,
      List<Versions> fields) {}

  /** The versions of a field's value; null for a blank. */
  public record Versions(
      String field, @Nullable String before, @Nullable String left, @Nullable String now) {}

  /** A record that the database keeps, and why, in words. */
  public record HeldRecord(String destination, long line, String key, String reason) {}
}
