package org.zestyporter.core.source.reading;

import org.jspecify.annotations.Nullable;
import org.zestyporter.core.value.ErrorCode;

/**
 * Records by their number, from 1, both ends included.
 *
 * @param to the last one; null if all that follow are taken
 */
public record Span(long from, @Nullable Long to) {

  public Span {
    if (from < 1 || (to != null && to < from)) {
      throw ErrorCode.RECORDS.error(
          "Records are numbered from 1, and the last is not before the first.");
    }
  }

  public boolean holds(long number) {
    return number >= from && (to == null || number <= to);
  }
}
