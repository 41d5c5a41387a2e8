package org.zestyporter.core.run;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.Application;
import org.zestyporter.core.application.Ask;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.Lookups;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.fill.Asking;
import org.zestyporter.core.fill.BatchRow;
import org.zestyporter.core.fill.CompiledFill;
import org.zestyporter.core.fill.FillCompiler;
import org.zestyporter.core.fill.Inquiry;
import org.zestyporter.core.fill.LinkKey;
import org.zestyporter.core.fill.Phrases;
import org.zestyporter.core.fill.RecordTest;
import org.zestyporter.core.fill.Rules;
import org.zestyporter.core.fill.RunContext;
import org.zestyporter.core.fill.Shared;
import org.zestyporter.core.formula.Condition;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanCheck;
import org.zestyporter.core.source.Rows;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.cache.Batch;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.ValueColumn;

/**
 * What a plan, a source and an application make together: corrected rows, tables, compiled fills
 * with all that they have to know of the application's records, phrasebooks, checks.
 *
 * <p>Whoever shows or brings in anything of a plan goes through this, so that nothing is corrected,
 * compiled or looked up in two ways.
 *
 * <pre>{@code
 * OpenedPlan opened = new OpenedPlan(application, source, plan, context, Shared.NONE);
 * List<CompiledFill> fills = opened.fills(plan.shown());
 * }</pre>
 */
public final class OpenedPlan {
  private final Application application;
  private final Lookups lookups;
  private final SourceTable source;
  private final Plan plan;
  private final RunContext context;
  private final Shared shared;
  private final Phrases phrases;

  /**
   * @param source the file's rows; the plan's corrections are made on them
   * @param shared phrasebooks and checks beside the plan's own
   */
  public OpenedPlan(
      Application application, SourceTable source, Plan plan, RunContext context, Shared shared) {
    this.application = application.with(plan.links());
    this.lookups = this.application;
    this.source = source.corrected(plan.corrections());
    this.plan = plan;
    this.context = context;
    this.shared = shared;
    this.phrases = shared.phrases(plan);
  }

  private OpenedPlan(OpenedPlan of, Application application, Lookups lookups) {
    this.application = application;
    this.lookups = lookups;
    this.source = of.source;
    this.plan = of.plan;
    this.context = of.context;
    this.shared = of.shared;
    this.phrases = of.phrases;
  }

  /** The same with the look-ups of another application or session. */
  OpenedPlan through(Application other, Lookups others) {
    return new OpenedPlan(this, other, others);
  }

  public Application application() {
    return application;
  }

  /** What its look-ups go through: the application, or the session of a run. */
  Lookups lookups() {
    return lookups;
  }

  /** The file's rows with the plan's corrections. */
  public SourceTable source() {
    return source;
  }

  public Plan plan() {
    return plan;
  }

  public RunContext context() {
    return context;
  }

  public Shared shared() {
    return shared;
  }

  public TableInfo table(Destination destination) {
    return application.table(destination.table());
  }

  /** Everything that keeps a destination from being filled; empty if nothing does. */
  public List<PlanCheck.Matter> matters(Destination destination) {
    List<PlanCheck.Matter> matters =
        new ArrayList<>(
            PlanCheck.check(
                destination,
                table(destination),
                source.columns(),
                phrases::has,
                parentField(destination)));
    for (Consumer<Destination> condition :
        List.<Consumer<Destination>>of(this::among, this::where)) {
      try {
        condition.accept(destination);
      } catch (PorterException e) {
        matters.add(new PlanCheck.Matter(e.code(), null, e.getMessage()));
      }
    }
    matters.addAll(PlanCheck.places(plan, destination, source.columns(), application::table));
    matters.addAll(ofLinks(destination, matters));
    return matters;
  }

  /** What keeps links from being looked up, or records from being made for them. */
  private List<PlanCheck.Matter> ofLinks(Destination destination, List<PlanCheck.Matter> others) {
    TableInfo table = table(destination);
    List<String> bad = others.stream().map(PlanCheck.Matter::field).toList();
    List<PlanCheck.Matter> matters = new ArrayList<>();
    for (Fill fill : destination.fills()) {
      FieldInfo field = table.find(fill.field());
      boolean isLink = fill.origin() instanceof Origin.Linked;
      if (isLink && field != null && !bad.contains(field.name())) {
        try {
          compiler().compile(fill, field, table);
        } catch (PorterException e) {
          matters.add(
              new PlanCheck.Matter(e.code(), field.name(), field.name() + ": " + e.getMessage()));
        }
      }
    }
    return matters;
  }

