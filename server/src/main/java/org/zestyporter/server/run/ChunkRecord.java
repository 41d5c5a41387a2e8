package org.zestyporter.server.run;

/** A chunk of a ledger; {@code entries} is null where only the counts were asked. */
record ChunkRecord(
    long executionId,
    int destination,
    int number,
    long firstLine,
    long lastLine,
    int added,
    int changed,
    int unchanged,
    int skipped,
    int rejected,
    long fates,
    byte[] entries,
    int removed,
    int batch,
    boolean isOpen) {

  int count(int outcome) {
    return switch (outcome) {
      case 0 -> added;
      case 1 -> changed;
      case 2 -> unchanged;
      case 3 -> skipped;
      case 4 -> rejected;
      case 5 -> removed;
      default -> added + changed + unchanged + skipped + rejected + removed;
    };
  }
}
