package org.zestyporter.core.database;

/** The table and key field that a link points at. */
public record LinkInfo(String table, String keyField) {}
