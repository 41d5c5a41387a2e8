package org.zestyporter.server.plan;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.stereotype.Component;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.draft.PlanDraft;
import org.zestyporter.core.draft.ProposedTable;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.source.ReturnTitles;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.connection.ConnectionService;
import org.zestyporter.server.source.SourceService;

/** Tells what can be done with a file that was brought in. */
@Component
class Proposals {
  private static final int MOST = 5;

  /** Tables that are drafted for: of the connection that is asked for, of each other one. */
  private static final int DRAFTED = 4;

  private static final int DRAFTED_ELSEWHERE = 2;
  private static final long PATIENCE_SECONDS = 3;

  private final PlanMapper plans;
  private final SourceService sources;
  private final ConnectionService connections;
  private final Drafting drafting;
  private final ObjectProvider<DependsOnPlans> dependents;

  Proposals(
      PlanMapper plans,
      SourceService sources,
      ConnectionService connections,
      Drafting drafting,
      ObjectProvider<DependsOnPlans> dependents) {
    this.dependents = dependents;
    this.drafting = drafting;
    this.plans = plans;
    this.sources = sources;
    this.connections = connections;
  }

  /**
   * What can be done with a file, best first: plans that fit it, then tables of the connection,
   * then those of others that fit better, where none of these fits well. A connection that can't be
   * reached keeps none of the others from being proposed.
   *
   * @throws PorterException if the connection can't be reached and nothing else is proposed
   */
  List<PlanViews.Proposal> of(long sourceId, String connection) {
    List<PlanViews.Proposal> proposals = new ArrayList<>(plansThatFit(sources.find(sourceId)));
    PlanViews.Proposal returned = returned(sources.find(sourceId).columns());
    if (returned != null) {
      proposals.removeIf(p -> returned.plan().equals(p.plan()));
      proposals.add(0, returned);
    }
    SourceTable rows = sources.table(sourceId, Reading.FIND);
    List<Plan> earlier = drafting.earlier();
    List<PlanViews.Proposal> drafts = new ArrayList<>();
    PorterException unreached = null;
    try {
      drafts.addAll(drafts(connection, earlier, rows, DRAFTED));
    } catch (PorterException e) {
      unreached = e;
    }
    int most = drafts.isEmpty() ? 0 : drafts.get(0).columns();
    if (most * 5 < rows.columns().size() * 4) {
      elsewhere(connection, earlier, rows).stream()
          .filter(p -> p.columns() > most)
          .forEach(better -> drafts.add(0, better));
    }
    proposals.addAll(drafts);
    if (proposals.isEmpty() && unreached != null) {
      throw unreached;
    }
    return proposals.subList(0, Math.min(MOST, proposals.size()));
  }

  /** The plan of the run whose rejected rows a file brings back; null if it brings none back. */
  private PlanViews.@Nullable Proposal returned(List<String> columns) {
    String run = ReturnTitles.runOf(columns);
    if (run == null) {
      return null;
    }
    for (DependsOnPlans dependent : dependents) {
      Long plan = dependent.planOf(run);
      PlanRecord record = plan == null ? null : plans.find(plan);
      if (record != null) {
        return new PlanViews.Proposal(
            plan,
            record.name(),
            null,
            PlanJson.read(record.document()).shownTable(),
            columns.size(),
            columns.size(),
            "brings back what " + run + " rejected",
            null);
      }
    }
    return null;
  }

  /** The best table of each other connection, as far as they answer in time; the newest first. */
  private List<PlanViews.Proposal> elsewhere(
      String connection, List<Plan> earlier, SourceTable rows) {
    List<CompletableFuture<List<PlanViews.Proposal>>> asked =
        connections.newestWritable().stream()
            .filter(c -> !c.equals(connection))
            .map(
                c ->
                    CompletableFuture.supplyAsync(() -> best(c, earlier, rows))
                        .completeOnTimeout(List.of(), PATIENCE_SECONDS, TimeUnit.SECONDS))
            .toList();
    return asked.stream()
        .flatMap(answer -> answer.join().stream())
        .sorted(Comparator.comparingInt(PlanViews.Proposal::columns))
        .toList();
  }

  /** The best table of a connection; none if it can't be reached. */
  private List<PlanViews.Proposal> best(String connection, List<Plan> earlier, SourceTable rows) {
    try {
      return drafts(connection, earlier, rows, DRAFTED_ELSEWHERE).stream().limit(1).toList();
    } catch (PorterException e) {
      return List.of();
    }
  }

  private List<PlanViews.Proposal> drafts(
      String connection, List<Plan> earlier, SourceTable rows, int most) {
    int columns = rows.columns().size();
    Database database = drafting.database(connection, earlier);
    PlanDraft drafts = drafting.draft(database, rows);
    List<PlanViews.Proposal> proposals = new ArrayList<>();
    for (ProposedTable draft : ProposedTable.worthwhile(drafts.rank(most), columns)) {
      boolean isBest = proposals.isEmpty();
      List<ProposedTable> children = isBest ? drafts.children(draft) : List.of();
      proposals.add(proposal(connection, draft, besides(children), columns));
    }
    return proposals;
  }

  private static PlanViews.@Nullable Besides besides(List<ProposedTable> children) {
    return children.isEmpty()
        ? null
        : new PlanViews.Besides(
            children.stream().map(c -> c.destination().label()).toList(),
            children.stream().mapToInt(c -> (int) c.columnsUsed()).sum());
  }

  private static PlanViews.Proposal proposal(
      String connection, ProposedTable draft, PlanViews.@Nullable Besides besides, int columns) {
    return new PlanViews.Proposal(
        null,
        "New plan",
        connection,
        draft.destination().table(),
        (int) draft.columnsUsed(),
        columns,
        draft.columnsUsed() + " of " + columns + " columns find a field",
        besides);
  }

  private List<PlanViews.Proposal> plansThatFit(SourceService.Source source) {
    TreeSet<String> columns = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    columns.addAll(source.columns());
    List<PlanViews.Proposal> proposals = new ArrayList<>();
    for (PlanRecord record : plans.all()) {
      String[] known = PlanJson.MAPPER.readValue(record.columnsJson(), String[].class);
      int same = (int) Arrays.stream(known).filter(columns::contains).count();
      if (known.length > 0 && same * 10 >= known.length * 7) {
        proposals.add(
            new PlanViews.Proposal(
                record.id(),
                record.name(),
                null,
                PlanJson.read(record.document()).shownTable(),
                same,
                columns.size(),
                same + " of " + columns.size() + " headings the same as last time",
                null));
      }
    }
    proposals.sort(Comparator.comparingInt(p -> -p.columns()));
    return proposals;
  }
}
