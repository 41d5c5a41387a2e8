package org.zestyporter.core.formula;

import java.time.LocalDateTime;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;
import org.zestyporter.core.value.ValueType;
import org.zestyporter.core.value.Values;

/** All functions that formulas may call. */
public final class Functions {
  /**
   * The row that the examples of the reference are run on, as texts of a sender who writes decimal
   * commas and the day first.
   */
  public static final Map<String, String> SAMPLE = sample();

  private static final Map<String, Function> ALL = collect();

  private Functions() {}

  private static Map<String, String> sample() {
    Map<String, String> row = new LinkedHashMap<>();
    row.put("Reg No", "qh 0566");
    row.put("Boat name", "Grey Heron");
    row.put("Kind", "Ketch rig");
    row.put("LOA (ft)", "38,5");
    row.put("Arrives", "03.11.2026");
    row.put("Insured until", "31.03.2027");
    row.put("Owner e-mail", "M.Okafor@tidewell.example");
    row.put("Berth", "");
    return row;
  }

  private static Map<String, Function> collect() {
    Map<String, Function> all = new LinkedHashMap<>();
    Stream.of(
            TextFunctions.all(),
            LogicFunctions.all(),
            NumberFunctions.all(),
            DateFunctions.all(),
            InformationFunctions.all(),
            OwnFunctions.all())
        .flatMap(List::stream)
        .forEach(f -> all.put(f.name(), f));
    return all;
  }

  /** The names of {@link #SAMPLE}, with a phrasebook “Kinds of boats”. */
  public static Names sampleNames() {
    Names columns =
        Names.of(List.copyOf(SAMPLE.keySet()), new LocaleSettings(",", DateOrder.DAY_MONTH_YEAR));
    return new Names() {
      @Override
      public List<String> columns() {
        return columns.columns();
      }

      @Override
      public ValueType type(int column) {
        return switch (column) {
          case 3 -> ValueType.DECIMAL;
          case 4, 5 -> ValueType.DATE;
          default -> ValueType.TEXT;
        };
      }

      @Override
      public LocaleSettings locale() {
        return columns.locale();
      }

      @Override
      public UnaryOperator<String> phrasebook(String name) {
        return name.equals("Kinds of boats")
            ? word -> word.equalsIgnoreCase("ketch rig") ? "ketch" : null
            : null;
      }
    };
  }

  /** The row {@link #SAMPLE}, on line 12 of a file. */
  public static Scope sampleRow() {
    List<String> cells = List.copyOf(SAMPLE.values());
    return new Scope() {
      @Override
      public Object column(int index) {
        return cells.get(index).isEmpty() ? null : cells.get(index);
      }

      @Override
      public long line() {
        return 12;
      }

      @Override
      public LocalDateTime now() {
        return LocalDateTime.of(2026, 11, 23, 9, 0);
      }

      @Override
      public String who() {
        return "odile";
      }

      @Override
      public String fileName() {
        return "winter-arrivals.xlsx";
      }
    };
  }

  static Function find(String name) {
    return ALL.get(name);
  }

  static Set<String> names() {
    return ALL.keySet();
  }

  /** Every function, chapter by chapter. */
  public static Collection<Function> all() {
    return List.copyOf(ALL.values());
  }

  /** The problem that a function has with a value. */
  static Problem refuse(Object value, String reason) {
    return new Problem(ProblemCode.FORMULA, Values.text(value), reason);
  }
}