  /** The field that takes a parent's key; null if there is none, or it can't be told. */
  public @Nullable String parentField(Destination destination) {
    FieldInfo field = PlanCheck.parentField(plan, destination, application::table);
    return field == null ? null : field.name();
  }

  /** Throws if anything keeps one of the destinations from being filled, or the plan from going. */
  public void require() {
    plan.run().require();
    plan.destinations().forEach(d -> PlanCheck.require(matters(d)));
  }

  /** The checks of a destination's table that this plan does not pass over. */
  public Rules rules(Destination destination) {
    TableInfo table = table(destination);
    return new Rules(shared.checksOf(table.name()), destination.checksOff(), table, context);
  }

  /** Which records a destination's match keys look for; null for all. */
  @Nullable RecordTest among(Destination destination) {
    return destination.among() == null
        ? null
        : new RecordTest(destination.among(), table(destination), context);
  }

  /** The phrasebooks that a fill translates by, or the records that it makes. */
  public List<Phrasebook> books(Fill fill) {
    List<Phrasebook> books = new ArrayList<>(shared.phrasebooks());
    books.addAll(plan.phrasebooks());
    Origin.Link link = fill.origin() == null ? null : fill.origin().link();
    Stream<Fill> all =
        Stream.concat(Stream.of(fill), link == null ? Stream.empty() : link.create().stream());
    List<Fill> translating = all.toList();
    return books.stream().filter(b -> translating.stream().anyMatch(b::isUsedBy)).toList();
  }

  /** The phrasebooks by which the condition of a destination translates. */
  List<Phrasebook> booksOfCondition(Destination destination) {
    String where = destination.where();
    return where == null
        ? List.of()
        : Stream.concat(shared.phrasebooks().stream(), plan.phrasebooks().stream())
            .filter(b -> b.isNamedIn(where))
            .toList();
  }

  /** Indexes of the columns that tell which rows go to a destination, and in which parts. */
  List<Integer> columnsThatSelect(Destination destination) {
    List<Integer> columns = new ArrayList<>();
    if (destination.where() != null) {
      Formula.columnsOf(destination.where()).forEach(c -> columns.add(source.column(c)));
    }
    if (destination.split() != null) {
      columns.add(splitColumn(destination));
    }
    return columns;
  }

  /** All fills of a destination that are not left to the database, ready to compute every row. */
  public List<CompiledFill> fills(Destination destination) {
    return fills(destination, key -> false);
  }

  /**
   * The same, with links that may await records.
   *
   * @param made tells whether rows may make records that are looked up so
   */
  List<CompiledFill> fills(Destination destination, Predicate<LinkKey> made) {
    List<CompiledFill> fills = compiler().awaiting(made).compile(destination, table(destination));
    answerAll(destination, fills);
    return fills;
  }

  /** Tells which rows go to a destination; null if all do. */
  private @Nullable Condition where(Destination destination) {
    return destination.where() == null
        ? null
        : compiler().condition(destination.where(), destination.label());
  }

  /** The rows that go to a destination, and their parts. */
  Selection selection(Destination destination) {
    Condition where = where(destination);
    return new Selection(where, splitColumn(destination), destination.split(), context);
  }

  /** Index of the column whose cells are parted; -1 if none is. */
  private int splitColumn(Destination destination) {
    return destination.split() == null ? -1 : source.column(destination.split().column());
  }

  /** What of the file's rows goes to a destination: all of it, some rows, or their parts. */
  public Rows rows(Destination destination) {
    if (destination.takesAll()) {
      return source;
    }
    return new SelectedRows(
        source, selection(destination), columnsThatSelect(destination), splitColumn(destination));
  }

  /** One fill, ready to compute every row. A link knows which records the rows make themselves. */
  public CompiledFill fill(Destination destination, Fill fill) {
    CompiledFill compiled = compile(destination, fill);
    answerAll(destination, List.of(compiled));
    return compiled;
  }

