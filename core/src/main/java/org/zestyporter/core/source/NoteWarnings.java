package org.zestyporter.core.source;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.zestyporter.core.source.parse.CellNote;
import org.zestyporter.core.source.parse.NoteCode;
import org.zestyporter.core.source.reading.Letters;

/** Puts into words what a parser noted of cells. */
final class NoteWarnings {
  private NoteWarnings() {}

  /** A warning for each kind of note, those of most cells first. */
  static List<Warning> of(List<CellNote> all) {
    List<Warning> warnings = new ArrayList<>();
    Map<NoteCode, List<CellNote>> byCode = new LinkedHashMap<>();
    all.stream()
        .sorted(Comparator.comparingLong(n -> -n.cells()))
        .forEach(n -> byCode.computeIfAbsent(n.code(), c -> new ArrayList<>()).add(n));
    byCode.forEach(
        (code, notes) -> {
          if (code == NoteCode.NO_RESULT) {
            return;
          }
          long count = notes.stream().mapToLong(CellNote::cells).sum();
          CellNote first = notes.get(0);
          String where =
              Findings.cells(count)
                  + " in column "
                  + notes.stream()
                      .map(n -> Letters.of(n.column()))
                      .limit(4)
                      .collect(Collectors.joining(", "));
          warnings.add(
              new Warning(
                  first.line(),
                  WarningCode.of(code),
                  where + message(code, first),
                  null,
                  count,
                  false));
        });
    return warnings;
  }

  private static String message(NoteCode code, CellNote first) {
    return switch (code) {
      case PERCENT ->
          " are shown in per cent. They are read as the fraction behind it: "
              + first.sample()
              + " is "
              + fraction(first.sample())
              + ".";
      case MONEY -> " are amounts of money; the number is read, the currency is not.";
      case ZERO_PADDED ->
          " are numbers shown with zeros before them and are taken as shown, such as “"
              + first.sample()
              + "”.";
      case TOO_MANY_DIGITS ->
          " have more than 15 digits, such as "
              + first.sample()
              + ". Spreadsheets keep no more, so the last ones may be wrong.";
      case DURATION ->
          " are times of 24 hours and more, such as " + first.sample() + ", taken as text.";
      case STRAY_QUOTE ->
          " have text behind their closing quote, the first in line "
              + first.line()
              + ". It is kept, without the quotes.";
      case NO_RESULT -> " are formulas without a result.";
    };
  }

  private static String fraction(String shown) {
    return new java.math.BigDecimal(shown.replace(" %", ""))
        .movePointLeft(2)
        .stripTrailingZeros()
        .toPlainString();
  }
}
