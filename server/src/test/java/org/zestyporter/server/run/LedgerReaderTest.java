package org.zestyporter.server.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.BitSet;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerCodec;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.Outcome;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueColumn;

/** Three chunks of ten rows: new ones, changed ones, and a mixture. */
class LedgerReaderTest {
  private final RunMapper runs = mock();
  private final LedgerReader reader = new LedgerReader(runs);
  private final LedgerComparison comparison = new LedgerComparison(runs, reader);

  private static final LocalDateTime NOW = LocalDateTime.of(2026, 11, 3, 9, 14);

  private static final LedgerLayout LAYOUT =
      new LedgerLayout(
          0,
          "vessel",
          "vessel",
          List.of("registration", "name"),
          List.of("registration", "name"),
          List.of(0, 1),
          List.of(0));

  /** Entries of lines that follow each other. */
  @SuppressWarnings("unchecked")
  private static LedgerChunk entries(long firstLine, List<Outcome> outcomes) {
    int size = outcomes.size();
    long[] lines = LongStream.range(firstLine, firstLine + size).toArray();
    byte[] codes = new byte[size];
    List<LedgerEntry.Note>[] notes = new List[size];
    Object[] registrations = new Object[size];
    Object[] names = new Object[size];
    for (int i = 0; i < size; i++) {
      codes[i] = (byte) outcomes.get(i).ordinal();
      registrations[i] = "QH-" + lines[i];
      names[i] = "Müller " + lines[i];
      if (outcomes.get(i) == Outcome.REJECTED) {
        notes[i] =
            List.of(
                new LedgerEntry.Note(
                    ProblemCode.NOT_A_DATE, "arrived_on", "31.02.2026", "no such day", false));
      }
    }
    return new LedgerChunk(
        LAYOUT,
        firstLine - 2,
        lines,
        IntStream.range(0, size).toArray(),
        null,
        codes,
        new byte[size],
        new List[size],
        new ValueColumn[] {ValueColumn.of(registrations, null), ValueColumn.of(names, null)},
        new BitSet(),
        new ValueColumn[0],
        new BitSet(),
        new ValueColumn[0],
        new int[size][],
        notes);
  }

  private static ChunkRecord record(long run, int number, LedgerChunk chunk, boolean whole) {
    List<Integer> counts = chunk.counts();
    return new ChunkRecord(
        run,
        0,
        number,
        chunk.firstLine(),
        chunk.lastLine(),
        counts.get(0),
        counts.get(1),
        counts.get(2),
        counts.get(3),
        counts.get(4),
        StoredLedger.fates(chunk),
        whole ? LedgerCodec.encode(chunk) : null,
        counts.get(5),
        1,
        false);
  }

  private static ChunkRecord chunk(int number, Outcome outcome, boolean mixed, boolean whole) {
    List<Outcome> outcomes =
        IntStream.range(0, 10)
            .mapToObj(i -> mixed && i % 5 == 0 ? Outcome.REJECTED : outcome)
            .toList();
    return record(1, number, entries(number * 10L + 2, outcomes), whole);
  }

  @BeforeEach
  void ledger() {
    List<Outcome> outcomes = List.of(Outcome.NEW, Outcome.CHANGED, Outcome.UNCHANGED);
    when(runs.fields(anyLong(), anyInt())).thenReturn(PlanJson.MAPPER.writeValueAsString(LAYOUT));
    when(runs.destinations(anyLong())).thenReturn(List.of(0));
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
    LedgerReader.LedgerPage page = reader.page(1, 0, LedgerFilter.ALL, 8, 4);
    assertThat(page.total()).isEqualTo(30);
    assertThat(page.fields()).containsExactly("registration", "name");
    assertThat(lines(page)).containsExactly(10L, 11L, 12L, 13L);
    verify(runs, never()).chunk(1, 0, 2);
  }

