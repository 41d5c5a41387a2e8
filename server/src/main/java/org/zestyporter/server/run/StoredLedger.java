package org.zestyporter.server.run;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.RunReport;
import tools.jackson.databind.json.JsonMapper;

/** Keeps a ledger as compressed chunks, one row of ours for some thousand rows of the file. */
final class StoredLedger implements Ledger {
  private static final JsonMapper COMPACT =
      PlanJson.MAPPER
          .rebuild()
          .disable(tools.jackson.databind.SerializationFeature.INDENT_OUTPUT)
          .build();

  private final RunMapper runs;
  private final long execution;
  private int number;

  StoredLedger(RunMapper runs, long execution) {
    this.runs = runs;
    this.execution = execution;
  }

  @Override
  public void begin(int destination, String table, List<String> fields) {
    number = 0;
    runs.insertDestination(execution, destination, table, COMPACT.writeValueAsString(fields));
  }

  @Override
  public void append(LedgerChunk chunk) {
    List<Integer> counts = chunk.counts();
    runs.insertChunk(
        new ChunkRecord(
            execution,
            chunk.destination(),
            number++,
            chunk.firstLine(),
            chunk.lastLine(),
            counts.get(0),
            counts.get(1),
            counts.get(2),
            counts.get(3),
            counts.get(4),
            fates(chunk.entries()),
            pack(chunk.entries())));
  }

  /** From here on a crash leaves open whether the table was changed, and the books say by what. */
  @Override
  public void beforeCommit(RunReport report, @Nullable String mark) {
    runs.committing(execution, COMPACT.writeValueAsString(report), mark);
  }

  /** The same for entries of the same lines, outcomes and changed fields. */
  static long fates(List<LedgerEntry> entries) {
    long hash = 7;
    for (LedgerEntry entry : entries) {
      hash = hash * 31 + entry.line();
      hash = hash * 31 + entry.outcome().ordinal();
      for (int field : entry.changed()) {
        hash = hash * 31 + field + 1;
      }
    }
    return hash;
  }

  static byte[] pack(List<LedgerEntry> entries) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (GZIPOutputStream packed = new GZIPOutputStream(bytes)) {
      COMPACT.writeValue(packed, entries);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return bytes.toByteArray();
  }

  static List<LedgerEntry> unpack(byte[] packed) {
    try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(packed))) {
      return List.of(COMPACT.readValue(in, LedgerEntry[].class));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
