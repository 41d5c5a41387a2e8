package org.zestyporter.core.source.parse;

import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.dhatim.fastexcel.reader.ExcelReaderException;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;
import org.dhatim.fastexcel.reader.SheetVisibility;
import org.zestyporter.core.source.reading.Letters;
import org.zestyporter.core.source.reading.ReadProgress;
import org.zestyporter.core.source.reading.SheetInfo;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** Workbooks in Office Open XML (ECMA-376), read as a stream. */
public final class WorkbookParser implements SheetParser {
  private static final Pattern NUMBER = Pattern.compile("[+-]?\\d+(\\.\\d+)?([eE][+-]?\\d{1,4})?");
  private static final Pattern RELATION = Pattern.compile("<(?:\\w+:)?Relationship\\b[^>]*>");
  private static final Pattern DIMENSION =
      Pattern.compile("<(?:\\w+:)?dimension[^>]*ref=\"(?:[A-Z]+\\d+:)?([A-Z]+)(\\d+)\"");

  @Override
  public List<SheetInfo> sheets(Path file) throws IOException {
    try (ReadableWorkbook book = open(file);
        ZipFile zip = new ZipFile(file.toFile());
        Stream<Sheet> sheets = book.getSheets()) {
      Map<String, String> targets = targets(zip);
      List<SheetInfo> infos = new ArrayList<>();
      for (Sheet sheet : sheets.toList()) {
        boolean hidden = sheet.getVisibility() != SheetVisibility.VISIBLE;
        Matcher size = DIMENSION.matcher(head(zip, targets.get(sheet.getId())));
        // a writer that streams states nothing, or only the first cell
        boolean stated =
            size.find() && size.group(2).length() < 8 && !size.group().endsWith("\"A1\"");
        infos.add(
            new SheetInfo(
                sheet.getName(),
                hidden,
                stated ? Long.valueOf(size.group(2)) : null,
                stated ? Integer.valueOf(Letters.index(size.group(1)) + 1) : null));
      }
      return infos;
    } catch (ExcelReaderException | IllegalArgumentException | IllegalStateException e) {
      throw SheetErrors.unreadable(e);
    }
  }

  /** Paths of the sheets' parts by relation. */
  private static Map<String, String> targets(ZipFile zip) throws IOException {
    Map<String, String> targets = new HashMap<>();
    Matcher relation = RELATION.matcher(head(zip, "xl/_rels/workbook.xml.rels"));
    while (relation.find()) {
      String target = attribute(relation.group(), "Target");
      targets.put(
          attribute(relation.group(), "Id"),
          target.startsWith("/") ? target.substring(1) : "xl/" + target);
    }
    return targets;
  }

  private static String attribute(String element, String name) {
    Matcher m = Pattern.compile("\\b" + name + "=\"([^\"]*)\"").matcher(element);
    return m.find() ? m.group(1) : "";
  }

  private static String head(ZipFile zip, String part) throws IOException {
    ZipEntry entry = part == null ? null : zip.getEntry(part);
    if (entry == null) {
      return "";
    }
    try (InputStream in = zip.getInputStream(entry)) {
      int bytes = part.endsWith(".rels") ? 1 << 20 : 2048;
      return new String(in.readNBytes(bytes), StandardCharsets.UTF_8);
    }
  }

  @Override
  public long parse(Path file, String name, RowSink sink, long linesBefore) throws IOException {
    long last = linesBefore;
    try (ReadableWorkbook book = open(file);
        ZipFile zip = new ZipFile(file.toFile())) {
      Sheet sheet = book.findSheet(name).orElseThrow(() -> SheetErrors.noSuchSheet(name));
      ReadProgress guarding = new ReadProgress();
      guarding.budget(0);
      String part = targets(zip).get(sheet.getId());
      WorkbookGuard.Ends ends = WorkbookGuard.checkSheet(zip, part, guarding);
      if (part != null) {
        sink.marks(WorkbookMarks.of(zip, part, ends, sheet.getIndex()));
      }
      WorkbookGuard.checkTexts(zip, guarding);
      boolean date1904 = book.isDate1904();
      try (Stream<Row> rows = sheet.openStream()) {
        Iterator<Row> iterator = rows.iterator();
        while (iterator.hasNext()) {
          Row row = iterator.next();
          row(row, sink, date1904);
          last = linesBefore + row.getRowNum();
          sink.endRow(last);
        }
      }
      return last;
    } catch (PorterException e) {
      throw e;
    } catch (ExcelReaderException
        | IllegalArgumentException
        | IllegalStateException
        | IndexOutOfBoundsException e) {
      throw SheetErrors.unreadable(e);
    }
  }

