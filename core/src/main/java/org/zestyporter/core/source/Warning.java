package org.zestyporter.core.source;

/**
 * Something odd about a line that does not keep the file from being read.
 *
 * @param row line number in the file, from 1
 */
public record Warning(long row, String code, String message) {}
