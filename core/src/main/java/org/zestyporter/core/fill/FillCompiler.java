package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.RowRule;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.formula.Condition;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.formula.Kind;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.source.Columns;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepFunction;
import org.zestyporter.core.step.ValueFormula;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/**
 * Makes the fills of a destination ready for use.
 *
 * <p>Compiling takes names and types alone. What fills have to know of the application's records
 * they ask as {@link Inquiry}; once that is answered, computing is pure.
 */
public final class FillCompiler {
  private final Function<String, TableInfo> tables;
  private final Columns source;
  private final RunContext context;
  private final Phrases phrases;
  private Predicate<LinkKey> made = key -> false;

  /**
   * @param tables gives the application's tables by name
   */
  public FillCompiler(
      Function<String, TableInfo> tables, Columns source, RunContext context, Phrases phrases) {
    this.tables = tables;
    this.source = source;
    this.context = context;
    this.phrases = phrases;
  }

  /**
   * Lets links await records that rows of the same source make.
   *
   * @param of tells whether rows may make records that are looked up so
   */
  public FillCompiler awaiting(Predicate<LinkKey> of) {
    made = of;
    return this;
  }

  /**
   * Compiles the condition that tells which rows go to a destination.
   *
   * @throws PorterException if the formula can't be used or gives no yes or no
   */
  public Condition condition(String formula, String label) {
    return Condition.compile(formula, new SourceNames(source, phrases, -1), label);
  }

  /** Compiles all fills that are not left to the database, in the order of the table's fields. */
  public List<CompiledFill> compile(Destination destination, TableInfo table) {
    List<CompiledFill> compiled = new ArrayList<>();
    for (FieldInfo field : table.fields()) {
      for (Fill fill : destination.fills()) {
        if (fill.field().equalsIgnoreCase(field.name()) && fill.isGiven()) {
          compiled.add(compile(fill, field, table));
        }
      }
    }
    return compiled;
  }

  /** Compiles one fill of a table. */
  public CompiledFill compile(Fill fill, FieldInfo field, TableInfo table) {
    Origin origin = fill.origin();
    Set<Integer> columns = new TreeSet<>();
    int ownColumn = origin.column() == null ? -1 : require(origin.column(), field);
    Names names = new SourceNames(source, phrases, ownColumn);
    List<Inquiry> beforehand = new ArrayList<>();
    Start start = start(origin, field, table, ownColumn, names, beforehand::add);
    columns.addAll(start.columns());
    boolean perRow = start.perRow();
    List<StepFunction> steps = steps(fill, names);
    for (StepFunction step : steps) {
      columns.addAll(step.columns());
      perRow |= step.perRow();
    }
    Links links = null;
    if (origin instanceof Origin.Linked) {
      List<Integer> also =
          origin.link().also().stream().map(a -> require(a.column(), field)).toList();
      columns.addAll(also);
      links = links(field, origin.link(), also);
      if (origin.link().whenMissing() == Origin.WhenMissing.CREATE) {
        List<CompiledFill> own = maker(links, field, origin.link(), also);
        own.forEach(f -> columns.addAll(f.columns()));
      }
    }
    int index = table.fields().indexOf(field);
    List<RowRule> rules = table.rulesOf(index);
    return new CompiledFill(
        fill,
        field,
        index,
        rules,
        List.copyOf(columns),
        perRow,
        start.function(),
        steps,
        links,
        beforehand,
        rules.isEmpty() ? PlainFill.of(fill, field, names::locale) : null,
        context);
  }

  private Links links(FieldInfo field, Origin.Link link, List<Integer> also) {
    if (field.link() == null) {
      throw ErrorCode.NO_LINK.error(field.name() + " is not a link to another table.");
    }
    TableInfo linked = tables.apply(field.link().table());
    Links links = new Links(linked, linked.field(field.link().keyField()), link, also);
    if (made.test(links.key())) {
      links.await();
    }
    return links;
  }

  /**
   * A formula that is tried.
   *
   * @param value what it gives for a row
   */
  public record Tried(Kind kind, Function<Row, Object> value) {}

