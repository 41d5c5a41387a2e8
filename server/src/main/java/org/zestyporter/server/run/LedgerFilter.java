package org.zestyporter.server.run;

import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.TextSearch;
import org.zestyporter.core.value.ValueColumn;

/**
 * Which entries of a ledger are wanted; what is null does not matter.
 *
 * @param outcome only those of this outcome
 * @param waiting only those that wait for an answer, or only others
 * @param changed only those that write this field differently
 * @param problem only those with such a remark
 * @param field of these, only those about this field
 * @param lines only those of these lines of the file
 * @param search only those in which a value or reason holds this, ignoring capitals
 */
record LedgerFilter(
    @Nullable Outcome outcome,
    @Nullable Boolean waiting,
    @Nullable String changed,
    @Nullable ProblemCode problem,
    @Nullable String field,
    @Nullable Set<Long> lines,
    @Nullable String search) {

  static final LedgerFilter ALL = new LedgerFilter(null, null, null, null, null, null, null);

  LedgerFilter {
    search = search == null || search.isBlank() ? null : search.toLowerCase(Locale.ROOT);
    lines = lines == null ? null : Set.copyOf(lines);
  }

  static LedgerFilter of(Outcome outcome) {
    return new LedgerFilter(outcome, null, null, null, null, null, null);
  }

  /** True if the counts of outcomes tell how many entries fit. */
  boolean isToldByCounts() {
    return waiting == null && changed == null && problem == null && lines == null && search == null;
  }

  /** How many entries of a chunk have the outcome. */
  int atMost(ChunkRecord chunk) {
    return chunk.count(outcome == null ? -1 : outcome.ordinal());
  }

  /** True if no entry of a chunk can be wanted. */
  boolean passesOver(ChunkRecord chunk) {
    return atMost(chunk) == 0
        || Boolean.TRUE.equals(waiting) && chunk.rejected() == 0
        || changed != null && chunk.changed() == 0
        || lines != null
            && lines.stream().noneMatch(l -> l >= chunk.firstLine() && l <= chunk.lastLine());
  }

  /** Which entries of a chunk are wanted. */
  BitSet wanted(LedgerChunk chunk) {
    BitSet wanted = new BitSet(chunk.size());
    int at = changed == null ? -1 : chunk.layout().fields().indexOf(changed);
    for (int i = 0; i < chunk.size(); i++) {
      int[] differs = chunk.changed()[i];
      List<LedgerEntry.Note> notes = chunk.notes()[i] == null ? List.of() : chunk.notes()[i];
      wanted.set(
          i,
          (outcome == null || chunk.outcome(i) == outcome)
              && (waiting == null || LedgerEntry.isWaiting(chunk.outcome(i), notes) == waiting)
              && (changed == null
                  || differs != null && IntStream.of(differs).anyMatch(f -> f == at))
              && (problem == null || notes.stream().anyMatch(this::isIt))
              && (lines == null || lines.contains(chunk.lines()[i])));
    }
    if (search != null && !wanted.isEmpty()) {
      wanted.and(holding(chunk));
    }
    return wanted;
  }

  private BitSet holding(LedgerChunk chunk) {
    TextSearch text = new TextSearch(search);
    BitSet holding = new BitSet(chunk.size());
    for (ValueColumn column : chunk.after()) {
      text.find(column, holding);
    }
    for (int i = 0; i < chunk.size(); i++) {
      List<LedgerEntry.Note> notes = chunk.notes()[i];
      if (String.valueOf(chunk.lines()[i]).equals(search) || notes != null && says(notes, text)) {
        holding.set(i);
      }
    }
    return holding;
  }

  private static boolean says(List<LedgerEntry.Note> notes, TextSearch text) {
    return notes.stream().anyMatch(n -> text.isIn(n.reason()) || text.isIn(n.value()));
  }

  /**
   * True if an entry is wanted, of a ledger that was kept in the old way.
   *
   * @param fields names of the fields that it holds values of
   */
  boolean takes(LedgerEntry entry, List<String> fields) {
    return (outcome == null || entry.outcome() == outcome)
        && (waiting == null || entry.awaitsAnswer() == waiting)
        && (changed == null || entry.changed().contains(fields.indexOf(changed)))
        && (problem == null || entry.notes().stream().anyMatch(this::isIt))
        && (lines == null || lines.contains(entry.line()))
        && (search == null || holds(entry));
  }

  private boolean isIt(LedgerEntry.Note note) {
    return note.code() == problem && (field == null || field.equals(note.field()));
  }

  private boolean holds(LedgerEntry entry) {
    TextSearch text = new TextSearch(search);
    return String.valueOf(entry.line()).equals(search)
        || entry.after().stream().anyMatch(text::isIn)
        || says(entry.notes(), text);
  }
}
