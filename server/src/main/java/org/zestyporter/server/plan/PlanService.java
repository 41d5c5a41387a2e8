package org.zestyporter.server.plan;

import java.time.Clock;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.ToldLink;
import org.zestyporter.core.application.jdbc.Database;
import org.zestyporter.core.draft.ProposedTable;
import org.zestyporter.core.draft.Redraft;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanJson;
import org.zestyporter.core.run.OpenedPlan;
import org.zestyporter.core.run.Remembered;
import org.zestyporter.core.source.FileChange;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.connection.CheckService;
import org.zestyporter.server.connection.ConnectionService;
import org.zestyporter.server.connection.UsesConnections;
import org.zestyporter.server.phrasebook.PhrasebookService;
import org.zestyporter.server.source.SourceService;
import org.zestyporter.server.source.UsesSources;
import org.zestyporter.server.web.Asked;
import org.zestyporter.server.web.Deletion;
import org.zestyporter.server.web.Times;

/** Keeps plans with their revisions and proposes them for files. */
@Service
public class PlanService implements UsesConnections, UsesSources {
  private final PlanMapper plans;
  private final SourceService sources;
  private final ConnectionService connections;
  private final CheckService checks;
  private final PhrasebookService phrasebooks;
  private final FillCache cache;
  private final Drafting drafting;
  private final ObjectProvider<DependsOnPlans> dependents;
  private final Clock clock;
  private final AtomicLong recordsVersion = new AtomicLong();

  /**
   * A plan opened with its file and its table.
   *
   * @param at number of the destination that is shown, from 0
   * @param rows the file's rows with the plan's corrections
   * @param shared phrasebooks and checks beside the plan's own
   */
  public record Opened(
      long id,
      int revision,
      Plan plan,
      int at,
      SourceService.Source source,
      SourceTable rows,
      Database database,
      Shared shared) {
    /** The destination that is shown. */
    public Destination destination() {
      return at == 0 ? plan.shown() : plan.destinations().get(at);
    }

    /** The table that is shown. */
    public TableInfo table() {
      return database.table(destination().table());
    }

    /** The same with another destination shown. */
    public Opened showing(int other) {
      return new Opened(id, revision, plan, other, source, rows, database, shared);
    }

    /** All of it together, as it would be brought in now. */
    public OpenedPlan now(String who) {
      return with(new RunContext(who, LocalDateTime.now(), source.name()));
    }

    public OpenedPlan with(RunContext context) {
      return new OpenedPlan(database, rows, plan, context, shared);
    }
  }

  PlanService(
      PlanMapper plans,
      SourceService sources,
      ConnectionService connections,
      CheckService checks,
      PhrasebookService phrasebooks,
      FillCache cache,
      Drafting drafting,
      ObjectProvider<DependsOnPlans> dependents,
      Clock clock) {
    this.plans = plans;
    this.sources = sources;
    this.connections = connections;
    this.checks = checks;
    this.phrasebooks = phrasebooks;
    this.cache = cache;
    this.drafting = drafting;
    this.dependents = dependents;
    this.clock = clock;
  }

  public List<PlanViews.PlanSummary> all() {
    return plans.all().stream().map(this::summary).toList();
  }

  private PlanViews.PlanSummary summary(PlanRecord record) {
    Plan plan = PlanJson.read(record.document());
    return new PlanViews.PlanSummary(
        record.id(),
        record.name(),
        plan.connection(),
        plan.shownTable(),
        record.sourceId() == null ? null : sources.name(record.sourceId()),
        record.revision(),
        record.savedBy(),
        record.savedAt(),
        record.openedAt());
  }

  PlanRecord record(long id) {
    PlanRecord record = plans.find(id);
    if (record == null) {
      throw ErrorCode.NO_SUCH_PLAN.error("There is no such plan any more.");
    }
    return record;
  }

  /** A plan's name. */
  public String name(long id) {
    return record(id).name();
  }

  /** What is known of a plan without looking at its file or its table. */
  public record Outline(long id, int revision, long source) {}

  public Outline outline(long id) {
    PlanRecord record = record(id);
    return new Outline(id, record.revision(), record.sourceId());
  }

  /** A plan as it was at a revision. */
  public Plan revision(long id, int revision) {
    return PlanJson.read(plans.document(id, revision));
  }

  @Override
  public List<String> writingTo(String connection) {
    return plans.all().stream()
        .filter(r -> connection.equals(PlanJson.read(r.document()).connection()))
        .map(r -> "the plan “" + r.name() + "” writes to it")
        .toList();
  }

  @Override
  public @Nullable String goingOn(String connection) {
    return plans.all().stream()
        .filter(r -> connection.equals(PlanJson.read(r.document()).connection()))
        .map(r -> goingOn(r.id()))
        .filter(Objects::nonNull)
        .findFirst()
        .orElse(null);
  }

  private @Nullable String goingOn(long id) {
    return dependents.stream()
        .map(d -> d.goingOn(id))
        .filter(Objects::nonNull)
        .findFirst()
        .orElse(null);
  }

