package org.zestyporter.core.source;

/**
 * A cell that is read as another text; the file itself is never touched.
 *
 * @param line the cell's line in the file
 * @param column the column's name
 * @param was the text that is corrected; where the cell holds another one, the correction lapses
 * @param now the text that is read instead
 */
public record Correction(long line, String column, String was, String now) {}
