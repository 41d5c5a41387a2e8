package org.zestyporter.core.source.reading;

import org.zestyporter.core.value.ValueType;

/**
 * A column as a file had it.
 *
 * @param letter its place in the sheet
 */
public record ColumnShape(String name, String letter, ValueType type) {}
