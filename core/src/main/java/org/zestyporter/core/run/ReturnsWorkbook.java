package org.zestyporter.core.run;

import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.dhatim.fastexcel.Range;
import org.dhatim.fastexcel.VisibilityState;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.source.reading.CellFormat;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.PorterException;

/**
 * Writes returns as a workbook (ECMA-376): the failing cells are marked and commented, and offer
 * the choices of their field, or the words that its link knows if these are not too many.
 */
final class ReturnsWorkbook implements Returns.Lines {
  private static final int MOST_CHOICES = 500;
  private static final int LONGEST_COMMENT = 400;
  private static final int EXACT_DIGITS = 15;
  private static final String MARKED = "FAE0E4";

  private final Workbook book;
  private final Choices choices;
  private @Nullable Worksheet sheet;

  /** How the columns' numbers and moments were shown in the file, by place. */
  private final Map<Integer, String> ofNumbers = new HashMap<>();

  private final Map<Integer, String> ofMoments = new HashMap<>();
  private final Function<Returns.Place, List<Integer>> feeding;

  /**
   * @param feeding gives the columns that feed a field
   * @param kept by the places of columns, which ones of the sheet they were
   */
  ReturnsWorkbook(
      OutputStream out,
      OpenedPlan opened,
      Function<Returns.Place, List<Integer>> feeding,
      List<Integer> kept) {
    this.book = new Workbook(out, "Zesty Porter", "1.0");
    this.choices = new Choices(book, opened);
    this.feeding = feeding;
    for (CellFormat format : opened.source().formats()) {
      int place = kept.indexOf(format.column());
      if (place >= 0) {
        (format.moment() ? ofMoments : ofNumbers).put(place, format.code());
      }
    }
  }

  @Override
  public void sheet(String name) {
    sheet = book.newWorksheet(name);
  }

  @Override
  public void line(long line, List<Cell> cells, Returns.@Nullable Rejected why) {
    int row = (int) line - 1;
    for (int c = 0; c < cells.size(); c++) {
      put(row, c, cells.get(c));
    }
    if (why == null) {
      return;
    }
    // the reasons, which stand before the line
    sheet.style(row, cells.size() - 2).fillColor(MARKED).set();
    for (Returns.Place place : why.fields()) {
      for (int c : feeding.apply(place)) {
        sheet.style(row, c).fillColor(MARKED).set();
        sheet.comment(row, c, comment(why, place));
        choices.offer(sheet, row, c, place);
      }
    }
  }

  /** Writes what is left. */
  void finish() throws IOException {
    book.finish();
  }

  private static String comment(Returns.Rejected why, Returns.Place place) {
    String said =
        String.join(
            "\n", why.reasons().stream().filter(r -> r.startsWith(place.field() + ": ")).toList());
    return said.length() > LONGEST_COMMENT ? said.substring(0, LONGEST_COMMENT) + "…" : said;
  }

  private void put(int row, int column, Cell cell) {
    Object value = cell.kind() == Cell.Kind.ERROR ? cell.text() : cell.value();
    if (value instanceof BigDecimal number && number.precision() <= EXACT_DIGITS) {
      sheet.value(row, column, number);
      if (ofNumbers.containsKey(column)) {
        sheet.style(row, column).format(ofNumbers.get(column)).set();
      }
    } else if (value instanceof LocalDate day) {
      sheet.value(row, column, day);
      sheet.style(row, column).format(ofMoments.getOrDefault(column, "yyyy-mm-dd")).set();
    } else if (value instanceof LocalDateTime moment) {
      sheet.value(row, column, moment);
      sheet.style(row, column).format(ofMoments.getOrDefault(column, "yyyy-mm-dd hh:mm:ss")).set();
    } else if (value instanceof Boolean truth) {
      sheet.value(row, column, truth);
    } else if (!cell.text().isEmpty()) {
      sheet.value(row, column, cell.text());
    }
  }

  /** Lists of what fields may hold, on a sheet that is not shown. */
  private static final class Choices {
    private final Workbook book;
    private final OpenedPlan opened;

    /** By field, its column on the sheet of choices; null if it has none, or too many. */
    private final Map<Returns.Place, @Nullable Range> listed = new HashMap<>();

    private int columns;
    private @Nullable Worksheet sheet;

    Choices(Workbook book, OpenedPlan opened) {
      this.book = book;
      this.opened = opened;
    }

    /** Offers the choices of a field in a cell, if it has any. */
    void offer(Worksheet in, int row, int column, Returns.Place place) {
      if (!listed.containsKey(place)) {
        listed.put(place, list(choices(place)));
      }
      Range choices = listed.get(place);
      if (choices != null) {
        in.range(row, column, row, column)
            .validateWithList(choices)
            .errorTitle("")
            .error("")
            .showErrorMessage(false);
      }
    }

    private Collection<String> choices(Returns.Place place) {
      Destination destination = opened.plan().destinations().get(place.destination());
      TableInfo table = opened.table(destination);
      FieldInfo field = table.find(place.field());
      Fill fill =
          destination.fills().stream()
              .filter(f -> f.field().equalsIgnoreCase(place.field()))
              .findFirst()
              .orElse(null);
      if (field == null || fill == null) {
        return List.of();
      }
      try {
        boolean isLink = field.choices() == null && field.link() != null;
        return isLink && opened.application().count(linked(field)) > MOST_CHOICES
            ? List.of()
            : KnownWords.of(opened.application(), table, fill, MOST_CHOICES + 1);
      } catch (PorterException e) {
        // rejected rows can be taken away though the application can't be read just now
        return List.of();
      }
    }

    private TableInfo linked(FieldInfo field) {
      return opened.application().table(field.link().table());
    }

    private @Nullable Range list(Collection<String> choices) {
      if (choices.isEmpty() || choices.size() > MOST_CHOICES) {
        return null;
      }
      if (sheet == null) {
        sheet = book.newWorksheet("choices");
        sheet.setVisibilityState(VisibilityState.HIDDEN);
      }
      int at = columns++;
      int row = 0;
      for (String choice : choices) {
        sheet.value(row++, at, choice);
      }
      return sheet.range(0, at, row - 1, at);
    }
  }
}
