package org.zestyporter.server.source;

import java.time.LocalDateTime;

/** A file that was brought. */
record SourceRecord(
    Long id,
    String name,
    long bytes,
    String sha256,
    long rowCount,
    String columnsJson,
    String uploadedBy,
    LocalDateTime uploadedAt,
    LocalDateTime droppedAt) {}
