package org.zestyporter.core.source.parse;

import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.zestyporter.core.source.reading.SheetInfo;
import org.zestyporter.core.source.reading.SheetMarks;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.Values;

/** OpenDocument spreadsheets (OASIS ODF 1.2 part 1, chapter 9), read as a stream. */
public final class OpenDocumentParser implements SheetParser {
  private static final String TABLE = "urn:oasis:names:tc:opendocument:xmlns:table:1.0";
  private static final String OFFICE = "urn:oasis:names:tc:opendocument:xmlns:office:1.0";
  private static final String TEXT = "urn:oasis:names:tc:opendocument:xmlns:text:1.0";
  private static final String STYLE = "urn:oasis:names:tc:opendocument:xmlns:style:1.0";
  private static final String FORMAT =
      "urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0";

  @Override
  public List<SheetInfo> sheets(Path file) throws IOException {
    List<SheetInfo> infos = new ArrayList<>();
    read(
        file,
        content -> {
          while (content.next()) {
            long[] size = {0, 0};
            size[0] =
                content.rows(
                    (cells, line, repeated) -> {
                      for (Placed cell : cells) {
                        size[1] = Math.max(size[1], (long) cell.column() + cell.times());
                      }
                    },
                    0);
            infos.add(new SheetInfo(content.name, content.hidden, size[0], (int) size[1]));
          }
        });
    return infos;
  }

  @Override
  public long parse(Path file, String sheet, RowSink sink, long linesBefore) throws IOException {
    long[] last = {-1};
    read(
        file,
        content -> {
          while (last[0] < 0 && content.next()) {
            if (content.name.equals(sheet)) {
              last[0] = content.rows(new Expanded(sink), linesBefore);
            }
          }
          if (last[0] >= 0) {
            content.ranges(sheet);
            content.marks.head(OpenDocumentMarks.frozen(file, sheet), SheetMarks.Why.FROZEN);
            sink.marks(content.marks.build());
          }
        });
    if (last[0] < 0) {
      throw SheetErrors.noSuchSheet(sheet);
    }
    return last[0];
  }

  @FunctionalInterface
  private interface Use {
    void of(Content content) throws XMLStreamException, IOException;
  }

  private static void read(Path file, Use use) throws IOException {
    XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
    // neither entities nor anything outside of the file
    factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    factory.setProperty(XMLInputFactory.IS_COALESCING, true);
    try (ZipFile zip = new ZipFile(file.toFile())) {
      refuseLocked(zip);
      ZipEntry entry = zip.getEntry("content.xml");
      if (entry == null) {
        throw SheetErrors.unreadable(null);
      }
      try (InputStream in = zip.getInputStream(entry)) {
        use.of(new Content(factory.createXMLStreamReader(in)));
      }
    } catch (XMLStreamException | DateTimeException | NumberFormatException e) {
      throw SheetErrors.unreadable(e);
    }
  }

  private static void refuseLocked(ZipFile zip) throws IOException {
    ZipEntry manifest = zip.getEntry("META-INF/manifest.xml");
    if (manifest == null) {
      return;
    }
    try (InputStream in = zip.getInputStream(manifest)) {
      String text = new String(in.readNBytes(1 << 20), StandardCharsets.UTF_8);
      if (text.contains("encryption-data")) {
        throw SheetErrors.locked();
      }
    }
  }

  /** A cell and how many columns it fills. */
  private record Placed(int column, int times, Value value) {
    void give(RowSink sink) {
      for (int i = 0; i < times; i++) {
        value.put(sink, column + i);
      }
    }
  }

  @FunctionalInterface
  private interface Value {
    void put(RowSink sink, int column);
  }

  /** Takes the cells of a line that stands so many times, the first time on a line. */
  @FunctionalInterface
  private interface Rows {
    void rows(List<Placed> cells, long line, long repeated) throws IOException;
  }

  /** Writes repeated lines and cells out, as long as there are not too many. */
  private static final class Expanded implements Rows {
    private static final long MOST_CELLS = 50_000_000;

    private final RowSink sink;
    private long cells;

    Expanded(RowSink sink) {
      this.sink = sink;
    }

    @Override
    public void rows(List<Placed> placed, long line, long repeated) throws IOException {
      long wide = placed.stream().mapToLong(Placed::times).sum();
      // what is written out once is no repetition
      cells += wide * repeated - placed.size();
      if (cells > MOST_CELLS) {
        throw SheetErrors.repeats();
      }
      for (long i = 0; i < repeated; i++) {
        placed.forEach(c -> c.give(sink));
        sink.endRow(line + i);
      }
    }
  }

  /** The content of a spreadsheet, table by table. */
  private static final class Content {
    private final XMLStreamReader xml;
    private final Set<String> hiddenStyles = new HashSet<>();
    private final Set<String> boldStyles = new HashSet<>();
    private final SheetMarks.Builder marks = new SheetMarks.Builder();
    private String style = "";
    private String name = "";
    private boolean hidden;

