package org.zestyporter.core.run;

import java.util.List;

/**
 * The ledger's entries of one batch, in the order of the file.
 *
 * @param destination index of the destination in the plan
 * @param counts number of entries by the order of {@link Outcome}
 */
public record LedgerChunk(
    int destination,
    long firstLine,
    long lastLine,
    List<Integer> counts,
    List<LedgerEntry> entries) {}
