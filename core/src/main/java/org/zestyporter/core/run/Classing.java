package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.match.Match;
import org.zestyporter.core.match.MatchClass;
import org.zestyporter.core.match.Matcher;
import org.zestyporter.core.plan.RunSettings;

/**
 * Tells how the rows of a source match the records of a destination, by class, and what would
 * become of some of them, without rehearsing the others.
 *
 * <p>Classes are those by which rows are decided. Only what was edited since the last time is
 * computed and looked up anew.
 *
 * <pre>{@code
 * Classing classing = Classing.of(opened, 0, remembered);
 * classing.counted().rows().get(MatchClass.ONE);
 * classing.show(MatchClass.ONE, (chunk, entry) -> ...);
 * }</pre>
 */
public final class Classing {
  /** Rows of a class that are looked at more closely, and the chunks in which they are sought. */
  private static final int LOOKED_AT = 5_000;

  /** The same where each may have to do with many others. */
  private static final int LOOKED_AT_OF_SEVERAL = 1_000;

  private static final int CHUNKS_LOOKED_AT = 60;

  private final OpenedPlan opened;
  private final List<Target> targets;
  private final Target target;
  private final ChunkSource chunks;

  /** Null if nothing was kept. */
  private final @Nullable Remembered remembered;

  private final List<Classes> classes = new ArrayList<>();

  /**
   * How many rows there are of each class.
   *
   * @param byKey the same by match key, of the rows that one found something for
   * @param compared by match key, false if it finds what is near, and the rows are too many to be
   *     compared with each other
   */
  public record Counted(
      Map<MatchClass, Long> rows, List<Map<MatchClass, Long>> byKey, List<Boolean> compared) {}

  /** Takes rows with what would become of them. */
  @FunctionalInterface
  public interface Taker {
    void take(LedgerChunk chunk, int entry);

    /** The same for a row that another one is near to, whatever its own class. */
    default void takeBeside(LedgerChunk chunk, int entry) {}
  }

  /**
   * The rows of a chunk.
   *
   * @param first index of the first of them among the noted rows
   * @param rows the chunk's row of each; null if each row of the chunk has one, in order
   * @param of classes by their order
   * @param key number of the match key that found something, from 1; 0 if none did
   * @param group index of the first of the rows with the same key, from 1; 0 if there are no others
   * @param near index of the row that each is near to, from 1; 0 if there is none; null if there is
   *     none for any
   */
  private record Classes(
      int first, int @Nullable [] rows, byte[] of, byte[] key, int[] group, int @Nullable [] near) {
    int row(int r) {
      return rows == null ? r : rows[r];
    }

    int near(int r) {
      return near == null ? 0 : near[r];
    }
  }

  private Classing(
      OpenedPlan opened,
      List<Target> targets,
      int destination,
      ChunkSource chunks,
      @Nullable Remembered remembered) {
    this.remembered = remembered;
    this.opened = opened;
    this.targets = targets;
    this.target = targets.get(destination);
    this.chunks = chunks;
  }

  /**
   * Tells the classes of all rows.
   *
   * @param remembered of the plan's source and application; null if nothing is to be kept
   * @throws org.zestyporter.core.value.PorterException if something keeps the plan from being
   *     rehearsed
   */
  public static Classing of(OpenedPlan opened, int destination, @Nullable Remembered remembered) {
    opened.require();
    Classing kept = remembered == null ? null : kept(opened, destination, remembered);
    return kept == null ? whole(opened, destination) : kept;
  }

  /** Null if it takes too much memory, or several tables are matched by what is near. */
  private static @Nullable Classing kept(
      OpenedPlan opened, int destination, Remembered remembered) {
    OpenedPlan own = opened.through(opened.application(), remembered.answers());
    List<KeptColumns.Open> columns = remembered.columns().openAll(own);
    List<Target> targets = Targets.open(own, KeptColumns.fills(columns));
    List<Target> noted = targets.get(destination).withAbove();
    long weight = 0;
    for (Target target : noted) {
      long rows = columns.get(target.index).count();
      long heavy = Remembered.weightOfMatches(rows, target, target.lookedAt(true));
      boolean isNear = targets.size() > 1 && target.matcher.isNear();
      if (isNear || !Remembered.fits(heavy)) {
        return null;
      }
      weight += Remembered.weightAtWork(heavy, rows, target);
    }
    try (Room room = Room.take(weight)) {
      List<KeptChunks.Part> parts = new ArrayList<>();
      for (Target target : targets) {
        KeptColumns.Open of = columns.get(target.index);
        // of the others it is only known which rows they reject
        List<String> lookedAt = noted.contains(target) ? target.lookedAt(true) : List.of();
        parts.add(new KeptChunks.Part(of, of.chunks(lookedAt), target));
      }
      ChunkSource chunks = new KeptChunks(parts);
      List<List<Noting.Hashed>> hashed =
          remembered.keys().hashed(targets, noted, columns, chunks, true, null);
      boolean isTogether = isTogether(own, targets);
      Noting noting = new Noting(own, targets, targets.get(destination), chunks, hashed);
      remembered.keys().known(targets, columns, isTogether, () -> noting.go(Progress.NONE));
      Classing classing = new Classing(own, targets, destination, chunks, remembered);
      return classing.tell(noting.hashed());
    }
  }

