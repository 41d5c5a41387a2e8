package org.zestyporter.server.phrasebook;

import java.time.LocalDateTime;
import org.jspecify.annotations.Nullable;

/** A phrasebook as it is stored. */
record BookRecord(
    @Nullable Long id,
    String name,
    @Nullable String connection,
    @Nullable String aboutTable,
    @Nullable String aboutField,
    String savedBy,
    LocalDateTime savedAt) {}
