package org.zestyporter.server.account;

import java.time.LocalDateTime;

/** A person who may sign in. */
record Account(
    Long id, String name, String shownName, String passwordHash, LocalDateTime createdAt) {}
