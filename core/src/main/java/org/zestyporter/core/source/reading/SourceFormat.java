package org.zestyporter.core.source.reading;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** The formats that can be read. */
public enum SourceFormat {
  /** Cells parted by a delimiter (RFC 4180 and its kin). */
  DELIMITED,
  /** Cells of a fixed number of characters. */
  FIXED,
  /** Office Open XML workbook (ECMA-376). */
  XLSX,
  /** Binary workbook of older spreadsheets. */
  XLS,
  /** OpenDocument spreadsheet (OASIS ODF 1.2, ISO/IEC 26300). */
  ODS,
  /** JSON (RFC 8259), whole or one object a line. */
  JSON;

  /** True if the file is text that is read line by line. */
  public boolean isText() {
    return this == DELIMITED || this == FIXED;
  }

  /** True if the file has sheets of cells. */
  public boolean isWorkbook() {
    return this == XLSX || this == XLS || this == ODS;
  }

  @JsonValue
  public String word() {
    return name().toLowerCase(Locale.ROOT);
  }
}