    Content(XMLStreamReader xml) {
      this.xml = xml;
    }

    /** Goes to the next table; false if there is none. */
    boolean next() throws XMLStreamException {
      while (xml.hasNext()) {
        if (xml.next() != XMLStreamConstants.START_ELEMENT) {
          continue;
        }
        String local = xml.getLocalName();
        if (STYLE.equals(xml.getNamespaceURI()) && "style".equals(local)) {
          style = attribute(STYLE, "name", "");
        } else if (STYLE.equals(xml.getNamespaceURI()) && "table-properties".equals(local)) {
          if ("false".equals(attribute(TABLE, "display", "true"))) {
            hiddenStyles.add(style);
          }
        } else if (is(STYLE, "text-properties")) {
          if ("bold".equals(attribute(FORMAT, "font-weight", ""))) {
            boldStyles.add(style);
          }
        } else if (TABLE.equals(xml.getNamespaceURI()) && "table".equals(local)) {
          name = attribute(TABLE, "name", "");
          hidden = hiddenStyles.contains(attribute(TABLE, "style-name", ""));
          return true;
        }
      }
      return false;
    }

    /** Reads the rows of the table that begins here; returns the last line that holds a cell. */
    long rows(Rows sink, long linesBefore) throws XMLStreamException, IOException {
      long line = linesBefore;
      long last = linesBefore;
      int depth = 1;
      while (xml.hasNext() && depth > 0) {
        int event = xml.next();
        boolean ofTable =
            (event == XMLStreamConstants.START_ELEMENT || event == XMLStreamConstants.END_ELEMENT)
                && TABLE.equals(xml.getNamespaceURI());
        if (!ofTable) {
          continue;
        }
        if ("table-header-rows".equals(xml.getLocalName()) && depth == 1) {
          if (event == XMLStreamConstants.END_ELEMENT) {
            // of the lines that are printed on every page the last is nearest to the records
            marks.head(line - linesBefore, SheetMarks.Why.PRINTED);
          }
        } else if ("table".equals(xml.getLocalName())) {
          depth += event == XMLStreamConstants.START_ELEMENT ? 1 : -1;
        } else if (event == XMLStreamConstants.START_ELEMENT
            && depth == 1
            && "table-row".equals(xml.getLocalName())) {
          long repeated = number("number-rows-repeated");
          List<Placed> cells = row(line + 1 - linesBefore);
          if (!cells.isEmpty()) {
            if (line + repeated - linesBefore > SheetErrors.MAX_LINES) {
              throw SheetErrors.repeats();
            }
            sink.rows(cells, line + 1, repeated);
            last = line + repeated;
          }
          line = Math.min(line + repeated, Long.MAX_VALUE / 4);
        }
      }
      return last;
    }

    /** The file's filters and named ranges, which are told behind all tables. */
    void ranges(String sheet) throws XMLStreamException {
      while (xml.hasNext()) {
        if (xml.next() != XMLStreamConstants.START_ELEMENT) {
          continue;
        }
        if (is(TABLE, "database-range")) {
          boolean filtered = "true".equals(attribute(TABLE, "display-filter-buttons", "false"));
          OpenDocumentMarks.range(
              marks, sheet, attribute(TABLE, "target-range-address", ""), filtered);
        } else if (is(TABLE, "named-range")) {
          OpenDocumentMarks.range(marks, sheet, attribute(TABLE, "cell-range-address", ""), false);
        }
      }
    }

    private List<Placed> row(long line) throws XMLStreamException {
      List<Placed> cells = new ArrayList<>();
      boolean allBold = true;
      int column = 0;
      while (true) {
        int event = xml.next();
        if (event == XMLStreamConstants.END_ELEMENT && is(TABLE, "table-row")) {
          if (!cells.isEmpty()) {
            marks.line(line, allBold);
          }
          return cells;
        }
        if (event != XMLStreamConstants.START_ELEMENT) {
          continue;
        }
        if (is(TABLE, "table-cell") || is(TABLE, "covered-table-cell")) {
          long times = number("number-columns-repeated");
          int spanned = (int) Math.min(number("number-columns-spanned"), SheetErrors.MAX_COLUMNS);
          boolean isBold = boldStyles.contains(attribute(TABLE, "style-name", ""));
          Value value = cell();
          if (value != null) {
            allBold &= isBold;
            marks.merged(line, column, column + spanned - 1);
            if (column + times > SheetErrors.MAX_COLUMNS) {
              throw ErrorCode.TOO_WIDE.error(
                  "A line has more than 16,384 columns.",
                  "Delete what lies beside the table, save the workbook again and bring the new file.");
            }
            cells.add(new Placed(column, (int) times, value));
          }
          column += (int) Math.min(times, SheetErrors.MAX_COLUMNS);
        }
      }
    }

