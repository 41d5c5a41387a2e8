package org.zestyporter.core.source.parse;

import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.apache.poi.EncryptedDocumentException;
import org.apache.poi.hssf.OldExcelFormatException;
import org.apache.poi.hssf.eventusermodel.FormatTrackingHSSFListener;
import org.apache.poi.hssf.eventusermodel.HSSFEventFactory;
import org.apache.poi.hssf.eventusermodel.HSSFListener;
import org.apache.poi.hssf.eventusermodel.HSSFRequest;
import org.apache.poi.hssf.eventusermodel.MissingRecordAwareHSSFListener;
import org.apache.poi.hssf.eventusermodel.dummyrecord.LastCellOfRowDummyRecord;
import org.apache.poi.hssf.record.BOFRecord;
import org.apache.poi.hssf.record.BlankRecord;
import org.apache.poi.hssf.record.BoolErrRecord;
import org.apache.poi.hssf.record.BoundSheetRecord;
import org.apache.poi.hssf.record.CellValueRecordInterface;
import org.apache.poi.hssf.record.DateWindow1904Record;
import org.apache.poi.hssf.record.DimensionsRecord;
import org.apache.poi.hssf.record.EOFRecord;
import org.apache.poi.hssf.record.FormulaRecord;
import org.apache.poi.hssf.record.LabelRecord;
import org.apache.poi.hssf.record.LabelSSTRecord;
import org.apache.poi.hssf.record.NumberRecord;
import org.apache.poi.hssf.record.RKRecord;
import org.apache.poi.hssf.record.Record;
import org.apache.poi.hssf.record.SSTRecord;
import org.apache.poi.hssf.record.StringRecord;
import org.apache.poi.poifs.filesystem.POIFSFileSystem;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.FormulaError;
import org.zestyporter.core.source.reading.SheetInfo;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.PorterException;

/** Binary workbooks of older spreadsheets (BIFF8), read record by record. */
public final class OldWorkbookParser implements SheetParser {

  @Override
  public List<SheetInfo> sheets(Path file) throws IOException {
    Listener listener = new Listener(null, null, 0);
    read(file, listener);
    return listener.infos;
  }

  @Override
  public long parse(Path file, String sheet, RowSink sink, long linesBefore) throws IOException {
    Listener listener = new Listener(sheet, sink, linesBefore);
    read(file, listener);
    if (!listener.met) {
      throw SheetErrors.noSuchSheet(sheet);
    }
    sink.marks(listener.marks.build(listener.found));
    return listener.last;
  }

  private static void read(Path file, Listener listener) throws IOException {
    try (POIFSFileSystem system = new POIFSFileSystem(file.toFile(), true)) {
      if (system.getRoot().hasEntryCaseInsensitive("EncryptedPackage")) {
        throw SheetErrors.locked();
      }
      FormatTrackingHSSFListener formats = new FormatTrackingHSSFListener(listener);
      listener.formats = formats;
      HSSFRequest request = new HSSFRequest();
      request.addListenerForAllRecords(new MissingRecordAwareHSSFListener(formats));
      new HSSFEventFactory().processWorkbookEvents(request, system);
    } catch (PorterException | java.util.concurrent.CancellationException e) {
      throw e;
    } catch (EncryptedDocumentException e) {
      throw SheetErrors.locked();
    } catch (OldExcelFormatException e) {
      throw ErrorCode.OLD_WORKBOOK.error("The workbook is older than 1997.", e);
    } catch (FileNotFoundException e) {
      throw ErrorCode.NOT_A_TABLE.error(
          "The file is an office document, but no workbook, so it holds no table.", e);
    } catch (UncheckedIOException e) {
      throw e.getCause();
    } catch (IOException | RuntimeException e) {
      if (e instanceof Enough enough) {
        throw enough;
      }
      throw SheetErrors.unreadable(e);
    }
  }

  /** Follows the records; {@code wanted} is null if only the sheets are listed. */
  private static final class Listener implements HSSFListener {
    private final String wanted;
    private final RowSink sink;
    private final long linesBefore;
    private final List<BoundSheetRecord> bound = new ArrayList<>();
    private final List<SheetInfo> infos = new ArrayList<>();
    private FormatTrackingHSSFListener formats;
    private SSTRecord strings;
    private boolean date1904;
    private int depth;
    private int sheet = -1;
    private boolean inside;
    private boolean met;
    private FormulaRecord formula;
    private long last;
    private final OldWorkbookMarks marks = new OldWorkbookMarks();
    private int found;

