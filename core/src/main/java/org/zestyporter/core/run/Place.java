package org.zestyporter.core.run;

/** A row of a chunk, with all that it makes. */
record Place(ChunkRows chunk, int row) {

  /** Its index among the source's rows. */
  int index() {
    return chunk.first() + row;
  }
}