    private Value cell() throws XMLStreamException {
      String end = xml.getLocalName();
      String type = attribute(OFFICE, "value-type", "");
      String number = attribute(OFFICE, "value", "0");
      String date = attribute(OFFICE, "date-value", "");
      String time = attribute(OFFICE, "time-value", "");
      String truth = attribute(OFFICE, "boolean-value", "");
      String currency = attribute(OFFICE, "currency", "");
      String formula = attribute(TABLE, "formula", "");
      String shown = shown(end);
      if (!formula.isEmpty() && SheetErrors.isError(shown)) {
        return (sink, c) -> sink.cell(c, new Cell(Cell.Kind.ERROR, shown));
      }
      return switch (type) {
        case "float", "percentage", "currency" ->
            number(type, new BigDecimal(number), shown, currency);
        case "date" -> cell(moment(date));
        case "time" -> time(time);
        case "boolean" -> cell(new Cell(Cell.Kind.BOOLEAN, truth));
        default ->
            shown.isEmpty()
                ? formula.isEmpty() || "string".equals(type)
                    ? null
                    : (sink, c) -> SheetErrors.noResult(sink, c, formula)
                : cell(Cell.text(shown));
      };
    }

    private static Value cell(Cell cell) {
      return (sink, column) -> sink.cell(column, cell);
    }

    private static Value number(String type, BigDecimal number, String shown, String currency) {
      String format =
          switch (type) {
            case "percentage" -> "0%";
            case "currency" -> "[$" + currency + "]0.00";
            default -> shown.matches("0\\d+") ? "0".repeat(Math.min(40, shown.length())) : null;
          };
      return (sink, column) -> NumberFormat.put(sink, column, number, format, false);
    }

    private static Cell moment(String date) {
      if (date.indexOf('T') < 0) {
        return new Cell(Cell.Kind.DATE, LocalDate.parse(date).toString());
      }
      LocalDateTime moment = LocalDateTime.parse(date).withNano(0);
      return moment.toLocalTime().equals(LocalTime.MIDNIGHT)
          ? new Cell(Cell.Kind.DATE, moment.toLocalDate().toString())
          : new Cell(Cell.Kind.DATETIME, Values.text(moment));
    }

    private static Value time(String written) {
      Duration duration = Duration.parse(written);
      BigDecimal days =
          BigDecimal.valueOf(duration.getSeconds())
              .divide(BigDecimal.valueOf(86_400), 12, java.math.RoundingMode.HALF_UP);
      String format = duration.toHours() >= 24 || duration.isNegative() ? "[h]:mm" : "h:mm";
      return (sink, column) -> NumberFormat.put(sink, column, days, format, false);
    }

    /** The text of the cell, its paragraphs parted by line breaks, without notes. */
    private String shown(String end) throws XMLStreamException {
      StringBuilder text = new StringBuilder();
      boolean first = true;
      int depth = 0;
      while (true) {
        int event = xml.next();
        if (event == XMLStreamConstants.END_ELEMENT) {
          if (depth == 0 && is(TABLE, end)) {
            return text.toString();
          }
          depth--;
        } else if (event == XMLStreamConstants.START_ELEMENT) {
          depth++;
          if (is(OFFICE, "annotation") || !TEXT.equals(xml.getNamespaceURI())) {
            skip();
            depth--;
          } else if ("p".equals(xml.getLocalName())) {
            text.append(first ? "" : "\n");
            first = false;
          } else if ("s".equals(xml.getLocalName())) {
            text.append(
                " ".repeat((int) Math.min(1000, Long.parseLong(attribute(TEXT, "c", "1")))));
          } else if ("tab".equals(xml.getLocalName())) {
            text.append('\t');
          } else if ("line-break".equals(xml.getLocalName())) {
            text.append('\n');
          }
        } else if (event == XMLStreamConstants.CHARACTERS && depth > 0) {
          text.append(xml.getText());
        }
      }
    }

    private void skip() throws XMLStreamException {
      int depth = 1;
      while (depth > 0) {
        int event = xml.next();
        depth +=
            event == XMLStreamConstants.START_ELEMENT
                ? 1
                : event == XMLStreamConstants.END_ELEMENT ? -1 : 0;
      }
    }

    private boolean is(String namespace, String local) {
      return local.equals(xml.getLocalName()) && namespace.equals(xml.getNamespaceURI());
    }

    private long number(String attribute) {
      return Math.max(1, Long.parseLong(attribute(TABLE, attribute, "1")));
    }

    private String attribute(String namespace, String local, String otherwise) {
      String value = xml.getAttributeValue(namespace, local);
      return value == null ? otherwise : value;
    }
  }
}