  private static ReadableWorkbook open(Path file) throws IOException {
    try {
      return new ReadableWorkbook(file.toFile(), new ReadingOptions(true, true));
    } catch (IOException | RuntimeException e) {
      return openPlain(file);
    }
  }

  /** A workbook need not have styles; then it has no dates either. */
  private static ReadableWorkbook openPlain(Path file) {
    try {
      return new ReadableWorkbook(file.toFile(), new ReadingOptions(false, true));
    } catch (IOException | RuntimeException e) {
      throw SheetErrors.unreadable(e);
    }
  }

  private static void row(Row row, RowSink sink, boolean date1904) {
    int width = row.getCellCount();
    if (width > SheetErrors.MAX_COLUMNS || row.getRowNum() > SheetErrors.MAX_LINES) {
      throw ErrorCode.TOO_WIDE.error(
          "Line "
              + row.getRowNum()
              + " lies outside of what a sheet can hold (16,384 columns, 1,048,576 lines).",
          "Save the workbook again in a spreadsheet and bring that.");
    }
    for (int i = 0; i < width; i++) {
      org.dhatim.fastexcel.reader.Cell cell = row.getCell(i);
      if (cell != null) {
        cell(sink, i, cell, date1904);
      }
    }
  }

  private static void cell(
      RowSink sink, int column, org.dhatim.fastexcel.reader.Cell cell, boolean date1904) {
    switch (cell.getType()) {
      case EMPTY -> {}
      case STRING -> text(sink, column, cell.getText());
      case BOOLEAN -> sink.cell(column, new Cell(Cell.Kind.BOOLEAN, cell.asBoolean().toString()));
      case ERROR -> error(sink, column, cell, date1904);
      case NUMBER ->
          NumberFormat.put(
              sink, column, (BigDecimal) cell.getValue(), cell.getDataFormatString(), date1904);
      case FORMULA -> cached(sink, column, cell, date1904);
    }
  }

  /** An error; or a number with white space around it, which XML allows and the reader does not. */
  private static void error(
      RowSink sink, int column, org.dhatim.fastexcel.reader.Cell cell, boolean date1904) {
    String raw = String.valueOf(cell.getRawValue()).strip();
    if (NUMBER.matcher(raw).matches()) {
      NumberFormat.put(sink, column, new BigDecimal(raw), cell.getDataFormatString(), date1904);
    } else {
      sink.cell(column, new Cell(Cell.Kind.ERROR, raw));
    }
  }

  private static void text(RowSink sink, int column, String text) {
    if (text != null && !text.isEmpty()) {
      sink.cell(column, Cell.text(text));
    }
  }

  private static void cached(
      RowSink sink, int column, org.dhatim.fastexcel.reader.Cell cell, boolean date1904) {
    Object value = cell.getValue();
    if (value == null && cell.getRawValue() == null) {
      SheetErrors.noResult(sink, column, cell.getFormula());
    } else if (value instanceof BigDecimal number) {
      NumberFormat.put(sink, column, number, cell.getDataFormatString(), date1904);
    } else if (value instanceof Boolean truth) {
      sink.cell(column, new Cell(Cell.Kind.BOOLEAN, truth.toString()));
    } else if (value instanceof String text && SheetErrors.isError(text)) {
      sink.cell(column, new Cell(Cell.Kind.ERROR, text));
    } else if (value != null) {
      text(sink, column, value.toString());
    }
  }
}
