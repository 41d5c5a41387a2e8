package org.zestyporter.core.source;

import de.siegmar.fastcsv.reader.CommentStrategy;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.PorterException;

/** Delimited text after RFC 4180, with any delimiter and quote, ragged rows allowed. */
final class DelimitedParser implements RowParser {

  @Override
  public void parse(Path file, Reading reading, RowSink sink) throws IOException {
    try (InputStream in = Files.newInputStream(file);
        CsvReader<CsvRecord> reader =
            CsvReader.builder()
                .fieldSeparator(reading.delimiter().charAt(0))
                .quoteCharacter(reading.quote().charAt(0))
                .commentStrategy(CommentStrategy.NONE)
                .skipEmptyLines(false)
                .allowExtraFields(true)
                .allowMissingFields(true)
                .allowExtraCharsAfterClosingQuote(true)
                .allowUnclosedQuote(false)
                .detectBomHeader(true)
                .ofCsvRecord(in, Charset.forName(reading.encoding()))) {
      for (CsvRecord csv : reader) {
        int width = csv.getFieldCount();
        List<Cell> cells = new ArrayList<>(width);
        for (int i = 0; i < width; i++) {
          cells.add(Cell.text(csv.getField(i)));
        }
        sink.row(csv.getStartingLineNumber(), cells);
      }
    } catch (CsvParseException e) {
      throw new PorterException(
          PorterException.Kind.INPUT,
          "broken-text",
          "The text can't be parted into cells: a quote ("
              + reading.quote()
              + ") is opened and never closed, or a cell is far too long. Look for a stray quote, or"
              + " choose another quote character.",
          e);
    }
  }
}
