package org.zestyporter.core.source.reading;

/**
 * A single line that is left out.
 *
 * @param text text of its first cell that is not blank; where the line of another file holds
 *     something else, nothing is left out
 */
public record SkippedLine(long line, String text) {}
