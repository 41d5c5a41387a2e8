package org.zestyporter.core.source.parse;

/**
 * What a parser has to tell of cells of one column.
 *
 * @param column index of the column, from 0
 * @param cells how many cells
 * @param line line of the first of them
 * @param sample how that one is shown
 */
public record CellNote(NoteCode code, int column, long cells, long line, String sample) {}