  /**
   * Compiles a formula without keeping it.
   *
   * @param before the fill whose value it may name; null if it is an origin
   * @throws org.zestyporter.core.formula.FormulaException naming the place at fault
   */
  public Tried tryFormula(String text, @Nullable Fill before, FieldInfo field, TableInfo table) {
    Names names = new SourceNames(source, phrases, -1);
    if (before == null) {
      Formula formula = Formula.compile(text, names);
      return new Tried(formula.kind(), formula::run);
    }
    ValueFormula formula = new ValueFormula(text, names);
    CompiledFill chain = compile(unlinked(before), field, table);
    return new Tried(formula.kind(), row -> formula.apply(chain.beforeLink(row), row));
  }

  /** A fill without the look-up behind its steps. */
  private static Fill unlinked(Fill fill) {
    Origin from = fill.origin().lookedUpBy();
    return fill.withOrigin(from == null ? Origin.fixed(null) : from);
  }

  /** A compiled fill with other steps, looking up links as it does. */
  public CompiledFill withSteps(CompiledFill of, Fill with) {
    String own = with.origin().column();
    Names names = new SourceNames(source, phrases, own == null ? -1 : source.column(own));
    return of.withSteps(with, steps(with, names));
  }

  /** What a fill's steps do; those that are passed over do nothing, whatever they name. */
  private static List<StepFunction> steps(Fill fill, Names names) {
    List<StepFunction> functions = new ArrayList<>();
    for (Step step : fill.steps()) {
      functions.add(step.off() ? (value, row) -> value : step.compile(names));
    }
    return functions;
  }

  /** The only column that a fill's value comes from; null if there is none. */
  public String columnName(CompiledFill fill) {
    return fill.fill().origin().column();
  }

  /** The columns that a fill does not read. */
  public List<String> otherColumns(CompiledFill fill) {
    List<String> others = new ArrayList<>(source.columns());
    fill.columns().forEach(c -> others.remove(source.columns().get(c)));
    return others;
  }

  /** Lets links make the records that they miss; gives the fills that these records have. */
  private List<CompiledFill> maker(
      Links links, FieldInfo field, Origin.Link link, List<Integer> also) {
    TableInfo linked = tables.apply(field.link().table());
    link.create().forEach(f -> linked.field(f.field()));
    Destination made = new Destination(linked.name(), link.create(), null, null);
    List<CompiledFill> fills = compile(made, linked);
    links.makeMissing(new RecordMaker(linked, field.link().keyField(), link, also, fills));
    return fills;
  }

  private int require(String column, FieldInfo field) {
    int index = column == null ? -1 : source.column(column);
    if (index < 0) {
      throw ErrorCode.NO_SUCH_COLUMN.error(
          "The file has no column “" + column + "”, which fills " + field.name() + ".");
    }
    return index;
  }

  /** Where values begin: the function, the columns it reads, and whether each row differs. */
  private record Start(Function<Row, Object> function, List<Integer> columns, boolean perRow) {
    static Start of(int column) {
      return new Start(row -> row.cell(column).value(), List.of(column), false);
    }

    static Start fixed(Object value) {
      return new Start(row -> value, List.of(), false);
    }
  }

  private Start start(
      Origin origin,
      FieldInfo field,
      TableInfo table,
      int own,
      Names names,
      Consumer<Inquiry> ask) {
    if (own >= 0) {
      return Start.of(own);
    }
    if (origin instanceof Origin.Generated of) {
      return new Start(
          Generated.of(of, field, table, ask), List.of(), Generated.perRow(of.generator()));
    }
    Origin from = origin.lookedUpBy();
    if (from instanceof Origin.Joined of) {
      Template template = new Template(of.template(), source::column);
      return new Start(template::apply, template.columns(), false);
    }
    if (from instanceof Origin.Formula of) {
      Formula formula = Formula.compile(of.formula(), names);
      return new Start(formula::run, formula.columns(), formula.usesLine());
    }
    boolean blank =
        !(from instanceof Origin.Fixed of) || of.value() == null || of.value().isEmpty();
    return Start.fixed(blank ? null : ((Origin.Fixed) from).value());
  }
}
