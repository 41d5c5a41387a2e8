package org.zestyporter.core.application;

/**
 * The table and key field that a link points at.
 *
 * @param table what plans call it, with its schema if that is another one
 */
public record LinkInfo(String table, String keyField) {}
