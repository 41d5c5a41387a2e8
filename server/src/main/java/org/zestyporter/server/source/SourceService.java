package org.zestyporter.server.source;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalDateTime;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import org.springframework.stereotype.Service;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.source.Reading;
import org.zestyporter.core.source.SourceReader;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.web.Times;

/** The files that were brought, read once each. */
@Service
public class SourceService {
  private static final int KEPT_OPEN = 24;

  private final SourceMapper sources;
  private final SourceStore store;
  private final Clock clock;
  private final Map<Key, FutureTask<SourceTable>> open = new LinkedHashMap<>(32, 0.75f, true);

  private record Key(long source, Reading reading) {}

  /** A file that was brought. */
  public record Source(
      long id,
      String name,
      long bytes,
      String sha256,
      long rows,
      List<String> columns,
      String uploadedBy,
      LocalDateTime uploadedAt) {}

  SourceService(SourceMapper sources, SourceStore store, Clock clock) {
    this.sources = sources;
    this.store = store;
    this.clock = clock;
  }

  /**
   * Keeps a file and reads it.
   *
   * @throws PorterException if it is too large or holds no table; nothing of it is kept then
   */
  public Source bring(String name, InputStream body, String who) throws IOException {
    long id = sources.nextId();
    try {
      SourceStore.Kept kept = store.keep(id, body);
      SourceTable table = table(id, Reading.FIND);
      SourceRecord source =
          new SourceRecord(
              id,
              name,
              kept.bytes(),
              kept.sha256(),
              table.rowCount(),
              PlanJson.MAPPER.writeValueAsString(table.columns()),
              who,
              Times.now(clock));
      sources.insert(source);
      return view(source);
    } catch (IOException | RuntimeException e) {
      close(id);
      store.drop(id);
      throw e;
    }
  }

  public Source find(long id) {
    SourceRecord source = sources.find(id);
    if (source == null) {
      throw PorterException.missing("no-such-file", "The file is no longer here. Bring it again.");
    }
    return view(source);
  }

  private static Source view(SourceRecord s) {
    List<String> columns = List.of(PlanJson.MAPPER.readValue(s.columnsJson(), String[].class));
    return new Source(
        s.id(),
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
    Key key = new Key(id, reading);
    FutureTask<SourceTable> task;
    synchronized (open) {
      task = open.computeIfAbsent(key, k -> new FutureTask<>(() -> read(id, reading)));
      if (open.size() > KEPT_OPEN) {
        // what is dropped may still be in use by a job, so it is left to the collector to close
        open.remove(open.keySet().iterator().next());
      }
    }
    task.run();
    try {
      return task.get();
    } catch (ExecutionException e) {
      synchronized (open) {
        open.remove(key, task);
      }
      throw e.getCause() instanceof RuntimeException cause
          ? cause
          : new IllegalStateException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  private SourceTable read(long id, Reading reading) {
    Path file = store.file(id);
    if (!Files.exists(file)) {
      throw PorterException.missing("no-such-file", "The file is no longer here. Bring it again.");
    }
    try {
      String parsing = PlanJson.MAPPER.writeValueAsString(reading.parsing());
      Path cache = store.cache(id, parsing);
      Path noted = cache.resolveSibling(cache.getFileName() + ".json");
      if (!Files.exists(noted)) {
        SourceReader.Parsed parsed = SourceReader.parse(file, cache, reading.parsing());
        Files.writeString(noted, PlanJson.MAPPER.writeValueAsString(parsed));
      }
      SourceReader.Parsed parsed =
          PlanJson.MAPPER.readValue(Files.readString(noted), SourceReader.Parsed.class);
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
                  close(e.getValue());
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
    synchronized (open) {
      open.values().forEach(SourceService::close);
      open.clear();
    }
  }
}
