package org.zestyporter.server.plan;

import java.time.LocalDateTime;
import org.jspecify.annotations.Nullable;

/**
 * A plan as it is kept, with the file it was last used with.
 *
 * @param draftedJson the destination that the last draft proposed; null in plans of old
 */
record PlanRecord(
    Long id,
    String name,
    Long sourceId,
    int revision,
    String document,
    String evidenceJson,
    @Nullable String draftedJson,
    String columnsJson,
    String savedBy,
    LocalDateTime savedAt,
    LocalDateTime openedAt) {}