  /** One fill, ready to compute whatever steps may still make of the values, up to a limit. */
  public CompiledFill fillForTrials(Destination destination, Fill fill) {
    CompiledFill compiled = compile(destination, fill);
    Asking asking = new Asking();
    compiled.askForAll(asking);
    answer(asking.inquiries());
    return compiled;
  }

  private CompiledFill compile(Destination destination, Fill fill) {
    MadeRecords made = new MadeRecords(this);
    TableInfo table = table(destination);
    FieldInfo field = table.field(fill.field());
    CompiledFill compiled = compiler().awaiting(made::isMade).compile(fill, field, table);
    if (compiled.awaited() != null) {
      compiled.expect(made.values(compiled.awaited()));
    }
    return compiled;
  }

  /** One fill, ready to compute every row from what the application has, and no more. */
  CompiledFill compileAlone(Destination destination, Fill fill) {
    TableInfo table = table(destination);
    CompiledFill compiled = compiler().compile(fill, table.field(fill.field()), table);
    answerAll(destination, List.of(compiled));
    return compiled;
  }

  /** Fills that can be computed as things stand; those with a matter are left out. */
  public List<Fill> usable(Destination destination) {
    List<String> bad = matters(destination).stream().map(PlanCheck.Matter::field).toList();
    TableInfo table = table(destination);
    List<Fill> usable = new ArrayList<>();
    table
        .fields()
        .forEach(
            field ->
                destination.fills().stream()
                    .filter(f -> f.field().equalsIgnoreCase(field.name()))
                    .filter(f -> bad.stream().noneMatch(f.field()::equalsIgnoreCase))
                    .filter(Fill::isGiven)
                    .forEach(usable::add));
    return usable;
  }

  /** Compiles without asking the application anything but its tables. */
  public FillCompiler compiler() {
    Function<String, TableInfo> tables = application::table;
    return new FillCompiler(tables, source, context, phrases);
  }

  /** Tells fills all that they have to know for the whole source. */
  private void answerAll(Destination destination, List<CompiledFill> fills) {
    Asking asking = new Asking();
    int split = splitColumn(destination);
    for (CompiledFill fill : fills) {
      fill.ask(asking);
      if (fill.looksUp() && fill.columns().contains(split)) {
        askForParts(destination, fill, asking);
      } else if (fill.looksUp()) {
        DistinctRows.visitAll(fill, source, (row, rows) -> fill.ask(row, asking));
      }
    }
    answer(asking.inquiries());
  }

  private void askForParts(Destination destination, CompiledFill fill, Asking asking) {
    Selection selection = selection(destination);
    for (int i = 0; i < source.batches(); i++) {
      Batch parts = selection.of(source.batch(i), null).batch();
      BatchRow row = new BatchRow(parts, context);
      for (int r = 0; r < parts.rows(); r++) {
        fill.ask(row.at(r), asking);
      }
    }
  }

  /** Has inquiries answered, those after all records of a table together. */
  void answer(List<Inquiry> inquiries) {
    Map<TableInfo, List<Inquiry>> afterAll = new LinkedHashMap<>();
    for (Inquiry inquiry : inquiries) {
      if (inquiry.ask().wanted() == null) {
        afterAll.computeIfAbsent(inquiry.ask().table(), t -> new ArrayList<>()).add(inquiry);
      } else {
        lookups.look(inquiry.ask(), inquiry.learn());
      }
    }
    afterAll.forEach(this::answerTogether);
    inquiries.forEach(i -> i.answered().run());
  }

  private void answerTogether(TableInfo table, List<Inquiry> inquiries) {
    List<FieldInfo> fields =
        inquiries.stream().flatMap(i -> i.ask().fields().stream()).distinct().toList();
    lookups.look(
        Ask.all(table, fields),
        found -> {
          for (Inquiry inquiry : inquiries) {
            inquiry
                .learn()
                .accept(
                    inquiry.ask().fields().stream()
                        .map(f -> found[fields.indexOf(f)])
                        .toArray(ValueColumn[]::new));
          }
        });
  }
}
