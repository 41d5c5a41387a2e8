package org.zestyporter.core.run;

/**
 * What a run commits together.
 *
 * @param number from 1
 * @param rows the source's rows up to its end
 * @param last true if the run is done with it
 */
public record Batch(int number, long rows, boolean last) {}
