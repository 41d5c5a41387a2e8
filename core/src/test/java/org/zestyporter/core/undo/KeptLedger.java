package org.zestyporter.core.undo;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.zestyporter.core.run.Ledger;
import org.zestyporter.core.run.LedgerChunk;
import org.zestyporter.core.run.LedgerCodec;
import org.zestyporter.core.run.LedgerEntry;
import org.zestyporter.core.run.LedgerLayout;
import org.zestyporter.core.run.RunReport;

/** A ledger in memory, as bytes, by which its run can be undone. */
final class KeptLedger implements Ledger, Past {
  private final Map<LedgerLayout, List<byte[]>> chunks = new LinkedHashMap<>();
  private final boolean undo;
  private RunReport report;

  KeptLedger(boolean undo) {
    this.undo = undo;
  }

  @Override
  public void begin(LedgerLayout layout) {
    chunks.put(layout, new ArrayList<>());
  }

  @Override
  public void append(LedgerChunk chunk) {
    chunks.get(chunk.layout()).add(LedgerCodec.encode(chunk));
  }

  @Override
  public void made(LedgerChunk chunk) {
    chunks.computeIfAbsent(chunk.layout(), l -> new ArrayList<>()).add(LedgerCodec.encode(chunk));
  }

  @Override
  public void beforeCommit(RunReport books, String mark) {
    report = books;
  }

  RunReport report() {
    return report;
  }

  @Override
  public String plan() {
    return "Plan";
  }

  @Override
  public String source() {
    return "file.csv";
  }

  @Override
  public List<LedgerLayout> layouts() {
    return Past.asWritten(new ArrayList<>(chunks.keySet()), undo);
  }

  @Override
  public void fromTheLast(LedgerLayout layout, Consumer<LedgerChunk> chunk) {
    List<byte[]> all = chunks.get(layout);
    for (int i = all.size() - 1; i >= 0; i--) {
      chunk.accept(LedgerCodec.decode(all.get(i), layout));
    }
  }

  @Override
  public boolean isUndo() {
    return undo;
  }

  long size() {
    return entries().stream().filter(e -> e.outcome().isWritten()).count();
  }

  List<LedgerEntry> entries() {
    List<LedgerEntry> entries = new ArrayList<>();
    chunks.forEach(
        (layout, all) -> all.forEach(c -> entries.addAll(LedgerCodec.decode(c, layout).entries())));
    return entries;
  }
}
