package org.zestyporter.server.source;

import com.fasterxml.jackson.annotation.JsonValue;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.Temporary;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.store.Lasting;
import org.zestyporter.server.web.Deletion;
import org.zestyporter.server.web.Times;

/** The files that were brought, read once each. */
@Service
public class SourceService {
  private static final int KEPT_OPEN = 10;
  private static final long PATIENCE_MILLIS = 1_000;
  private static final int PEEKED_ROWS = 400;
  private static final int PEEKED_BYTES = 512 * 1024;
  private static final int UNKNOWN_ROWS = -1;
  private static final int SHOWN_ROWS = 40;
  private static final int SHOWN_COLUMNS = 40;

  private final SourceMapper sources;
  private final SourceStore store;
  private final ObjectProvider<UsesSources> users;
  private final Clock clock;

  /** One for each of some files of cells, so that none is written twice at a time. */
  private final Object[] locks = Stream.generate(Object::new).limit(64).toArray();

  private final Map<Key, Opening> open = new LinkedHashMap<>(32, 0.75f, true);
  private final ExecutorService readers =
      Executors.newFixedThreadPool(
          2,
          work -> {
            Thread thread = new Thread(work, "porter-reader");
            thread.setDaemon(true);
            return thread;
          });

  private record Key(long source, Reading reading) {}

  /** A file that is being read or has been. */
  private record Opening(FutureTask<SourceTable> task, ReadProgress progress) {}

  /** The state of a file that was brought. */
  public enum State {
    READING,
    READY;

    @JsonValue
    public String word() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  /**
   * How far the reading of a file is.
   *
   * @param bytes bytes read; 0 where the format does not tell
   * @param rows rows read so far
   */
  public record Reached(State state, long bytes, long totalBytes, long rows) {}

  /** The first lines of a file that is still being read. */
  public record Peek(List<String> columns, List<List<Cell>> rows) {}

  /**
   * A file that was brought.
   *
   * @param rows its records; -1 while it is being read
   */
  public record Source(
      long id,
      State state,
      String name,
      long bytes,
      String sha256,
      long rows,
      List<String> columns,
      String uploadedBy,
      LocalDateTime uploadedAt) {}

  SourceService(
      SourceMapper sources, SourceStore store, ObjectProvider<UsesSources> users, Clock clock) {
    this.sources = sources;
    this.store = store;
    this.users = users;
    this.clock = clock;
  }

  /**
   * Keeps a file and begins to read it. A small file is read when this returns, a large one goes on
   * being read.
   *
   * @throws PorterException if it is too large or holds no table; nothing of it is kept then
   */
  public Source bring(String name, InputStream body, String who) throws IOException {
    long id = sources.nextId();
    try {
      SourceStore.Kept kept = store.keep(id, body);
      Opening opening = opening(id, Reading.FIND);
      readers.execute(opening.task());
      SourceTable table = within(opening, PATIENCE_MILLIS);
      List<String> columns = table == null ? peek(id).columns() : table.columns();
      SourceRecord source =
          new SourceRecord(
              id,
              name,
              kept.bytes(),
              kept.sha256(),
              table == null ? UNKNOWN_ROWS : table.rowCount(),
              PlanJson.MAPPER.writeValueAsString(columns),
              who,
              Times.now(clock),
              null);
      sources.insert(source);
      return view(source);
    } catch (IOException | RuntimeException e) {
      close(id);
      store.drop(id);
      throw e;
    }
  }

  /** All files, the latest first. */
  public List<Source> all() {
    return sources.all().stream()
        .map(s -> view(s.rowCount() == UNKNOWN_ROWS ? asFarAsRead(s) : s))
        .toList();
  }

  /** A file that was being read when it was brought, which nobody may have asked about since. */
  private SourceRecord asFarAsRead(SourceRecord source) {
    Opening opening = opening(source.id(), Reading.FIND);
    readers.execute(opening.task());
    try {
      SourceTable table = within(opening, 0);
      return table == null ? source : described(source, table);
    } catch (RuntimeException e) {
      // whoever asks how far it is hears of it
      return source;
    }
  }

  /** Notes what a file holds. */
  private SourceRecord described(SourceRecord source, SourceTable table) {
    sources.describe(
        source.id(), table.rowCount(), PlanJson.MAPPER.writeValueAsString(table.columns()));
    return record(source.id());
  }

