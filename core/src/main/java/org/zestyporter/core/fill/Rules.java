package org.zestyporter.core.fill;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.formula.Formula;
import org.zestyporter.core.formula.FormulaException;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.formula.Scope;
import org.zestyporter.core.plan.TableCheck;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ValueType;

/** The checks of a table, made ready for its records. */
public final class Rules {
  private record Rule(TableCheck check, Formula formula) {}

  /** A check that a record breaks. */
  public record Broken(String check, String reason) {}

  private final List<Rule> rules = new ArrayList<>();
  private final RunContext context;

  /**
   * @param off names of the checks that are passed over
   * @throws PorterException if a check's formula does not fit the table
   */
  public Rules(List<TableCheck> checks, List<String> off, TableInfo table, RunContext context) {
    this.context = context;
    Names names = names(table);
    for (TableCheck check : checks) {
      if (!off.contains(check.name())) {
        try {
          rules.add(new Rule(check, Formula.compile(check.formula(), names)));
        } catch (FormulaException e) {
          throw ErrorCode.CHECK.error(
              "The check “" + check.name() + "” of " + table.name() + ": " + e.getMessage());
        }
      }
    }
  }

  public boolean isEmpty() {
    return rules.isEmpty();
  }

  /**
   * The first check that a record breaks; null if it breaks none. A check that can't be told
   * because a field is blank is not broken.
   *
   * @param values by the table's fields
   */
  public Broken broken(Object[] values, long line) {
    for (Rule rule : rules) {
      Object holds = rule.formula().run(new RecordScope(values, line, context));
      if (Boolean.FALSE.equals(holds)) {
        String message = rule.check().message();
        return new Broken(
            rule.check().name(),
            message == null || message.isBlank() ? "breaks " + rule.check().formula() : message);
      }
      if (holds instanceof Problem problem) {
        return new Broken(
            rule.check().name(), rule.check().name() + " can’t be told: " + problem.reason());
      }
    }
    return null;
  }

  /** The names that checks of a table may use: its fields. */
  public static Names names(TableInfo table) {
    List<String> fields = table.fields().stream().map(FieldInfo::name).toList();
    return new Names() {
      @Override
      public List<String> columns() {
        return fields;
      }

      @Override
      public ValueType type(int column) {
        return switch (table.fields().get(column).type()) {
          case WHOLE -> ValueType.WHOLE;
          case DECIMAL -> ValueType.DECIMAL;
          case DATE -> ValueType.DATE;
          case DATETIME -> ValueType.DATETIME;
          case TIME -> ValueType.TIME;
          case BOOLEAN -> ValueType.BOOLEAN;
          default -> ValueType.TEXT;
        };
      }

      @Override
      public LocaleSettings locale() {
        return LocaleSettings.DEFAULT;
      }
    };
  }

  /** A record that a formula looks at. */
  record RecordScope(Object[] values, long line, RunContext context) implements Scope {
    @Override
    public Object column(int index) {
      return values[index];
    }

    @Override
    public LocalDateTime now() {
      return context.time();
    }

    @Override
    public String who() {
      return context.who();
    }

    @Override
    public String fileName() {
      return context.fileName();
    }
  }
}
