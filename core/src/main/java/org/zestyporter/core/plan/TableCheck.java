package org.zestyporter.core.plan;

import org.jspecify.annotations.Nullable;

/**
 * A rule of a table's own, kept with its connection.
 *
 * @param name by which plans switch it off
 * @param formula over the table's fields, in brackets; a record for which it is false is kept out
 * @param message what is said then; null to say the formula
 */
public record TableCheck(String name, String formula, @Nullable String message) {}
