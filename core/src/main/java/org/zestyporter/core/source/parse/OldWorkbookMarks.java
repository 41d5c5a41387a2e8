package org.zestyporter.core.source.parse;

import java.util.ArrayList;
import java.util.List;
import org.apache.poi.hssf.record.CellValueRecordInterface;
import org.apache.poi.hssf.record.ExtendedFormatRecord;
import org.apache.poi.hssf.record.ExternSheetRecord;
import org.apache.poi.hssf.record.FontRecord;
import org.apache.poi.hssf.record.MergeCellsRecord;
import org.apache.poi.hssf.record.NameRecord;
import org.apache.poi.hssf.record.PaneRecord;
import org.apache.poi.hssf.record.Record;
import org.apache.poi.hssf.record.WindowTwoRecord;
import org.apache.poi.ss.formula.ptg.Area3DPtg;
import org.apache.poi.ss.formula.ptg.AreaPtgBase;
import org.apache.poi.ss.formula.ptg.Ptg;
import org.apache.poi.ss.util.CellRangeAddress;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.source.reading.SheetMarks;

/** Collects what the records of an older workbook show of a sheet beside its cells. */
final class OldWorkbookMarks {
  private static final int BOLD = 700;

  /** There is no font of this number; those behind it are counted as if there were. */
  private static final int NO_FONT = 4;

  private final SheetMarks.Builder marks = new SheetMarks.Builder();
  private final List<Boolean> boldFonts = new ArrayList<>();
  private final List<Integer> fontsOfFormats = new ArrayList<>();
  private final List<NameRecord> names = new ArrayList<>();
  private @Nullable ExternSheetRecord sheets;
  private boolean frozen;
  private boolean any;
  private boolean allBold = true;

  /** Takes a record of the workbook's own. */
  void ofBook(Record record) {
    if (record instanceof FontRecord font) {
      boldFonts.add(font.getBoldWeight() >= BOLD);
    } else if (record instanceof ExtendedFormatRecord format) {
      fontsOfFormats.add((int) format.getFontIndex());
    } else if (record instanceof NameRecord name) {
      names.add(name);
    } else if (record instanceof ExternSheetRecord all) {
      sheets = all;
    }
  }

  /** Takes a record of the sheet. */
  void ofSheet(Record record) {
    if (record instanceof MergeCellsRecord merged) {
      for (int i = 0; i < merged.getNumAreas(); i++) {
        CellRangeAddress area = merged.getAreaAt(i);
        marks.merged(area.getFirstRow() + 1L, area.getFirstColumn(), area.getLastColumn());
      }
    } else if (record instanceof WindowTwoRecord window) {
      frozen = window.getFreezePanes();
    } else if (record instanceof PaneRecord pane && frozen) {
      marks.head(pane.getY(), SheetMarks.Why.FROZEN);
    }
  }

  /** A filled cell of the line at hand. */
  void cell(CellValueRecordInterface cell) {
    any = true;
    allBold &= isBold(cell.getXFIndex());
  }

  void endLine(long line) {
    if (any) {
      marks.line(line, allBold);
    }
    any = false;
    allBold = true;
  }

  private boolean isBold(int format) {
    if (format < 0 || format >= fontsOfFormats.size()) {
      return false;
    }
    int font = fontsOfFormats.get(format);
    int place = font > NO_FONT ? font - 1 : font;
    return place < boldFonts.size() && boldFonts.get(place);
  }

  /**
   * The marks of the sheet.
   *
   * @param sheet its number in the workbook, from 0
   */
  SheetMarks build(int sheet) {
    for (NameRecord name : names) {
      if (!name.isBuiltInName()) {
        named(name, sheet);
        continue;
      }
      SheetMarks.Why why =
          switch (name.getBuiltInName()) {
            case NameRecord.BUILTIN_FILTER_DB -> SheetMarks.Why.FILTER;
            case NameRecord.BUILTIN_PRINT_TITLE -> SheetMarks.Why.PRINTED;
            default -> null;
          };
      if (why == null || name.getSheetNumber() != sheet + 1) {
        continue;
      }
      for (Ptg part : name.getNameDefinition()) {
        // the columns that are printed on every page are all lines long
        if (part instanceof AreaPtgBase area && area.getLastRow() < 0xFFFF) {
          int line = why == SheetMarks.Why.FILTER ? area.getFirstRow() : area.getLastRow();
          marks.head(line + 1L, why);
        }
      }
    }
    return marks.build();
  }

  /** A range that has a name which a person gave. */
  private void named(NameRecord name, int sheet) {
    Ptg[] parts = name.isFunctionName() ? null : name.getNameDefinition();
    if (sheets == null || parts == null || parts.length != 1) {
      return;
    }
    boolean isHere =
        parts[0] instanceof Area3DPtg on
            && on.getExternSheetIndex() < sheets.getNumOfRefs()
            && sheets.getFirstSheetIndexFromRefIndex(on.getExternSheetIndex()) == sheet;
    if (isHere && parts[0] instanceof Area3DPtg area) {
      marks.named(
          area.getFirstRow() + 1L,
          area.getLastRow() + 1L,
          area.getFirstColumn(),
          area.getLastColumn());
    }
  }
}