    Listener(String wanted, RowSink sink, long linesBefore) {
      this.wanted = wanted;
      this.sink = sink;
      this.linesBefore = linesBefore;
      this.last = linesBefore;
    }

    @Override
    public void processRecord(Record record) {
      if (record instanceof BOFRecord) {
        begin();
      } else if (record instanceof EOFRecord) {
        depth--;
        inside &= depth > 0;
      } else if (record instanceof BoundSheetRecord one) {
        bound.add(one);
      } else if (record instanceof SSTRecord all) {
        strings = all;
      } else if (record instanceof DateWindow1904Record window) {
        date1904 = window.getWindowing() == 1;
      } else if (record instanceof DimensionsRecord size && wanted == null && depth == 1) {
        BoundSheetRecord one = ordered().get(sheet);
        infos.set(
            sheet,
            new SheetInfo(
                one.getSheetname(),
                one.isHidden() || one.isVeryHidden(),
                (long) size.getLastRow(),
                (int) size.getLastCol()));
      } else if (inside && depth == 1) {
        marks.ofSheet(record);
        cell(record);
      } else if (sheet < 0) {
        marks.ofBook(record);
      }
    }

    private List<BoundSheetRecord> ordered() {
      return List.of(BoundSheetRecord.orderByBofPosition(bound));
    }

    private void begin() {
      depth++;
      // the first stream is the workbook's own; what is nested belongs to a chart
      if (depth > 1 || bound.isEmpty()) {
        return;
      }
      sheet++;
      if (sheet < bound.size()) {
        BoundSheetRecord one = ordered().get(sheet);
        infos.add(
            new SheetInfo(one.getSheetname(), one.isHidden() || one.isVeryHidden(), null, null));
        inside = one.getSheetname().equals(wanted);
        found = inside ? sheet : found;
        met |= inside;
      }
    }

    private void cell(Record record) {
      if (record instanceof LastCellOfRowDummyRecord end) {
        endRow(end.getRow());
        return;
      }
      if (record instanceof StringRecord text && formula != null) {
        text(formula.getColumn(), text.getString());
        formula = null;
        return;
      }
      if (!(record instanceof CellValueRecordInterface value)) {
        return;
      }
      int column = value.getColumn();
      if (!(record instanceof BlankRecord)) {
        marks.cell(value);
      }
      if (record instanceof LabelSSTRecord label) {
        text(column, strings.getString(label.getSSTIndex()).getString());
      } else if (record instanceof LabelRecord label) {
        text(column, label.getValue());
      } else if (record instanceof NumberRecord number) {
        number(value, number.getValue());
      } else if (record instanceof RKRecord number) {
        number(value, number.getRKNumber());
      } else if (record instanceof BoolErrRecord either) {
        sink.cell(
            column,
            either.isBoolean()
                ? new Cell(Cell.Kind.BOOLEAN, String.valueOf(either.getBooleanValue()))
                : error(either.getErrorValue()));
      } else if (record instanceof FormulaRecord computed) {
        formula(computed);
      }
    }

    private void formula(FormulaRecord record) {
      CellType type = record.getCachedResultTypeEnum();
      switch (type) {
        case STRING -> formula = record;
        case BOOLEAN ->
            sink.cell(
                record.getColumn(),
                new Cell(Cell.Kind.BOOLEAN, String.valueOf(record.getCachedBooleanValue())));
        case ERROR -> sink.cell(record.getColumn(), error(record.getCachedErrorValue()));
        case NUMERIC -> number(record, record.getValue());
        default -> {}
      }
    }

    private static Cell error(int code) {
      return new Cell(
          Cell.Kind.ERROR,
          FormulaError.isValidCode(code) ? FormulaError.forInt(code).getString() : "#VALUE!");
    }

    private void text(int column, String text) {
      if (text != null && !text.isEmpty()) {
        sink.cell(
            column, SheetErrors.isError(text) ? new Cell(Cell.Kind.ERROR, text) : Cell.text(text));
      }
    }

    private void number(CellValueRecordInterface cell, double number) {
      if (!Double.isFinite(number)) {
        sink.cell(cell.getColumn(), new Cell(Cell.Kind.ERROR, "#NUM!"));
        return;
      }
      String format = formats.getFormatString(cell);
      NumberFormat.put(sink, cell.getColumn(), BigDecimal.valueOf(number), format, date1904);
    }

    private void endRow(int row) {
      last = linesBefore + row + 1;
      marks.endLine(row + 1L);
      try {
        sink.endRow(last);
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
  }
}
