package org.zestyporter.core.source.reading;

/**
 * How a workbook shows most numbers of a column, or most of its days.
 *
 * @param column of the sheet, from 0
 * @param moment true for days and times, false for numbers
 * @param code the format's code, such as {@code #,##0.00} (ECMA-376, part 1, 18.8.31)
 */
public record CellFormat(int column, boolean moment, String code) {}
