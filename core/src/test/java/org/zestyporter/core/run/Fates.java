package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.zestyporter.core.value.ProblemCode;

/** A ledger that keeps a few words for each entry: destination, line, part, outcome. */
final class Fates implements Ledger {
  final List<String> fates = new ArrayList<>();
  final List<LedgerEntry> entries = new ArrayList<>();

  @Override
  public void begin(LedgerLayout layout) {
    // the chunks say it again
  }

  @Override
  public void append(LedgerChunk chunk) {
    for (LedgerEntry entry : chunk.entries()) {
      entries.add(entry);
      fates.add(
          chunk.layout().label()
              + " "
              + entry.line()
              + (entry.part() > 0 ? "." + entry.part() : "")
              + " "
              + entry.outcome().word());
    }
  }

  LedgerEntry line(long line) {
    return entries.stream().filter(e -> e.line() == line).findFirst().orElseThrow();
  }

  /** What a rehearsal and a run of the same have to agree in. */
  List<String> told() {
    return entries.stream()
        .map(
            e ->
                String.join(
                    " ",
                    String.valueOf(e.line()),
                    e.outcome().word(),
                    String.valueOf(e.matchedBy()),
                    e.changed().toString(),
                    e.notes().toString()))
        .toList();
  }

  /** The reasons of a line, in all destinations. */
  String reasons(long line) {
    return entries.stream()
        .filter(e -> e.line() == line)
        .flatMap(e -> e.notes().stream())
        .map(LedgerEntry.Note::reason)
        .collect(Collectors.joining("; "));
  }

  /** The code of the first thing that there is to say of a line. */
  ProblemCode code(long line) {
    return line(line).notes().get(0).code();
  }
}
