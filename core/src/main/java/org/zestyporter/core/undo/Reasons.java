package org.zestyporter.core.undo;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.run.LedgerEntry.Note;
import org.zestyporter.core.run.RunReport;
import org.zestyporter.core.value.ProblemCode;

/** Why records were not taken back as they were, by cause. */
final class Reasons {
  private static final int SHOWN = 12;

  private record Cause(ProblemCode code, String destination, boolean softened) {}

  private static final class Group {
    private final List<RunReport.Sample> samples = new ArrayList<>();
    private long rows;
  }

  private final Map<Cause, Group> groups = new LinkedHashMap<>();

  void count(UndoneChunk chunk, int e) {
    for (Note note : chunk.notes(e)) {
      Group group =
          groups.computeIfAbsent(
              new Cause(note.code(), chunk.part.label(), note.softened()), c -> new Group());
      group.rows++;
      if (group.samples.size() < SHOWN) {
        group.samples.add(new RunReport.Sample(chunk.line(e), chunk.shownKey(e), note.reason(), 1));
      }
    }
  }

  List<RunReport.ProblemGroup> groups() {
    return groups.entrySet().stream()
        .map(
            g -> {
              List<RunReport.Sample> samples = g.getValue().samples;
              return new RunReport.ProblemGroup(
                  g.getKey().code(),
                  g.getKey().destination(),
                  null,
                  samples.get(0).reason(),
                  g.getKey().softened(),
                  g.getValue().rows,
                  samples.get(0),
                  samples);
            })
        .sorted(Comparator.comparingLong(g -> -g.rows()))
        .toList();
  }
}
