package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.zestyporter.core.undo.Past;

/** A ledger in memory, as bytes, by which its run can be undone, or go on. */
public final class MemoryLedger implements Ledger, Past {
  private final Map<LedgerLayout, List<byte[]>> chunks = new LinkedHashMap<>();
  private final boolean undo;
  private RunReport report;

  /** Chunks that wait for others, until the next batch. */
  private Map<LedgerLayout, List<byte[]>> open = new LinkedHashMap<>();

  private Map<LedgerLayout, List<byte[]>> nextOpen = new LinkedHashMap<>();

  /** How many chunks of each part stand, and the batch that was committed last. */
  private final Map<LedgerLayout, Integer> stand = new LinkedHashMap<>();

  private Batch last = new Batch(0, 0, false);
  private RunReport lastReport;

  public MemoryLedger(boolean undo) {
    this.undo = undo;
  }

  @Override
  public void begin(LedgerLayout layout) {
    chunks.computeIfAbsent(layout, l -> new ArrayList<>());
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
  public void beforeCommit(Batch batch, RunReport books, String mark) {
    report = books;
  }

  @Override
  public void open(LedgerChunk chunk) {
    nextOpen.computeIfAbsent(chunk.layout(), l -> new ArrayList<>()).add(LedgerCodec.encode(chunk));
  }

  /** True if the batch before left rows waiting. */
  boolean hasOpen() {
    return !open.isEmpty();
  }

  @Override
  public void committed(Batch batch) {
    last = batch;
    open = nextOpen;
    nextOpen = new LinkedHashMap<>();
    lastReport = report;
    chunks.forEach((layout, all) -> stand.put(layout, all.size()));
  }

  /** Drops what does not stand, as after a crash. */
  public Standing standing() {
    nextOpen = new LinkedHashMap<>();
    chunks.keySet().retainAll(stand.keySet());
    chunks.forEach((layout, all) -> all.subList(stand.get(layout), all.size()).clear());
    return new Standing(last.number(), last.rows(), lastReport, this);
  }

  public RunReport report() {
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
  public int chunks(LedgerLayout layout) {
    return closed(layout) + open.getOrDefault(layout, List.of()).size();
  }

  @Override
  public int closed(LedgerLayout layout) {
    return chunks.get(layout).size();
  }

  @Override
  public LedgerChunk chunk(LedgerLayout layout, int number) {
    int closed = closed(layout);
    return LedgerCodec.decode(
        number < closed ? chunks.get(layout).get(number) : open.get(layout).get(number - closed),
        layout);
  }

  @Override
  public boolean isUndo() {
    return undo;
  }

  public long size() {
    return entries().stream().filter(e -> e.outcome().isWritten()).count();
  }

  public List<LedgerEntry> entries() {
    List<LedgerEntry> entries = new ArrayList<>();
    chunks.forEach(
        (layout, all) -> all.forEach(c -> entries.addAll(LedgerCodec.decode(c, layout).entries())));
    return entries;
  }
}
