package org.zestyporter.server.connection;

import java.time.LocalDateTime;

/** A connection as it is kept; the password only in encrypted form. */
record ConnectionRecord(
    Long id,
    String name,
    String shownName,
    String url,
    String dbUser,
    byte[] secret,
    LocalDateTime createdAt,
    String settingsJson) {}
