package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Linked records that rows made, or would make: all of them are counted, and the first of each
 * table told, since there may be one for each row.
 */
final class Created {
  /** So many of a table are told. */
  static final int TOLD = 1_000;

  private final Map<String, Long> counts = new LinkedHashMap<>();
  private final List<RunReport.MadeRecord> told = new ArrayList<>();

  void add(RunReport.MadeRecord record) {
    if (counts.merge(record.table(), 1L, Long::sum) <= TOLD) {
      told.add(record);
    }
  }

  /** Adds what a report tells of others. */
  void add(List<RunReport.MadeRecord> some, List<RunReport.MadeCount> in) {
    told.addAll(some);
    in.forEach(count -> counts.merge(count.table(), count.records(), Long::sum));
  }

  List<RunReport.MadeRecord> told() {
    return List.copyOf(told);
  }

  List<RunReport.MadeCount> counts() {
    return counts.entrySet().stream()
        .map(e -> new RunReport.MadeCount(e.getKey(), e.getValue()))
        .toList();
  }
}