  @Override
  public List<String> reading(long source) {
    return plans.reading(source).stream().map(name -> "the plan “" + name + "”").toList();
  }

  /** What deleting a plan means. */
  public Deletion deletion(long id) {
    record(id);
    List<String> goes =
        dependents.stream().map(d -> d.goesWith(id)).filter(Objects::nonNull).toList();
    return new Deletion(goes, List.of(), goingOn(id));
  }

  @Transactional
  public void delete(long id) {
    deletion(id).require();
    dependents.forEach(d -> d.drop(id));
    plans.dropRevisions(id);
    plans.drop(id);
  }

  /** Opens a plan with the file it was last used with. */
  public Opened open(long id) {
    return open(id, 0);
  }

  /**
   * Opens one of the tables of a plan, with the file that it was last used with.
   *
   * @param at number of the destination, from 0
   * @throws PorterException with code {@code no-such-table} if the plan has fewer
   */
  public Opened open(long id, int at) {
    PlanRecord record = record(id);
    return open(
        new Outline(id, record.revision(), record.sourceId()),
        PlanJson.read(record.document()),
        at);
  }

  /** Opens a plan as it was when its outline was taken. */
  public Opened open(Outline outline) {
    return open(outline, revision(outline.id(), outline.revision()), 0);
  }

  private static void requireTable(Plan plan, int at) {
    int tables = plan.destinations().size();
    if (at != 0 && (at < 0 || at >= tables)) {
      throw ErrorCode.NO_SUCH_TABLE.error(
          "This plan fills " + tables + (tables == 1 ? " table" : " tables") + " by now.");
    }
  }

  private Opened open(Outline outline, Plan plan, int at) {
    requireTable(plan, at);
    return new Opened(
        outline.id(),
        outline.revision(),
        plan,
        at,
        sources.find(outline.source()),
        cache.corrected(sources.table(outline.source(), plan.reading()), plan.corrections()),
        connections.database(plan.connection()).with(plan.links()),
        new Shared(phrasebooks.forPlans(), checks.of(plan.connection())));
  }

  /** Another number once records were changed from here. */
  public long recordsVersion() {
    return recordsVersion.get();
  }

  /** What is kept of a plan's rows, and of records, while somebody edits it. */
  public Remembered remembered(Opened opened, String who) {
    return cache.remembered(opened, who);
  }

  /** Forgets what was computed: the application's records have changed. */
  public void recordsChanged() {
    recordsVersion.incrementAndGet();
    cache.forget();
    drafting.forget();
  }

  /** Counts the rows that a run translated by shared phrasebooks. */
  public void countPhrases(Opened opened, String who) {
    PhraseUse.count(opened, who).forEach(phrasebooks::used);
  }

  /** Names of the plans that use a phrasebook. */
  public List<PlanViews.BookUse> using(String book) {
    List<PlanViews.BookUse> uses = new ArrayList<>();
    for (PlanRecord record : plans.all()) {
      Plan plan = PlanJson.read(record.document());
      plan.destinations().stream()
          .flatMap(d -> d.fills().stream().map(f -> new Object[] {d.table(), f}))
          .filter(p -> new Phrasebook(book, null).isUsedBy((Fill) p[1]))
          .forEach(
              p ->
                  uses.add(
                      new PlanViews.BookUse(
                          record.id(), record.name(), (String) p[0], ((Fill) p[1]).field())));
    }
    return uses;
  }

  /** The plan's file under another reading. */
  SourceTable tryReading(long id, Reading reading) {
    return sources.table(record(id).sourceId(), reading);
  }

  /** The first lines of the plan's file, if it is text, before they are parted into cells. */
  List<String> text(long id, int lines) {
    Opened opened = open(id);
    return sources.text(opened.source().id(), opened.rows().reading(), lines);
  }

  /** Drafts a plan for a file and a table. */
  @Transactional
  public long create(PlanViews.NewPlan wanted, String who) {
    SourceService.Source source = sources.find(wanted.source());
    Database database =
        drafting.database(
            Asked.text("The name of a connection", wanted.connection(), 60), drafting.earlier());
    Asked.text("The name of a table", wanted.table(), 200);
    SourceTable rows = sources.table(source.id(), Reading.FIND);
    TableInfo table = database.table(wanted.table());
    List<ToldLink> links = database.links().stream().filter(l -> l.isOf(table)).toList();
    ProposedTable draft = drafting.draft(database, rows, wanted.connection(), wanted.table(), null);
    List<Destination> destinations = new ArrayList<>(List.of(draft.destination()));
    DraftEvidence evidence = DraftEvidence.of(draft.evidence());
    if (Boolean.TRUE.equals(wanted.besides())) {
      for (ProposedTable further : drafting.besides(database, rows, draft)) {
        destinations.add(further.destination());
        evidence = evidence.with(further.destination().label(), further.evidence());
      }
    }
    Plan plan =
        new Plan(
                title(source.name()),
                wanted.connection(),
                Reading.FIND.withColumns(FileChange.shape(rows)),
                destinations,
                null)
            .withLinks(links);
    PlanRecord record =
        new PlanRecord(
            null,
            plan.name(),
            source.id(),
            1,
            PlanJson.write(plan),
            evidence.write(),
            PlanJson.MAPPER.writeValueAsString(draft.destination()),
            PlanJson.MAPPER.writeValueAsString(source.columns()),
            who,
            Times.now(clock),
            Times.now(clock));
    long id = plans.insert(record);
    plans.insertRevision(with(record, id));
    return id;
  }