  @Test
  void chunksWithoutTheOutcomeAreNotRead() {
    LedgerReader.LedgerPage page = reader.page(1, 0, LedgerFilter.of(Outcome.REJECTED), 0, 10);
    assertThat(page.total()).isEqualTo(2);
    assertThat(lines(page)).containsExactly(22L, 27L);
    verify(runs, never()).chunk(1, 0, 0);
    verify(runs, never()).chunk(1, 0, 1);
  }

  @Test
  void searchLooksAtValuesReasonsAndLines() {
    assertThat(
            lines(
                reader.page(
                    1,
                    0,
                    new LedgerFilter(null, null, null, null, null, null, "MÜLLER 1"),
                    0,
                    100)))
        .hasSize(10);
    assertThat(
            lines(
                reader.page(
                    1, 0, new LedgerFilter(null, null, null, null, null, null, "31.02"), 0, 100)))
        .containsExactly(22L, 27L);
    assertThat(
            lines(
                reader.page(
                    1,
                    0,
                    new LedgerFilter(null, null, null, null, null, null, "no such day"),
                    1,
                    100)))
        .containsExactly(27L);
    assertThat(
            reader
                .page(
                    1,
                    0,
                    new LedgerFilter(Outcome.NEW, null, null, null, null, null, "no such day"),
                    0,
                    100)
                .total())
        .isZero();
    assertThat(
            lines(
                reader.page(
                    1, 0, new LedgerFilter(null, null, null, null, null, null, "13"), 0, 100)))
        .containsExactly(13L);
  }

  /** Only rows that nothing keeps back but a question wait for its answer. */
  @Test
  void rowsThatWaitForAnAnswerAreFound() {
    LedgerChunk chunk = entries(2, List.of(Outcome.NEW, Outcome.REJECTED, Outcome.REJECTED));
    LedgerEntry.Note asks =
        new LedgerEntry.Note(ProblemCode.UNKNOWN_LINK, "type_id", "mtr", "no type", false, true);
    chunk.notes()[1] = List.of(asks);
    chunk.notes()[2] = List.of(asks, chunk.notes()[2].get(0));
    when(runs.chunks(4, 0)).thenReturn(List.of(record(4, 0, chunk, false)));
    when(runs.chunk(4, 0, 0)).thenReturn(record(4, 0, chunk, true));
    assertThat(
            lines(
                reader.page(
                    4,
                    0,
                    new LedgerFilter(Outcome.REJECTED, true, null, null, null, null, null),
                    0,
                    10)))
        .containsExactly(3L);
    assertThat(
            lines(
                reader.page(
                    4,
                    0,
                    new LedgerFilter(Outcome.REJECTED, false, null, null, null, null, null),
                    0,
                    10)))
        .containsExactly(4L);
    assertThat(lines(reader.page(4, 0, LedgerFilter.of(Outcome.REJECTED), 0, 10)))
        .containsExactly(3L, 4L);
  }

  /** By columns and entry by entry the same is wanted. */
  @Test
  void columnsTellWhatEntriesDo() {
    LedgerChunk chunk =
        entries(2, List.of(Outcome.CHANGED, Outcome.NEW, Outcome.REJECTED, Outcome.CHANGED));
    chunk.changed()[0] = new int[] {0};
    chunk.changed()[3] = new int[] {1, 0};
    chunk.notes()[1] =
        List.of(new LedgerEntry.Note(ProblemCode.CUT, "name", "Ärger", "cut short", true));
    int wanted = 0;
    for (Outcome outcome : new Outcome[] {null, Outcome.CHANGED, Outcome.REJECTED}) {
      for (Boolean waiting : new Boolean[] {null, true, false}) {
        for (String changed : new String[] {null, "name", "no field"}) {
          for (ProblemCode problem : new ProblemCode[] {null, ProblemCode.CUT}) {
            for (String search : new String[] {null, "ÄR", "müller", "4", "cut s", "no such"}) {
              LedgerFilter filter =
                  new LedgerFilter(outcome, waiting, changed, problem, null, null, search);
              List<Integer> taken =
                  IntStream.range(0, 4)
                      .filter(i -> filter.takes(chunk.entries().get(i), LAYOUT.fields()))
                      .boxed()
                      .toList();
              assertThat(filter.wanted(chunk).stream().boxed().toList()).isEqualTo(taken);
              wanted += taken.size();
            }
          }
        }
      }
    }
    assertThat(wanted).isGreaterThan(50);
  }

