package org.zestyporter.server.plan;

import java.time.LocalDateTime;

/** A plan as it is kept, with the file it was last used with. */
record PlanRecord(
    Long id,
    String name,
    Long sourceId,
    int revision,
    String document,
    String evidenceJson,
    String columnsJson,
    String savedBy,
    LocalDateTime savedAt,
    LocalDateTime openedAt) {}
