package org.zestyporter.core.source;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.source.parse.DelimitedSniffer;
import org.zestyporter.core.source.parse.Encodings;
import org.zestyporter.core.source.parse.FileFormat;
import org.zestyporter.core.source.parse.FixedWidth;
import org.zestyporter.core.source.parse.JsonParser;
import org.zestyporter.core.source.parse.SheetErrors;
import org.zestyporter.core.source.parse.SheetParser;
import org.zestyporter.core.source.parse.TextFiles;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetInfo;
import org.zestyporter.core.source.reading.SourceFormat;
import org.zestyporter.core.value.ErrorCode;

/**
 * Settles of a file what decides how its bytes become cells: format, encoding, delimiter, sheet.
 */
final class Settling {
  private Settling() {}

  /** Settles what decides how the bytes become cells. */
  static SourceReader.Parsed settle(Path file, SourceReader.Parsed start, long most)
      throws IOException {
    byte[] head = TextFiles.head(file);
    Reading wanted = start.reading();
    List<Evidence> evidence = new ArrayList<>(start.evidence());
    SourceFormat found = FileFormat.find(file, head);
    if (found.isWorkbook()) {
      SheetParser parser = (SheetParser) SourceReader.parser(found);
      List<SheetInfo> sheets = SourceReader.unbroken(() -> parser.sheets(file));
      Reading reading =
          wanted.with(b -> b.format(found).encoding(null).delimiter(null).quote(null));
      return done(start, sheet(reading, sheets, evidence), sheets, evidence);
    }
    String encoding = wanted.encoding();
    if (encoding == null) {
      Evidence why = Encodings.find(file, most);
      evidence.add(why);
      encoding = why.value();
    }
    Charset charset = TextFiles.charset(encoding);
    Reading text = wanted.withEncoding(TextFiles.nameOf(encoding));
    SourceFormat said = wanted.format();
    if (found == SourceFormat.JSON && (said == null || said == SourceFormat.JSON)) {
      List<SheetInfo> arrays = JsonParser.arrays(file, charset);
      if (arrays.isEmpty()) {
        throw ErrorCode.NOT_A_TABLE.error(
            "The JSON holds no list and no object with values, so no table.");
      }
      Reading reading = text.with(b -> b.format(SourceFormat.JSON).delimiter(null).quote(null));
      return done(start, array(reading, arrays, evidence), arrays, evidence);
    }
    return done(start, lines(text, head, charset, evidence), List.of(), evidence);
  }

  private static SourceReader.Parsed done(
      SourceReader.Parsed start, Reading reading, List<SheetInfo> sheets, List<Evidence> evidence) {
    return SourceReader.Parsed.begun(reading, sheets, start.entries(), evidence);
  }

  /** Text in lines: parted by a delimiter, or at fixed places. */
  private static Reading lines(
      Reading wanted, byte[] head, Charset charset, List<Evidence> evidence) {
    boolean cutShort = head.length == TextFiles.HEAD_BYTES;
    String text = TextFiles.headText(head, charset);
    if (text.isBlank() && !cutShort) {
      throw ErrorCode.EMPTY_FILE.error("The file holds only blank lines.");
    }
    if (wanted.delimiter() != null) {
      require(ErrorCode.DELIMITER, wanted.delimiter(), 1, 5);
    }
    if (wanted.quote() != null) {
      require(ErrorCode.QUOTE, wanted.quote(), 0, 1);
    }
    boolean saidFixed = wanted.format() == SourceFormat.FIXED || wanted.borders() != null;
    boolean saidDelimited = wanted.format() == SourceFormat.DELIMITED || wanted.delimiter() != null;
    FixedWidth.Found fixed = saidDelimited ? null : FixedWidth.find(text, cutShort);
    DelimitedSniffer.Found parted =
        saidFixed ? null : DelimitedSniffer.find(text, cutShort, wanted);
    if (saidFixed || !saidDelimited && isFixed(fixed, parted)) {
      if (wanted.borders() == null) {
        evidence.add(fixed.evidence());
      }
      List<Integer> borders = wanted.borders() == null ? fixed.borders() : borders(wanted);
      return wanted.with(
          b -> b.format(SourceFormat.FIXED).borders(borders).delimiter(null).quote(null));
    }
    evidence.addAll(parted.evidence());
    return wanted.with(
        b ->
            b.format(SourceFormat.DELIMITED)
                .borders(null)
                .delimiter(parted.delimiter())
                .quote(parted.quote())
                .escape(parted.escape())
                .comment(parted.comment()));
  }

  private static boolean isFixed(FixedWidth.Found fixed, DelimitedSniffer.Found parted) {
    if (fixed.borders().isEmpty() || fixed.agreement() < 0.95) {
      return false;
    }
    boolean clearlyParted = parted.cells() > 1 && parted.agreement() >= 0.7;
    return !clearlyParted || parted.cells() == 2 && fixed.borders().size() > 2;
  }

  private static List<Integer> borders(Reading wanted) {
    List<Integer> sorted = wanted.borders().stream().distinct().sorted().toList();
    if (!sorted.isEmpty() && sorted.get(0) < 1) {
      throw ErrorCode.BORDERS.error("A border stands behind at least one character.");
    }
    return sorted;
  }

  private static void require(ErrorCode code, String value, int least, int most) {
    if (value.length() < least || value.length() > most) {
      throw code.error(
          "The "
              + code.word()
              + " must be "
              + (most == 1 ? "one character" : "one to five characters")
              + ", not “"
              + value
              + "”.");
    }
  }

  private static Reading array(Reading wanted, List<SheetInfo> arrays, List<Evidence> evidence) {
    if (wanted.sheet() != null) {
      return wanted;
    }
    SheetInfo first = arrays.get(0);
    String because =
        arrays.size() == 1
            ? "the only list in the file"
            : "the longest of " + arrays.size() + " lists in the file";
    evidence.add(new Evidence("sheet", first.name(), because));
    return wanted.withSheet(first.name());
  }

  private static Reading sheet(Reading wanted, List<SheetInfo> sheets, List<Evidence> evidence) {
    List<String> several = wanted.sheets();
    if (several != null && !several.isEmpty()) {
      for (String name : several) {
        if (sheets.stream().noneMatch(s -> s.name().equals(name))) {
          throw SheetErrors.noSuchSheet(name);
        }
      }
      return wanted.withSheet(null);
    }
    if (wanted.sheet() != null) {
      return wanted;
    }
    SheetInfo chosen =
        sheets.stream()
            .filter(s -> !s.hidden() && !isEmpty(s))
            .findFirst()
            .or(() -> sheets.stream().filter(s -> !s.hidden()).findFirst())
            .or(() -> sheets.stream().findFirst())
            .orElseThrow(() -> ErrorCode.EMPTY_FILE.error("The workbook has no sheet with cells."));
    evidence.add(
        new Evidence(
            "sheet",
            chosen.name(),
            sheets.size() == 1
                ? "the only one"
                : "the first of " + sheets.size() + " that is not hidden and not empty"));
    return wanted.withSheet(chosen.name());
  }

  private static boolean isEmpty(SheetInfo sheet) {
    return sheet.lines() != null
        && sheet.lines() <= 1
        && sheet.columns() != null
        && sheet.columns() <= 1;
  }
}