  /** A further page of what was looked for reads only the chunks that it shows. */
  @Test
  void whatWasCountedIsNotReadAgain() {
    LedgerFilter filter = new LedgerFilter(null, null, null, null, null, null, "müller");
    assertThat(reader.page(1, 0, filter, 0, 5).total()).isEqualTo(30);
    assertThat(lines(reader.page(1, 0, filter, 25, 5))).containsExactly(27L, 28L, 29L, 30L, 31L);
    assertThat(reader.page(1, 0, filter, 25, 5).total()).isEqualTo(30);
    // once to count and once to be shown
    verify(runs, times(2)).chunk(1, 0, 0);
    verify(runs, times(1)).chunk(1, 0, 1);
    verify(runs, times(2)).chunk(1, 0, 2);
  }

  private static LedgerFilter changing(String field) {
    return new LedgerFilter(null, null, field, null, null, null, null);
  }

  private static LedgerFilter with(ProblemCode code, String field) {
    return new LedgerFilter(null, null, null, code, field, null, null);
  }

  @Test
  void rowsAreFoundByTheFieldThatChangesAndByTheirProblem() {
    LedgerChunk chunk = entries(2, List.of(Outcome.CHANGED, Outcome.CHANGED, Outcome.REJECTED));
    chunk.changed()[0] = new int[] {0};
    chunk.changed()[1] = new int[] {0, 1};
    when(runs.chunks(4, 0)).thenReturn(List.of(record(4, 0, chunk, false)));
    when(runs.chunk(4, 0, 0)).thenReturn(record(4, 0, chunk, true));
    assertThat(lines(reader.page(4, 0, changing("registration"), 0, 10))).containsExactly(2L, 3L);
    assertThat(lines(reader.page(4, 0, changing("name"), 0, 10))).containsExactly(3L);
    assertThat(reader.page(4, 0, changing("no field"), 0, 10).total()).isZero();
    LedgerFilter third = new LedgerFilter(null, null, null, null, null, Set.of(3L), null);
    assertThat(lines(reader.page(4, 0, third, 0, 10))).containsExactly(3L);
    assertThat(lines(reader.page(1, 0, third, 0, 10))).containsExactly(3L);
    verify(runs, never()).chunk(1, 0, 1);
    LedgerEntry.Note note = chunk.notes()[2].get(0);
    assertThat(lines(reader.page(4, 0, with(note.code(), null), 0, 10))).containsExactly(4L);
    assertThat(lines(reader.page(4, 0, with(note.code(), note.field()), 0, 10)))
        .containsExactly(4L);
    assertThat(reader.page(4, 0, with(note.code(), "name"), 0, 10).total()).isZero();
    assertThat(reader.page(4, 0, with(ProblemCode.TOO_LONG, null), 0, 10).total()).isZero();
  }

  private static ExecutionRecord rehearsal(long id, long source) {
    return new ExecutionRecord(
        id,
        RunService.REHEARSAL,
        null,
        1,
        1,
        source,
        null,
        "done",
        "odile",
        NOW,
        NOW,
        null,
        null,
        null,
        null,
        null,
        0,
        0,
        null,
        null,
        1);
  }

  /** Rows 2 to 4 of a rehearsal, and of the one before. */
  private void rehearsed(long id, LedgerChunk chunk) {
    when(runs.destinations(id)).thenReturn(List.of(0));
    when(runs.fields(id, 0)).thenReturn(PlanJson.MAPPER.writeValueAsString(LAYOUT));
    when(runs.chunks(id, 0)).thenReturn(List.of(record(id, 0, chunk, false)));
    when(runs.chunk(id, 0, 0)).thenReturn(record(id, 0, chunk, true));
  }

