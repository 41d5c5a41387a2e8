package org.zestyporter.server.run;

import java.time.LocalDateTime;

/** A rehearsal or run as it is kept. */
record ExecutionRecord(
    Long id,
    String kind,
    String number,
    long planId,
    int revision,
    long sourceId,
    Long rehearsalId,
    String state,
    String startedBy,
    LocalDateTime startedAt,
    LocalDateTime finishedAt,
    String reportJson,
    String code,
    String message,
    String mark,
    Long undoesId) {}
