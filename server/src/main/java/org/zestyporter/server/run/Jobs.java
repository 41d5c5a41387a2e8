package org.zestyporter.server.run;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import org.zestyporter.core.run.Progress;

/** Rehearsals and runs that are going, and who listens to them. */
@Component
class Jobs {
  private static final long PAUSE_NANOS = 120_000_000L;

  /** More than are computed at a time, since some of them wait for others. */
  private static final int AT_A_TIME = 6;

  private final ExecutorService pool =
      Executors.newFixedThreadPool(
          AT_A_TIME,
          task -> {
            Thread thread = new Thread(task, "porter-job");
            thread.setDaemon(true);
            return thread;
          });
  private final Map<Long, Job> going = new ConcurrentHashMap<>();

  /** How far a job has come. */
  public record Stand(String phase, long rows, long total, boolean finished) {}

  /** A job that is going. */
  static final class Job implements Progress {
    private final AtomicBoolean stopped = new AtomicBoolean();
    private final List<SseEmitter> listeners = new CopyOnWriteArrayList<>();
    private volatile Stand stand = new Stand("waiting", 0, 0, false);
    private long lastSent;

    @Override
    public void at(Phase phase, long rows, long total) {
      stand = new Stand(phase.name().toLowerCase(java.util.Locale.ROOT), rows, total, false);
      long now = System.nanoTime();
      if (now - lastSent > PAUSE_NANOS || rows == total) {
        lastSent = now;
        send();
      }
    }

    @Override
    public boolean stopped() {
      return stopped.get();
    }

    private void send() {
      for (SseEmitter listener : listeners) {
        try {
          listener.send(SseEmitter.event().name("stand").data(stand));
        } catch (IOException | IllegalStateException e) {
          listeners.remove(listener);
        }
      }
    }

    private void end() {
      stand = new Stand(stand.phase(), stand.rows(), stand.total(), true);
      send();
      listeners.forEach(SseEmitter::complete);
    }
  }

  /** A task that is told how to report and when to stop. */
  interface Task {
    void go(Progress progress);
  }

  void start(long id, Task task) {
    Job job = new Job();
    going.put(id, job);
    pool.submit(
        () -> {
          try {
            task.go(job);
          } finally {
            going.remove(id);
            job.end();
          }
        });
  }

  boolean isGoing(long id) {
    return going.containsKey(id);
  }

  void stop(long id) {
    Job job = going.get(id);
    if (job != null) {
      job.stopped.set(true);
    }
  }

  /** Server-sent events named {@code stand}; the last one says that it is finished. */
  SseEmitter listen(long id) {
    SseEmitter emitter = new SseEmitter(0L);
    Job job = going.get(id);
    try {
      if (job == null) {
        emitter.send(SseEmitter.event().name("stand").data(new Stand("done", 0, 0, true)));
        emitter.complete();
      } else {
        job.listeners.add(emitter);
        emitter.onCompletion(() -> job.listeners.remove(emitter));
        emitter.send(SseEmitter.event().name("stand").data(job.stand));
        if (!going.containsKey(id)) {
          emitter.send(SseEmitter.event().name("stand").data(job.stand));
          emitter.complete();
        }
      }
    } catch (IOException | IllegalStateException e) {
      emitter.complete();
    }
    return emitter;
  }

  @PreDestroy
  void close() {
    going.keySet().forEach(this::stop);
    pool.shutdown();
  }
}
