package org.zestyporter.core.fill;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.zestyporter.core.database.Database;
import org.zestyporter.core.database.FieldInfo;
import org.zestyporter.core.database.TableInfo;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Origin;
import org.zestyporter.core.plan.Step;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.Values;

/**
 * Makes the fills of a destination ready for use.
 *
 * <p>The only look at the database is the one for links; from then on computing is pure.
 */
public final class FillCompiler {
  private final Database database;
  private final SourceTable source;
  private final RunContext context;

  public FillCompiler(Database database, SourceTable source, RunContext context) {
    this.database = database;
    this.source = source;
    this.context = context;
  }

  /** Compiles all fills that are not left to the database, in the order of the table's fields. */
  public List<CompiledFill> compile(Destination destination, TableInfo table) {
    List<CompiledFill> compiled = new ArrayList<>();
    for (int i = 0; i < table.fields().size(); i++) {
      FieldInfo field = table.fields().get(i);
      for (Fill fill : destination.fills()) {
        if (fill.field().equalsIgnoreCase(field.name())
            && fill.origin().kind() != Origin.Kind.DATABASE) {
          compiled.add(compile(fill, field, i));
        }
      }
    }
    return compiled;
  }

  /** Compiles one fill. */
  public CompiledFill compile(Fill fill, FieldInfo field, int fieldIndex) {
    int column = -1;
    if (fill.origin().readsColumn()) {
      column = source.column(fill.origin().column());
      if (column < 0) {
        throw PorterException.input(
            "no-such-column",
            "The file has no column “"
                + fill.origin().column()
                + "”, which fills "
                + field.name()
                + ".");
      }
    }
    LocaleSettings locale = source.locale(column);
    List<StepFunction> steps = new ArrayList<>();
    for (Step step : fill.steps()) {
      steps.add(Steps.compile(step, locale));
    }
    Links links = null;
    if (fill.origin().kind() == Origin.Kind.LINK) {
      links = links(fill, field, column, steps);
    }
    return new CompiledFill(
        fill, field, fieldIndex, column, steps, links, generated(fill.origin()));
  }

  private Object generated(Origin origin) {
    if (origin.kind() == Origin.Kind.FIXED) {
      return origin.value() == null || origin.value().isEmpty() ? null : origin.value();
    }
    if (origin.kind() != Origin.Kind.GENERATED) {
      return null;
    }
    return switch (origin.generator()) {
      case WHO -> context.who();
      case RUN_TIME -> context.time();
      case FILE_NAME -> context.fileName();
      case LINE -> null;
    };
  }

  private Links links(Fill fill, FieldInfo field, int column, List<StepFunction> steps) {
    CompiledFill before = new CompiledFill(fill, field, -1, column, steps, null, null);
    Set<Object> values = new HashSet<>();
    boolean complete = source.distinct(column).beyond() == 0;
    if (complete) {
      source.distinct(column).tallies().keySet().forEach(cell -> collect(before, cell, values));
    } else {
      for (int i = 0; i < source.batches(); i++) {
        for (Cell cell : source.cells(i, column).distinct()) {
          collect(before, cell, values);
        }
      }
    }
    return Links.look(database, field, fill.origin().link(), values);
  }

  private static void collect(CompiledFill chain, Cell cell, Set<Object> values) {
    Object value = chain.beforeLink(cell);
    if (value != null && !(value instanceof Problem)) {
      values.add(value instanceof java.math.BigDecimal n ? Values.plain(n) : value);
    }
  }
}