  /** What deleting a file means; runs keep naming it. */
  public Deletion deletion(long id) {
    record(id);
    List<String> readers = new ArrayList<>();
    users.forEach(u -> readers.addAll(u.reading(id)));
    return new Deletion(
        List.of(),
        List.of(),
        readers.isEmpty()
            ? null
            : "The file is read by "
                + String.join(", ", readers)
                + ". Give another file to what reads it, or delete that first.");
  }

  public void delete(long id) throws IOException {
    deletion(id).require();
    sources.gone(id, Times.now(clock));
    close(id);
    store.drop(id);
  }

  /**
   * Takes away what nobody will ask for: files whose upload was cut off, and cells that were not
   * looked at for a week.
   */
  @EventListener(ApplicationReadyEvent.class)
  void sweep() throws IOException {
    Instant week = clock.instant().minus(Duration.ofDays(7));
    for (long id : store.kept()) {
      SourceRecord known = sources.find(id);
      if (known == null || known.droppedAt() != null) {
        store.drop(id);
      } else {
        store.dropCaches(id, week);
      }
    }
  }

  /** The table if it is there in time, else null. */
  private static SourceTable within(Opening opening, long millis) {
    try {
      return opening.task().get(millis, TimeUnit.MILLISECONDS);
    } catch (TimeoutException e) {
      return null;
    } catch (ExecutionException e) {
      throw cause(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  private static RuntimeException cause(ExecutionException e) {
    return e.getCause() instanceof RuntimeException cause
        ? cause
        : new IllegalStateException(e.getCause());
  }

  /** The first rows of a file, whether it is read to the end or not. */
  public Peek peek(long id) throws IOException {
    Path file = store.file(id);
    if (!Files.exists(file)) {
      throw ErrorCode.NO_SUCH_FILE.error("The file is no longer here.");
    }
    return peek(file, store.cache(id, "peek"));
  }

  /** The rows in the first bytes of a file; nothing of them is kept. */
  public Peek peek(InputStream firstBytes) throws IOException {
    Path folder = Temporary.folder("peek");
    Path head = folder.resolve("head");
    Path cells = folder.resolve("cells");
    try {
      Files.write(head, firstBytes.readNBytes(PEEKED_BYTES));
      return peek(head, cells);
    } finally {
      Temporary.drop(folder);
    }
  }

  private static Peek peek(Path file, Path cells) throws IOException {
    try (SourceTable table = SourceReader.peek(file, cells, Reading.FIND, PEEKED_ROWS)) {
      List<List<Cell>> rows = new ArrayList<>();
      for (int i = 0; i < table.batches() && rows.size() < SHOWN_ROWS; i++) {
        Batch batch = table.batch(i);
        for (int r = 0; r < batch.rows() && rows.size() < SHOWN_ROWS; r++) {
          int row = r;
          rows.add(
              Arrays.stream(batch.columns()).limit(SHOWN_COLUMNS).map(c -> c.cell(row)).toList());
        }
      }
      return new Peek(table.columns().stream().limit(SHOWN_COLUMNS).toList(), rows);
    }
  }

  /**
   * How far a file is read. Once it is, its rows are noted.
   *
   * @throws PorterException if it turned out to hold no table; the file is dropped then
   */
  public Reached reached(long id) throws IOException {
    SourceRecord source = record(id);
    List<Opening> all;
    synchronized (open) {
      all =
          open.entrySet().stream()
              .filter(e -> e.getKey().source() == id)
              .map(Map.Entry::getValue)
              .toList();
    }
    for (Opening opening : all) {
      if (!opening.task().isDone()) {
        ReadProgress p = opening.progress();
        return new Reached(State.READING, p.bytes(), p.totalBytes(), p.rows());
      }
    }
    if (source.rowCount() == UNKNOWN_ROWS) {
      try {
        SourceTable table = table(id, Reading.FIND);
        described(source, table);
        return new Reached(State.READY, source.bytes(), source.bytes(), table.rowCount());
      } catch (PorterException e) {
        sources.drop(id);
        store.drop(id);
        throw e;
      }
    }
    return new Reached(State.READY, source.bytes(), source.bytes(), source.rowCount());
  }

  /** The first lines of a text as they are, before they are parted into cells. */
  public List<String> text(long id, Reading reading, int lines) {
    try {
      return SourceReader.text(store.file(id), reading, lines);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private SourceRecord record(long id) {
    SourceRecord source = sources.find(id);
    if (source == null || source.droppedAt() != null) {
      throw ErrorCode.NO_SUCH_FILE.error("The file is no longer here.");
    }
    return source;
  }

  public Source find(long id) {
    return view(record(id));
  }

  /**
   * A file's SHA-256 in hexadecimal digits, also if it was deleted since; null if it is unknown.
   */
  public @Nullable String checksum(long id) {
    SourceRecord source = sources.find(id);
    return source == null ? null : source.sha256();
  }

  /** A file's name, also if it was deleted since. */
  public String name(long id) {
    SourceRecord source = sources.find(id);
    return source == null ? "" : source.name();
  }

  private static Source view(SourceRecord s) {
    List<String> columns = List.of(PlanJson.MAPPER.readValue(s.columnsJson(), String[].class));
    return new Source(
        s.id(),
        s.rowCount() == UNKNOWN_ROWS ? State.READING : State.READY,
        s.name(),
        s.bytes(),
        s.sha256(),
        s.rowCount(),
        columns,
        s.uploadedBy(),
        s.uploadedAt());
  }

  /**
   * The file under a reading; the same object for the same reading as long as it is in use. A file
   * that is being read keeps nobody from other files.
   */
  public SourceTable table(long id, Reading reading) {
    Opening opening = opening(id, reading);
    opening.task().run();
    try {
      return opening.task().get();
    } catch (ExecutionException e) {
      synchronized (open) {
        open.values().remove(opening);
      }
      throw cause(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  private Opening opening(long id, Reading reading) {
    // the columns of an earlier file have no part in how this one is read
    Key key = new Key(id, reading.withColumns(null));
    synchronized (open) {
      Opening opening =
          open.computeIfAbsent(
              key,
              k -> {
                ReadProgress progress = new ReadProgress();
                return new Opening(
                    new FutureTask<>(() -> read(id, k.reading(), progress)), progress);
              });
      if (open.size() > KEPT_OPEN) {
        // what is dropped may still be in use by a job, so it is left to the collector to close
        open.remove(open.keySet().iterator().next());
      }
      return opening;
    }
  }

  private Object lock(Path cache) {
    return locks[Math.floorMod(cache.hashCode(), locks.length)];
  }

  private SourceTable read(long id, Reading reading, ReadProgress progress) {
    Path file = store.file(id);
    if (!Files.exists(file)) {
      throw ErrorCode.NO_SUCH_FILE.error("The file is no longer here.");
    }
    try {
      String parsing = PlanJson.MAPPER.writeValueAsString(reading.parsing());
      Path cache = store.cache(id, parsing);
      Path noted = cache.resolveSibling(cache.getFileName() + ".json");
      // readings of other titles or columns take the same cells out of the file
      synchronized (lock(cache)) {
        if (!Files.exists(noted)) {
          SourceReader.Parsed parsed = SourceReader.parse(file, cache, reading.parsing(), progress);
          Lasting.force(cache);
          Lasting.write(noted, PlanJson.MAPPER.writeValueAsBytes(parsed));
        }
      }
      SourceReader.Parsed parsed =
          PlanJson.MAPPER.readValue(Files.readString(noted), SourceReader.Parsed.class);
      // what is looked at stays for another week
      FileTime now = FileTime.from(clock.instant());
      Files.setLastModifiedTime(cache, now);
      Files.setLastModifiedTime(noted, now);
      return SourceReader.reopen(cache, parsed.withLayout(reading));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private void close(long id) {
    synchronized (open) {
      open.entrySet()
          .removeIf(
              e -> {
                boolean mine = e.getKey().source() == id;
                if (mine) {
                  e.getValue().progress().stop();
                  close(e.getValue().task());
                }
                return mine;
              });
    }
  }

  private static void close(FutureTask<SourceTable> task) {
    if (!task.isDone()) {
      return;
    }
    try {
      task.get().close();
    } catch (ExecutionException e) {
      // it never came to be open
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  @PreDestroy
  void closeAll() {
    readers.shutdownNow();
    synchronized (open) {
      open.values().forEach(o -> o.progress().stop());
      open.values().forEach(o -> close(o.task()));
      open.clear();
    }
  }
}
