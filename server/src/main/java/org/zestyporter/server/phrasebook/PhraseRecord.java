package org.zestyporter.server.phrasebook;

import java.time.LocalDateTime;
import org.jspecify.annotations.Nullable;

/** A translation as it is stored. */
record PhraseRecord(
    long bookId,
    String prepared,
    String sourceWord,
    @Nullable String target,
    String learntBy,
    LocalDateTime learntAt,
    long used,
    @Nullable LocalDateTime lastUsed) {}
