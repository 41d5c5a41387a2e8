package org.zestyporter.server.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.value.ProblemCode;

/** Three chunks of ten rows: new ones, changed ones, and a mixture. */
class LedgerReaderTest {
  private final RunMapper runs = mock();
  private final LedgerReader reader = new LedgerReader(runs);

  private static LedgerEntry entry(long line, Outcome outcome) {
    List<LedgerEntry.Note> notes =
        outcome == Outcome.REJECTED
            ? List.of(
                new LedgerEntry.Note(
                    ProblemCode.NOT_A_DATE, "arrived_on", "31.02.2026", "no such day", false))
            : List.of();
    return new LedgerEntry(
        line, outcome, 0, null, List.of("QH-" + line, "Müller " + line), null, List.of(), notes);
  }

  private static ChunkRecord chunk(int number, Outcome outcome, boolean mixed, boolean whole) {
    List<LedgerEntry> entries =
        IntStream.range(0, 10)
            .mapToObj(
                i -> entry(number * 10L + i + 2, mixed && i % 5 == 0 ? Outcome.REJECTED : outcome))
            .toList();
    int[] counts = new int[5];
    entries.forEach(e -> counts[e.outcome().ordinal()]++);
    return new ChunkRecord(
        1,
        0,
        number,
        number * 10L + 2,
        number * 10L + 11,
        counts[0],
        counts[1],
        counts[2],
        counts[3],
        counts[4],
        StoredLedger.fates(entries),
        whole ? StoredLedger.pack(entries) : null);
  }

  @BeforeEach
  void ledger() {
    List<Outcome> outcomes = List.of(Outcome.NEW, Outcome.CHANGED, Outcome.UNCHANGED);
    when(runs.fields(anyLong(), anyInt())).thenReturn("[\"registration\", \"name\"]");
    when(runs.chunks(1, 0))
        .thenReturn(
            IntStream.range(0, 3).mapToObj(n -> chunk(n, outcomes.get(n), n == 2, false)).toList());
    for (int n = 0; n < 3; n++) {
      when(runs.chunk(1, 0, n)).thenReturn(chunk(n, outcomes.get(n), n == 2, true));
    }
  }

  private static List<Long> lines(LedgerReader.LedgerPage page) {
    return page.entries().stream().map(LedgerEntry::line).toList();
  }

  @Test
  void pagesGoOverTheBordersOfChunks() {
    LedgerReader.LedgerPage page = reader.page(1, null, null, 8, 4);
    assertThat(page.total()).isEqualTo(30);
    assertThat(page.fields()).containsExactly("registration", "name");
    assertThat(lines(page)).containsExactly(10L, 11L, 12L, 13L);
    verify(runs, never()).chunk(1, 0, 2);
  }

  @Test
  void chunksWithoutTheOutcomeAreNotRead() {
    LedgerReader.LedgerPage page = reader.page(1, Outcome.REJECTED, null, 0, 10);
    assertThat(page.total()).isEqualTo(2);
    assertThat(lines(page)).containsExactly(22L, 27L);
    verify(runs, never()).chunk(1, 0, 0);
    verify(runs, never()).chunk(1, 0, 1);
  }

  @Test
  void searchLooksAtValuesReasonsAndLines() {
    assertThat(lines(reader.page(1, null, "MÜLLER 1", 0, 100))).hasSize(10);
    assertThat(lines(reader.page(1, null, "31.02", 0, 100))).containsExactly(22L, 27L);
    assertThat(lines(reader.page(1, null, "no such day", 1, 100))).containsExactly(27L);
    assertThat(reader.page(1, Outcome.NEW, "no such day", 0, 100).total()).isZero();
    assertThat(lines(reader.page(1, null, "13", 0, 100))).containsExactly(13L);
  }

  @Test
  void rowsThatCameOutOtherwiseAreNamedAndEqualChunksAreNotRead() {
    List<LedgerEntry> came = new java.util.ArrayList<>();
    for (long line = 2; line < 12; line++) {
      came.add(entry(line, line == 5 ? Outcome.SKIPPED : Outcome.NEW));
    }
    ChunkRecord other =
        new ChunkRecord(
            2, 0, 0, 2, 11, 9, 0, 0, 1, 0, StoredLedger.fates(came), StoredLedger.pack(came));
    List<ChunkRecord> same = runs.chunks(1, 0);
    when(runs.chunks(2, 0)).thenReturn(List.of(other, same.get(1), same.get(2)));
    when(runs.chunk(2, 0, 0)).thenReturn(other);

    LedgerReader.Differences differences = reader.differences(1, 2);
    assertThat(differences.total()).isEqualTo(1);
    assertThat(differences.first().get(0).line()).isEqualTo(5);
    assertThat(differences.first().get(0).rehearsed()).isEqualTo(Outcome.NEW);
    assertThat(differences.first().get(0).came()).isEqualTo(Outcome.SKIPPED);
    verify(runs, never()).chunk(1, 0, 1);
  }

  @Test
  void oneLineIsFoundInItsChunk() {
    assertThat(reader.line(1, 22).notes().get(0).reason()).isEqualTo("no such day");
    verify(runs, never()).chunk(1, 0, 1);
    assertThatThrownBy(() -> reader.line(1, 99)).hasMessageContaining("no line 99");
  }
}
