package org.zestyporter.core.source.reading;

/**
 * The rows of one of several sheets that are read as one. Their lines go on counting from the sheet
 * before.
 *
 * @param sheet name of the sheet
 * @param linesBefore lines of all sheets before it
 */
public record SheetPart(String sheet, long linesBefore) {}
