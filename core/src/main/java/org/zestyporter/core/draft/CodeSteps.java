package org.zestyporter.core.draft;

import java.sql.Types;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.RowRule;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;
import org.zestyporter.core.value.AsciiSigns;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.DistinctValues;
import org.zestyporter.core.value.Texts;

/** Proposes how codes are brought to the form in which the application has them. */
final class CodeSteps {
  /** Figures, with Latin letters and signs. */
  private static final Pattern CODE = Pattern.compile("\\p{ASCII}*[0-9]\\p{ASCII}*");

  private static final Pattern FIGURES = Pattern.compile("[0-9]{1,18}");
  private static final int ASKED_FOR = 100;

  private final HeldValues held;

  CodeSteps(HeldValues held) {
    this.held = held;
  }

  /** The steps for a text field; none for a column that holds no codes, or such as they are. */
  List<Step> of(TableInfo table, FieldInfo field, DistinctValues column) {
    List<Step> steps = new ArrayList<>();
    if (field.choices() != null) {
      return steps;
    }
    List<String> codes = HeldValues.some(column, ASKED_FOR);
    List<String> plain = codes.stream().map(AsciiSigns::tidy).toList();
    if (areInOtherFigures(codes, plain) && isNoneHeld(table, field, codes)) {
      steps.add(Step.of(StepKind.PLAIN_SIGNS));
    }
    int digits = lostZeros(table, field, plain);
    if (digits > 0) {
      steps.add(Step.of(StepKind.PAD, "length", String.valueOf(digits), "with", "0"));
    }
    if (field.length() != null && fitsBare(column.tallies().keySet(), field.length())) {
      steps.add(Step.of(StepKind.REPLACE_PATTERN, "pattern", HeldValues.SIGNS, "to", ""));
    }
    return steps;
  }

  /** True for codes in figures or letters of other alphabets. */
  private static boolean areInOtherFigures(List<String> codes, List<String> plain) {
    long written = plain.stream().filter(text -> CODE.matcher(text).matches()).count();
    return !plain.equals(codes) && written * 10 >= plain.size() * 9L;
  }

  /** True if the application has none of some codes as they are written. */
  private boolean isNoneHeld(TableInfo table, FieldInfo field, List<String> codes) {
    return held.of(table, field, codes, ".", String::valueOf).stream().noneMatch(codes::contains);
  }

  /**
   * The digits that codes have, of which some have lost the zeros before them, as spreadsheets do
   * to what looks like a number.
   *
   * @return 0 if nothing tells that they are to have as many
   */
  private int lostZeros(TableInfo table, FieldInfo field, List<String> codes) {
    int digits = codes.stream().mapToInt(String::length).max().orElse(0);
    List<String> shorter = codes.stream().filter(c -> c.length() < digits).toList();
    if (shorter.isEmpty() || !codes.stream().allMatch(c -> FIGURES.matcher(c).matches())) {
      return 0;
    }
    int index = table.fields().indexOf(field);
    List<RowRule> rules = table.rulesOf(index);
    Predicate<String> holds =
        code -> {
          Object[] values = new Object[table.fields().size()];
          values[index] = code;
          return rules.stream().allMatch(rule -> rule.holds(values));
        };
    boolean isFixed =
        field.jdbcType() == Types.CHAR && field.length() != null && field.length() == digits;
    boolean isTold =
        shorter.stream().noneMatch(holds) || isFixed && shorter.size() * 2 <= codes.size();
    boolean isSo =
        isTold
            && codes.stream().map(c -> "0".repeat(digits - c.length()) + c).allMatch(holds)
            && isNoneHeld(table, field, shorter);
    return isSo ? digits : 0;
  }

  /** True if codes have room in a field only without the signs between their parts. */
  private static boolean fitsBare(Set<Cell> cells, int length) {
    boolean isLong = cells.stream().anyMatch(c -> Texts.length(c.text().strip()) > length);
    return isLong
        && KeyDraft.looksLikeCodes(cells)
        && cells.stream()
            .allMatch(c -> Texts.length(c.text().replaceAll(HeldValues.SIGNS, "")) <= length);
  }
}
