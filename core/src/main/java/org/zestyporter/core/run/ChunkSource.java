package org.zestyporter.core.run;

import java.util.BitSet;
import java.util.List;
import java.util.stream.IntStream;

/** Where the chunks of a source come from, with what the fills gave for their rows. */
interface ChunkSource {

  int count();

  /** A chunk; chunks are taken in order, from the first to the last, as often as is wanted. */
  ChunkRows next(int number);

  /**
   * How many chunks are at hand without any work, so that they can be gone through side by side.
   */
  int together();

  /** As many chunks from a number on as are gone through side by side. */
  default List<ChunkRows> some(int from) {
    return IntStream.range(from, Math.min(count(), from + together()))
        .mapToObj(this::next)
        .toList();
  }

  /** Keeps a chunk for the next time if there is room. */
  void keep(int number, ChunkRows chunk);

  /** True if chunks come with what all fills gave, and not only with what is looked at. */
  boolean isWhole();

  /**
   * A chunk with what all fills gave, on any thread; once all chunks were taken.
   *
   * @param rows the chunk's rows for which that is wanted; what it holds for others has no meaning
   */
  ChunkRows whole(int number, BitSet rows);
}
