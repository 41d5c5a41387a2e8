package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;

/** The entries of a ledger as lines of a table, one a row and destination. */
public final class LedgerLines {
  /** The titles of what {@link #of} gives. */
  public static final List<String> TITLES =
      List.of(
          "row",
          "destination",
          "outcome",
          "matched_by",
          "record_key",
          "problem_code",
          "field",
          "reason");

  private LedgerLines() {}

  /** An entry as texts; what there is not is empty. */
  public static List<String> of(LedgerLayout layout, LedgerEntry entry) {
    return List.of(
        Long.toString(entry.line()),
        layout.label(),
        entry.outcome().word(),
        entry.matchedBy() == 0 ? "" : Integer.toString(entry.matchedBy()),
        entry.recordKey() == null ? "" : entry.recordKey(),
        all(entry, note -> note.code().word()),
        all(entry, LedgerEntry.Note::field),
        all(entry, LedgerEntry.Note::reason));
  }

  /** What all notes of a row say, in their order, so that the parts of the columns correspond. */
  private static String all(LedgerEntry entry, Function<LedgerEntry.Note, String> part) {
    return entry.notes().stream()
        .map(part)
        .map(p -> p == null ? "" : p)
        .collect(Collectors.joining("; "));
  }

  /** What an entry writes differently: {@code name: Wren → Robin; notes: → laid up}. */
  static String changes(LedgerLayout layout, LedgerEntry entry) {
    List<String> changes = new ArrayList<>();
    for (int f : entry.changed()) {
      String before = entry.before() == null ? null : entry.before().get(f);
      String after = entry.after().get(f);
      changes.add(
          layout.fields().get(f)
              + ":"
              + (before == null ? "" : " " + before)
              + " →"
              + (after == null ? "" : " " + after));
    }
    return String.join("; ", changes);
  }
}
