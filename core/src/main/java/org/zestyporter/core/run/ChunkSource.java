package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import java.util.stream.IntStream;
import org.zestyporter.core.value.SideBySide;

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

  /** What is found out about a chunk by itself, on any thread. */
  @FunctionalInterface
  interface Finder<T> {
    T of(int number, ChunkRows chunk);
  }

  /** What is done with a chunk once those before it are done. */
  @FunctionalInterface
  interface Taker<T> {
    void take(int number, ChunkRows chunk, T found);
  }

  /** Goes through all chunks: what each is asked by itself side by side, the rest in order. */
  default <T> void each(Progress progress, Finder<T> finder, Taker<T> taker) {
    for (int from = 0; from < count(); from += together()) {
      Pipeline.requireGoing(progress);
      List<ChunkRows> some = some(from);
      List<T> found = new ArrayList<>(Collections.nCopies(some.size(), null));
      int first = from;
      SideBySide.go(
          found.size(),
          1,
          (start, end) -> {
            for (int i = start; i < end; i++) {
              found.set(i, finder.of(first + i, some.get(i)));
            }
          });
      for (int i = 0; i < found.size(); i++) {
        taker.take(from + i, some.get(i), found.get(i));
      }
    }
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