  /** True if what one row makes in several tables is written together or not at all. */
  private static boolean isTogether(OpenedPlan opened, List<Target> targets) {
    return targets.size() > 1 && opened.plan().run().rows() == RunSettings.Rows.WHOLE;
  }

  private static Classing whole(OpenedPlan opened, int destination) {
    List<Target> targets = Targets.open(opened);
    try (Room room = Room.take(Chunks.weight(opened));
        Chunks chunks = new Chunks(opened.source(), targets)) {
      new Noting(opened, targets, chunks, true).go(Progress.NONE);
      return new Classing(opened, targets, destination, chunks, null).tell(null);
    }
  }

  /**
   * @param hashed by destination and chunk, the keys of all rows; null if they are not known, of
   *     all destinations or of one
   */
  private Classing tell(@Nullable List<@Nullable List<Noting.Hashed>> hashed) {
    chunks.each(
        Progress.NONE,
        (number, chunk) -> tell(chunk, number, hashed),
        (number, chunk, told) -> classes.add(told));
    return this;
  }

  private Classes tell(
      ChunkRows chunk, int number, @Nullable List<@Nullable List<Noting.Hashed>> hashed) {
    TargetRows rows = chunk.targets().get(target.index);
    boolean isWhole = isTogether(opened, targets);
    if (target.keysNeedParent()) {
      Matcher.Hashes above = Noting.keys(hashed, target.parent.target(), number);
      Noting.addParents(chunk, rows, null, above);
    }
    Matcher.Hashes hashes = Noting.keys(hashed, target, number);
    Matcher.Placed placed = hashes == null ? null : target.matcher.placed(hashes, rows.first);
    int count = rows.count();
    byte[] of = new byte[count];
    byte[] key = new byte[count];
    int[] group = new int[count];
    int[] near = null;
    for (int r = 0; r < count; r++) {
      MatchClass is = MatchClass.TROUBLED;
      if (!rows.isRejected(r) && !(isWhole && chunk.isRejected(rows.rowOf(r)))) {
        Match match = target.matcher.match(rows.first + r, placed, rows.byField, r);
        is = MatchClass.of(match, rows.first + r, target.destination);
        key[r] = (byte) (match.isFound() ? match.key() : 0);
        group[r] = match.repeated() ? match.first() + 1 : 0;
        if (!match.rows().isEmpty()) {
          near = near == null ? new int[count] : near;
          near[r] = match.rows().get(0) + 1;
        }
      }
      of[r] = (byte) is.ordinal();
    }
    return new Classes(rows.first, rows.rows, of, key, group, near);
  }

  /** What the ledger of the destination holds. */
  public LedgerLayout layout() {
    return target.layout;
  }

  public Counted counted() {
    long[][] counts = new long[target.destination.keys().size() + 1][MatchClass.values().length];
    for (Classes some : classes) {
      for (int r = 0; r < some.of.length; r++) {
        counts[0][some.of[r]]++;
        if (some.key[r] > 0) {
          counts[some.key[r]][some.of[r]]++;
        }
      }
    }
    List<Map<MatchClass, Long>> all = new ArrayList<>();
    for (long[] own : counts) {
      Map<MatchClass, Long> map = new EnumMap<>(MatchClass.class);
      for (MatchClass is : MatchClass.values()) {
        map.put(is, own[is.ordinal()]);
      }
      all.add(map);
    }
    return new Counted(
        all.get(0),
        List.copyOf(all.subList(1, all.size())),
        IntStream.range(0, all.size() - 1).mapToObj(target.matcher::comparesRows).toList());
  }

