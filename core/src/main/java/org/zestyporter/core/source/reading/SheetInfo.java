package org.zestyporter.core.source.reading;

import org.jspecify.annotations.Nullable;

/**
 * A sheet of a workbook, or an array in JSON that can make the rows.
 *
 * @param name name of the sheet, path of the array
 * @param hidden true if the workbook does not show it
 * @param lines its last line as the file states it; null if the file does not
 * @param columns its columns as the file states them; null if the file does not
 */
public record SheetInfo(
    String name, boolean hidden, @Nullable Long lines, @Nullable Integer columns) {}
