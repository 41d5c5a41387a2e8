package org.zestyporter.server.run;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.stream.IntStream;
import java.util.zip.GZIPInputStream;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;

/** Reads ledgers that were kept as JSON, by servers before this one. */
final class OldLedger {
  private OldLedger() {}

  /** The layout of a ledger that only named its fields. */
  static LedgerLayout layout(String json) {
    List<String> fields = List.of(PlanJson.MAPPER.readValue(json, String[].class));
    List<Integer> positions = IntStream.range(0, fields.size()).boxed().toList();
    return new LedgerLayout(0, "", "", fields, fields, positions, List.of());
  }

  static List<LedgerEntry> entries(byte[] packed) {
    try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(packed))) {
      return List.of(PlanJson.MAPPER.readValue(in, LedgerEntry[].class));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