  private static PlanRecord with(PlanRecord r, long id) {
    return new PlanRecord(
        id,
        r.name(),
        r.sourceId(),
        r.revision(),
        r.document(),
        r.evidenceJson(),
        r.draftedJson(),
        r.columnsJson(),
        r.savedBy(),
        r.savedAt(),
        r.openedAt());
  }

  /** A plan's name from a file's: winter-arrivals.xlsx gives Winter arrivals. */
  static String title(String fileName) {
    String bare =
        fileName.replaceFirst("\\.[A-Za-z0-9]{1,5}$", "").replaceAll("[-_]+", " ").strip();
    String cut = bare.length() > 100 ? bare.substring(0, 100) + "…" : bare;
    return cut.isEmpty()
        ? "New plan"
        : cut.substring(0, 1).toUpperCase(Locale.ROOT) + cut.substring(1);
  }

  /**
   * Gives a plan another file.
   *
   * @throws PorterException if the plan's reading does not fit the file; the plan keeps its old one
   */
  public void useSource(long id, long sourceId) {
    Plan plan = PlanJson.read(record(id).document());
    SourceService.Source source = sources.find(sourceId);
    sources.table(sourceId, plan.reading());
    plans.useSource(
        id, sourceId, PlanJson.MAPPER.writeValueAsString(source.columns()), Times.now(clock));
  }

  /** Notes that a plan was opened. */
  public void opened(long id) {
    plans.opened(id, Times.now(clock));
  }

  /**
   * Saves a plan over the revision that it was made from. Where its file is read otherwise than
   * before, fields that nobody has changed since the last draft follow a new one.
   *
   * @param at number of the destination that is to be shown then
   * @return fields that are filled otherwise than was wanted
   * @throws PorterException with code {@code changed-meanwhile} if somebody has saved since; with
   *     {@code no-such-table} if it has fewer destinations
   */
  @Transactional
  public List<String> save(long id, PlanViews.SavePlan wanted, int at, String who) {
    PlanRecord old = record(id);
    if (wanted.plan() == null) {
      throw ErrorCode.NO_PLAN.error("There is no plan in the request.");
    }
    requireTable(wanted.plan(), at);
    Asked.text("A plan's name", wanted.plan().name(), 120);
    // settings that can't be read are refused before anything is kept
    SourceTable rows = sources.table(old.sourceId(), wanted.plan().reading());
    Drafting.Drafted drafted = drafting.anew(old, wanted.plan(), rows);
    PlanRecord next =
        new PlanRecord(
            id,
            wanted.plan().name(),
            old.sourceId(),
            wanted.revision() + 1,
            PlanJson.write(withColumns(drafted.plan(), old, rows)),
            drafted.evidenceJson(),
            drafted.draftedJson(),
            old.columnsJson(),
            who,
            Times.now(clock),
            old.openedAt());
    if (plans.save(next) == 0) {
      throw ErrorCode.CHANGED_MEANWHILE.error(
          old.savedBy()
              + " saved this plan meanwhile (revision "
              + old.revision()
              + "). Your last change is not in it.");
    }
    plans.insertRevision(next);
    return drafted.followed();
  }

  /**
   * A plan that remembers the columns which its file has once somebody reads it otherwise: they are
   * unlike those of another file only if one that is used is gone, or called otherwise.
   */
  private Plan withColumns(Plan plan, PlanRecord old, SourceTable rows) {
    Reading before = PlanJson.read(old.document()).reading();
    Reading reading = plan.reading();
    if (before.columns() == null
        || reading.columns() == null
        || !Redraft.isDue(before, reading)
        || !FileChange.compare(before.columns(), sources.table(old.sourceId(), before)).isEmpty()) {
      return plan;
    }
    Set<String> used =
        plan.destinations().stream()
            .flatMap(Destination::columnsRead)
            .map(name -> name.toLowerCase(Locale.ROOT))
            .collect(Collectors.toSet());
    boolean lacks =
        FileChange.compare(reading.columns(), rows).stream()
            .filter(c -> c.kind() == FileChange.Kind.RENAMED || c.kind() == FileChange.Kind.GONE)
            .anyMatch(c -> used.contains(c.before().name().toLowerCase(Locale.ROOT)));
    return lacks ? plan : plan.withReading(reading.withColumns(FileChange.shape(rows)));
  }
}