  /**
   * Finds out what would become of rows of a class: of all, or if they are many of some thousands,
   * from all over the file.
   *
   * @param taker takes those of a chunk after each other
   * @return how many rows were looked at
   */
  public long show(MatchClass wanted, Taker taker) {
    boolean mayWait = targets.stream().anyMatch(t -> t.awaiting.length > 0);
    boolean isAlone = remembered == null || targets.size() == 1 && !mayWait;
    Set<Integer> beside = new HashSet<>();
    List<BitSet> chosen = chosen(wanted, beside, isAlone ? LOOKED_AT : LOOKED_AT_OF_SEVERAL);
    long count = Ties.count(chosen);
    if (count == 0) {
      return 0;
    }
    Consumer<ChunkRows> taken = chunk -> take(chunk, wanted, beside, taker);
    if (isAlone) {
      SomeRows.pass(opened, targets, chunks, chosen, taken);
      return count;
    }
    // only matches were noted, and what rows may wait for was not
    return excerpt(chosen, taken) ? count : whole(opened, target.index).show(wanted, taker);
  }

  /** Decides rows with all that they have to do with; false if these are too many. */
  private boolean excerpt(List<BitSet> chosen, Consumer<ChunkRows> taken) {
    List<KeptColumns.Open> columns = remembered.columns().openAll(opened);
    List<List<String>> none = targets.stream().map(t -> List.<String>of()).toList();
    Excerpt excerpt = Excerpt.of(opened, columns, none, remembered);
    if (excerpt == null) {
      return false;
    }
    try (Room room = Room.take(excerpt.weight())) {
      excerpt.open();
      excerpt.tie(null);
      if (!excerpt.spread(chosen)) {
        return false;
      }
      excerpt.pass(chosen, taken);
      return true;
    }
  }

  private void take(ChunkRows chunk, MatchClass wanted, Set<Integer> beside, Taker taker) {
    Classes own = classes.get(opened.source().batchOf(chunk.first()));
    LedgerChunk entries = LedgerEntries.soFar(chunk, chunk.targets().get(target.index));
    for (int entry = 0; entry < entries.size(); entry++) {
      if (own.of[entry] == wanted.ordinal() && !entries.isWaiting(entry)) {
        taker.take(entries, entry);
      }
      if (beside.contains(own.first + entry + 1)) {
        taker.takeBeside(entries, entry);
      }
    }
  }

  /**
   * By chunk, the rows of the source that are looked at.
   *
   * @param beside takes the indexes of rows that others are near to, from 1
   * @param most how many, beside those that they have to do with
   */
  private List<BitSet> chosen(MatchClass wanted, Set<Integer> beside, int most) {
    List<BitSet> chosen = new ArrayList<>();
    classes.forEach(c -> chosen.add(new BitSet()));
    Set<Integer> groups = new HashSet<>();
    int looked = 0;
    int sought = 0;
    for (int number : spread(chosen.size())) {
      if (looked >= most || sought >= CHUNKS_LOOKED_AT) {
        break;
      }
      Classes some = classes.get(number);
      for (int r = 0; r < some.of.length && looked < most; r++) {
        if (some.of[r] == wanted.ordinal()) {
          chosen.get(number).set(some.row(r));
          looked++;
          if (some.group[r] > 0) {
            groups.add(some.group[r]);
          }
          if (some.near(r) > 0) {
            beside.add(some.near(r));
          }
        }
      }
      sought += chosen.get(number).isEmpty() ? 0 : 1;
    }
    // what becomes of a row depends on those that have its key
    boolean none = groups.isEmpty() && beside.isEmpty();
    for (int number = 0; number < chosen.size() && !none; number++) {
      Classes some = classes.get(number);
      for (int r = 0; r < some.of.length; r++) {
        boolean sharesKey = some.group[r] > 0 && groups.contains(some.group[r]);
        if (sharesKey || beside.contains(some.first + r + 1)) {
          chosen.get(number).set(some.row(r));
        }
      }
    }
    return chosen;
  }

  /** Numbers up to a count, each once, so that the first of them come from all over. */
  private static int[] spread(int count) {
    int step = 1;
    while (step * step < count) {
      step++;
    }
    int by = step;
    return IntStream.range(0, by)
        .flatMap(first -> IntStream.iterate(first, n -> n < count, n -> n + by))
        .toArray();
  }
}
