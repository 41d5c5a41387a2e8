package org.zestyporter.core.source.reading;

import org.jspecify.annotations.Nullable;

/**
 * A cell outside of the table that every row gets as a column.
 *
 * @param name name of the column
 * @param column letter of the cell's column
 * @param line line of the cell
 * @param label text of the cell before it; where another file has that text elsewhere, the cell
 *     beside it there is taken
 */
public record Pick(String name, String column, long line, @Nullable String label) {}
