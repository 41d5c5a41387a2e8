package org.zestyporter.server.kill;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.springframework.boot.WebApplicationType;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.RunSettings;
import org.zestyporter.core.undo.Decisions;
import org.zestyporter.core.undo.Edited;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.PorterServer;
import org.zestyporter.server.connection.ConnectionService;
import org.zestyporter.server.connection.ConnectionSettings;
import org.zestyporter.server.plan.PlanService;
import org.zestyporter.server.plan.PlanViews;
import org.zestyporter.server.run.RunService;
import org.zestyporter.server.run.UndoService;
import org.zestyporter.server.source.SourceService;

/**
 * A server without a web that makes one run after the other until it is killed. It says on standard
 * output what became of all runs that it finds, and when it begins and ends each of its own.
 */
final class KilledServer {
  static final int ROWS = 300;

  /** Rows of a run in batches, so that it has five of them. */
  static final int BATCH_ROWS = 18_000;

  private static final String WHO = "odile";
  private static final String CONNECTION = "theirs";

  private final RunService runs;
  private final UndoService undos;
  private final PlanService plans;
  private final SourceService sources;
  private final ConnectionService connections;

  private KilledServer(ConfigurableApplicationContext context) {
    runs = context.getBean(RunService.class);
    undos = context.getBean(UndoService.class);
    plans = context.getBean(PlanService.class);
    sources = context.getBean(SourceService.class);
    connections = context.getBean(ConnectionService.class);
  }

  public static void main(String[] arguments) throws Exception {
    ConfigurableApplicationContext context =
        new SpringApplicationBuilder(PorterServer.class)
            .web(WebApplicationType.NONE)
            .logStartupInfo(false)
            .properties(Map.of("porter.home", arguments[0]))
            .run();
    KilledServer server = new KilledServer(context);
    server.tell();
    int first = Integer.parseInt(arguments[2]);
    if (Boolean.parseBoolean(arguments[3])) {
      server.goInBatches(arguments[1]);
    } else {
      server.go(arguments[1], first);
    }
  }

  /**
   * Starts one in a process of its own.
   *
   * @param first number of the first file that it brings in
   * @param inBatches true if its runs are in batches, and go on if they were cut off
   */
  static Process start(Path home, String url, int first, boolean inBatches) throws IOException {
    return new ProcessBuilder(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            "-XX:+UseSerialGC",
            "-XX:TieredStopAtLevel=1",
            "-Xmx256m",
            "-cp",
            System.getProperty("java.class.path"),
            KilledServer.class.getName(),
            home.toString(),
            url,
            Integer.toString(first),
            Boolean.toString(inBatches))
        .redirectError(ProcessBuilder.Redirect.INHERIT)
        .start();
  }

  /** Waits until every run is settled, then says what became of each. */
  private void tell() throws InterruptedException {
    List<RunService.RunView> all = runs.newest(1_000);
    for (int i = 0; i < 1_200 && all.stream().anyMatch(r -> isOpen(r.state())); i++) {
      Thread.sleep(100);
      all = runs.newest(1_000);
    }
    for (RunService.RunView run : all) {
      System.out.println(
          "FOUND "
              + run.source()
              + " "
              + run.kind()
              + " "
              + run.state()
              + " "
              + run.code()
              + " "
              + run.rowsStanding());
    }
    System.out.println("TOLD");
    System.out.flush();
  }

  private static boolean isOpen(String state) {
    return state.equals("going") || state.equals("committing");
  }

  /** Who signs in to the database of an address, without a password that matters. */
  static String user(String url) {
    return url.startsWith("jdbc:mariadb:") ? "root" : "postgres";
  }

  private void connect(String url) {
    if (connections.all().isEmpty()) {
      String product = url.startsWith("jdbc:mariadb:") ? "MariaDB" : "PostgreSQL";
      connections.add(
          CONNECTION,
          new ConnectionService.Wanted(product, url, user(url), "", ConnectionSettings.USUAL));
    }
  }

  private void go(String url, int first) throws Exception {
    connect(url);
    for (int batch = first; ; batch++) {
      long source = bring(batch, ROWS);
      List<PlanViews.PlanSummary> known = plans.all();
      long plan =
          known.isEmpty()
              ? plans.create(new PlanViews.NewPlan(source, CONNECTION, "thing", null), WHO)
              : known.get(0).id();
      if (!known.isEmpty()) {
        plans.useSource(plan, source);
      }
      System.out.println("BEGIN " + batch);
      System.out.flush();
      RunService.RunView run = ended(runs.run(plan, WHO));
      System.out.println("END " + batch + " " + run.state());
      System.out.flush();
      if (batch % 2 == 0) {
        // each second one is taken back, which may be cut off as well
        System.out.println("BEGIN " + batch);
        System.out.flush();
        ended(undos.undo(run.id(), Decisions.all(Edited.KEEP), WHO));
      }
    }
  }

  private RunService.RunView ended(RunService.RunView begun) throws InterruptedException {
    RunService.RunView run = begun;
    while (isOpen(run.state())) {
      Thread.sleep(5);
      run = runs.find(begun.id());
    }
    return run;
  }

  /** Makes runs in batches; the database may be away now and then. */
  private void goInBatches(String url) throws Exception {
    connect(url);
    // until it was looked at what stands
    System.in.read();
    System.out.println("BEGIN");
    System.out.flush();
    while (true) {
      try {
        List<RunService.RunView> all = runs.newest(1);
        boolean goesOn = !all.isEmpty() && all.get(0).state().equals("interrupted");
        RunService.RunView run =
            ended(goesOn ? runs.resume(all.get(0).id()) : runs.run(planOf(nextFile()), WHO));
        System.out.println("ENDED " + run.state());
        System.out.flush();
      } catch (PorterException e) {
        Thread.sleep(50);
      }
    }
  }

  /** The number after that of the last file that was brought in. */
  private int nextFile() {
    return 1
        + runs.newest(1_000).stream()
            .filter(r -> r.state().equals("done"))
            .mapToInt(r -> Integer.parseInt(r.source().replace(".csv", "")))
            .max()
            .orElse(0);
  }

  private long planOf(int file) throws Exception {
    long source = bring(file, BATCH_ROWS);
    if (plans.all().isEmpty()) {
      long plan = plans.create(new PlanViews.NewPlan(source, CONNECTION, "thing", null), WHO);
      Plan made = plans.revision(plan, 1);
      RunSettings settings = made.run().withMode(RunSettings.Mode.BATCHES).withBatchRows(1);
      plans.save(plan, new PlanViews.SavePlan(1, made.withRun(settings)), 0, WHO);
      return plan;
    }
    long plan = plans.all().get(0).id();
    plans.useSource(plan, source);
    return plan;
  }

  private long bring(int batch, int rows) throws Exception {
    StringBuilder text = new StringBuilder("batch;nr;name\n");
    for (int i = 1; i <= rows; i++) {
      text.append(batch).append(';').append(i).append(";name ").append(i * 31 % 997).append('\n');
    }
    return sources
        .bring(
            batch + ".csv",
            new ByteArrayInputStream(text.toString().getBytes(StandardCharsets.UTF_8)),
            WHO)
        .id();
  }
}
