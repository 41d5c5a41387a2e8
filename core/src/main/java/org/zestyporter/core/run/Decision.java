package org.zestyporter.core.run;

import java.util.List;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.fill.Filled;

/**
 * What is to happen to one row.
 *
 * @param change the record to write; null if nothing is written
 * @param record primary key of the matched record; null if there is none
 * @param waits true if it can only be written once the rows before it are
 * @param before values of the matched record by the table's fields; null if there is none
 */
record Decision(
    long line,
    Outcome outcome,
    int matchedBy,
    List<Object> record,
    Object[] before,
    WriteSession.Change change,
    List<Filled> filled,
    List<Integer> changed,
    List<LedgerEntry.Note> notes,
    boolean waits) {}