  @Test
  void whatMovedSinceTheRehearsalBeforeIsTold() {
    ExecutionRecord now = rehearsal(9, 1);
    when(runs.doneBefore(now)).thenReturn(rehearsal(8, 1));
    LedgerChunk before = entries(2, List.of(Outcome.REJECTED, Outcome.REJECTED, Outcome.NEW));
    before.notes()[0] =
        List.of(
            new LedgerEntry.Note(ProblemCode.UNKNOWN_LINK, "type_id", "mtr", "none", false, true));
    rehearsed(8, before);
    rehearsed(9, entries(2, List.of(Outcome.NEW, Outcome.REJECTED, Outcome.CHANGED)));
    assertThat(comparison.since(now).moves())
        .containsExactlyInAnyOrder(
            new LedgerComparison.Move("vessel", "waiting", "new", 1, List.of(2L)),
            new LedgerComparison.Move("vessel", "new", "changed", 1, List.of(4L)));
  }

  @Test
  void otherRowsAreNotCompared() {
    ExecutionRecord now = rehearsal(9, 1);
    rehearsed(9, entries(2, List.of(Outcome.NEW, Outcome.NEW)));
    assertThat(comparison.since(now)).isNull();
    when(runs.doneBefore(now)).thenReturn(rehearsal(8, 1));
    rehearsed(8, entries(3, List.of(Outcome.NEW, Outcome.NEW)));
    assertThat(comparison.since(now).comparable()).isFalse();
    rehearsed(8, entries(2, List.of(Outcome.NEW, Outcome.NEW)));
    assertThat(comparison.since(now).comparable()).isTrue();
    assertThat(comparison.since(now).moves()).isEmpty();
    when(runs.doneBefore(now)).thenReturn(rehearsal(8, 2));
    assertThat(comparison.since(now).comparable()).isFalse();
  }

  @Test
  void rowsThatCameOutOtherwiseAreNamedAndEqualChunksAreNotRead() {
    List<Outcome> came =
        IntStream.range(0, 10).mapToObj(i -> i == 3 ? Outcome.SKIPPED : Outcome.NEW).toList();
    ChunkRecord other = record(2, 0, entries(2, came), true);
    List<ChunkRecord> same = runs.chunks(1, 0);
    when(runs.chunks(2, 0)).thenReturn(List.of(other, same.get(1), same.get(2)));
    when(runs.chunk(2, 0, 0)).thenReturn(other);

    LedgerComparison.Differences differences = comparison.differences(1, 2);
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

  @Test
  void ledgersOfEarlierServersAreStillRead() throws IOException {
    String entry =
        "[{\"line\": 7, \"outcome\": \"new\", \"matchedBy\": 0, \"recordKey\": \"5\","
            + " \"after\": [\"QH-7\", \"Wren\"], \"changed\": [], \"notes\": []}]";
    ByteArrayOutputStream packed = new ByteArrayOutputStream();
    try (GZIPOutputStream out = new GZIPOutputStream(packed)) {
      out.write(entry.getBytes(StandardCharsets.UTF_8));
    }
    ChunkRecord old =
        new ChunkRecord(3, 0, 0, 7, 7, 1, 0, 0, 0, 0, 1, packed.toByteArray(), 0, 1, false);
    when(runs.fields(3, 0)).thenReturn("[\"registration\", \"name\"]");
    when(runs.chunks(3, 0)).thenReturn(List.of(old));
    when(runs.chunk(3, 0, 0)).thenReturn(old);
    LedgerReader.LedgerPage page = reader.page(3, 0, LedgerFilter.ALL, 0, 10);
    assertThat(page.fields()).containsExactly("registration", "name");
    assertThat(page.entries().get(0).after()).containsExactly("QH-7", "Wren");
  }
}
