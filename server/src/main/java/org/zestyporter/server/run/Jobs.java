package org.zestyporter.server.run;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import org.zestyporter.core.run.Progress;

/** Rehearsals, runs and undos that are going, and who listens to them. */
@Component
class Jobs {
  private static final long PAUSE_MILLIS = 200;

  /** Keeps connections open through whatever lies in between. */
  private static final long BEAT_SECONDS = 20;

  /** More than are computed at a time, since some of them wait for others. */
  private static final int AT_A_TIME = 6;

  private static final int MOST_LISTENERS = 500;

  private final ExecutorService pool = Executors.newFixedThreadPool(AT_A_TIME, Jobs::daemon);
  private final ScheduledExecutorService teller =
      Executors.newSingleThreadScheduledExecutor(Jobs::daemon);
  private final Map<Long, Job> going = new ConcurrentHashMap<>();
  private final List<SseEmitter> listeners = new CopyOnWriteArrayList<>();
  private final AtomicBoolean toTell = new AtomicBoolean();

  /** What goes on no longer since the server ends, and not since somebody stopped it. */
  private final Set<Long> ended = ConcurrentHashMap.newKeySet();

  /** A task that is told how to report and when to stop. */
  interface Task {
    void go(Progress progress);
  }

  Jobs() {
    teller.scheduleWithFixedDelay(this::tell, BEAT_SECONDS, BEAT_SECONDS, TimeUnit.SECONDS);
  }

  private static Thread daemon(Runnable task) {
    Thread thread = new Thread(task, "porter-job");
    thread.setDaemon(true);
    return thread;
  }

  void start(Job.About about, Task task) {
    Job job = new Job(about, this::moved);
    going.put(about.id(), job);
    moved();
    pool.submit(
        () -> {
          try {
            task.go(job);
          } finally {
            going.remove(about.id());
            moved();
          }
        });
  }

  /** Gives a job the number of its run. */
  void number(long id, String number) {
    Job job = going.get(id);
    if (job != null) {
      job.number(number);
    }
  }

  boolean isGoing(long id) {
    return going.containsKey(id);
  }

  void stop(long id) {
    Job job = going.get(id);
    if (job != null) {
      job.stop();
    }
  }

  /** True if it was stopped because the server ends. */
  boolean isEnded(long id) {
    return ended.contains(id);
  }

  /** All that is going, the one that began first first. */
  List<Job.Stand> all() {
    return going.values().stream()
        .sorted(Comparator.comparingLong(Job::id))
        .map(Job::stand)
        .toList();
  }

  /** Something has come further; it is told a little later, together with what comes meanwhile. */
  private void moved() {
    if (!toTell.getAndSet(true)) {
      try {
        teller.schedule(this::tell, PAUSE_MILLIS, TimeUnit.MILLISECONDS);
      } catch (RejectedExecutionException e) {
        // the server ends, and nobody listens any more
      }
    }
  }

  private void tell() {
    toTell.set(false);
    List<Job.Stand> all = all();
    for (SseEmitter listener : listeners) {
      send(listener, all);
    }
  }

  private void send(SseEmitter listener, List<Job.Stand> all) {
    try {
      listener.send(SseEmitter.event().name("work").data(all));
    } catch (IOException | IllegalStateException e) {
      listeners.remove(listener);
    }
  }

  /** Server-sent events named {@code work}: all that is going, as often as anything moves. */
  SseEmitter listen() {
    while (listeners.size() >= MOST_LISTENERS) {
      // the page that has listened longest will ask again
      listeners.remove(0).complete();
    }
    SseEmitter emitter = new SseEmitter(0L);
    emitter.onCompletion(() -> listeners.remove(emitter));
    emitter.onError(e -> listeners.remove(emitter));
    emitter.onTimeout(emitter::complete);
    send(emitter, all());
    listeners.add(emitter);
    return emitter;
  }

  /** Pages that listen would keep the server from ending. */
  @EventListener(ContextClosedEvent.class)
  void ends() {
    for (Job job : going.values()) {
      if (!job.stopped()) {
        ended.add(job.id());
        job.stop();
      }
    }
    teller.shutdownNow();
    for (SseEmitter listener : listeners) {
      try {
        listener.complete();
      } catch (IllegalStateException e) {
        // it has gone by itself
      }
    }
    listeners.clear();
  }

  @PreDestroy
  void close() {
    pool.shutdown();
  }
}
