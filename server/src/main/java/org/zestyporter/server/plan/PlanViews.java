package org.zestyporter.server.plan;

import java.time.LocalDateTime;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.draft.ProposedTable;
import org.zestyporter.core.formula.Function;
import org.zestyporter.core.formula.Kind;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanCheck;
import org.zestyporter.core.plan.TableCheck;
import org.zestyporter.core.source.Correction;
import org.zestyporter.core.source.FileChange;
import org.zestyporter.core.source.Proposals;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.Warning;
import org.zestyporter.core.source.reading.Evidence;
import org.zestyporter.core.source.reading.Reading;
import org.zestyporter.core.source.reading.SheetInfo;
import org.zestyporter.core.value.Cell;
import org.zestyporter.core.value.ColumnProfile;
import org.zestyporter.core.value.Problem;

/** What the interface is told of plans. */
public final class PlanViews {
  private PlanViews() {}

  /** A plan in a list. */
  public record PlanSummary(
      long id,
      String name,
      String connection,
      String table,
      @Nullable String source,
      int revision,
      String savedBy,
      LocalDateTime savedAt,
      LocalDateTime openedAt) {}

  /**
   * A file as a plan reads it.
   *
   * @param lines number of its last line
   * @param width columns of its widest line
   * @param entries files of the archive; empty if it is none
   * @param titles the columns of the sheet before anything is folded or left out
   * @param proposals what could be done with the file
   * @param changes how it differs from the file that the plan was made with
   */
  public record SourceView(
      long id,
      String name,
      long rows,
      long blankRows,
      long lines,
      int width,
      Reading reading,
      List<SheetInfo> sheets,
      List<String> entries,
      List<SourceTable.ColumnInFile> titles,
      List<ColumnProfile> columns,
      List<Evidence> evidence,
      List<Warning> warnings,
      Proposals proposals,
      List<FileChange> changes) {}

  /**
   * Values of a field that can't be taken.
   *
   * @param troubled distinct values
   * @param rows rows behind them
   * @param questions rows of them that answers would free
   * @param noted rows that go on without their value, or with a part of it
   */
  public record FieldTrouble(
      String field, int distinct, int troubled, long rows, long questions, long noted) {}

  /**
   * One of the tables that a plan fills.
   *
   * @param name what the plan calls it
   * @param parent number of the destination whose records these belong to; null if there is none
   * @param parentField the field that takes the key of these; null if there is none
   * @param rows rows of the file that go there, or parts of them
   * @param matters what keeps the plan from being rehearsed there
   * @param troubled rows that can't be taken, and those of them that answers would free; a row
   *     counts with each of its fields
   */
  public record TableView(
      String name,
      String table,
      @Nullable Integer parent,
      @Nullable String parentField,
      long rows,
      List<PlanCheck.Matter> matters,
      long troubled,
      long questions) {}

  /**
   * A table that a plan could fill besides.
   *
   * @param destination what would be added to the plan, under a name that is free
   * @param evidence why its fields are filled so
   * @param above the destination whose records are to belong to those of this one, which is written
   *     before it then; null if there is none
   */
  public record FurtherTable(
      Destination destination, List<ProposedTable.FillEvidence> evidence, @Nullable String above) {}

  /**
   * Everything that the stops of a plan share.
   *
   * @param shown number of the destination that {@code table} to {@code checks} are of, from 0
   * @param drafted number of the destination that was drafted, whose fields have evidence and
   *     follow another reading
   * @param tables all destinations, in writing order
   * @param checks the checks of the table
   * @param lapsed corrections whose cells hold something else by now
   * @param followed fields that are filled otherwise since the file is read otherwise; told once,
   *     when that is saved
   */
  public record PlanView(
      long id,
      int revision,
      String savedBy,
      LocalDateTime savedAt,
      Plan plan,
      SourceView source,
      int shown,
      int drafted,
      List<TableView> tables,
      TableInfo table,
      long tableRecords,
      List<PlanCheck.Matter> matters,
      List<ProposedTable.FillEvidence> evidence,
      List<FieldTrouble> troubles,
      List<TableCheck> checks,
      List<Correction> lapsed,
      List<String> followed) {

    PlanView withFollowed(List<String> fields) {
      return new PlanView(
          id,
          revision,
          savedBy,
          savedAt,
          plan,
          source,
          shown,
          drafted,
          tables,
          table,
          tableRecords,
          matters,
          evidence,
          troubles,
          checks,
          lapsed,
          fields);
    }
  }

  /**
   * What can be done with a file: a plan that fits it, or a new plan for a table.
   *
   * @param connection where the table is; null for a plan, which knows it
   * @param besides tables that belong to it and take columns which it leaves; null if there are
   *     none
   */
  public record Proposal(
      @Nullable Long plan,
      String name,
      @Nullable String connection,
      String table,
      int columns,
      int of,
      String because,
      @Nullable Besides besides) {}

  /**
   * What further tables would take of a file.
   *
   * @param tables their names in the plan
   * @param columns how many columns they take together
   */
  public record Besides(List<String> tables, int columns) {}

  /**
   * A row before and after its fills.
   *
   * @param records how many records it has for the table; 0 if it does not go there
   * @param values of the first of them
   * @param broken what a check of the table has against it; null if nothing
   */
  public record WindowRow(
      long row,
      long line,
      List<Cell> cells,
      int records,
      List<FieldValue> values,
      @Nullable String broken) {}

  /** What a fill gives for a row. */
  public record FieldValue(
      String field,
      @Nullable String value,
      @Nullable Problem problem,
      boolean softened,
      boolean question) {}

  /**
   * A raw line of the file.
   *
   * @param line its number, counted through all sheets if several are read as one
   * @param lineOfSheet its number in its sheet
   * @param sheet its sheet if several are read as one
   */
  public record RawLine(
      long line, long lineOfSheet, @Nullable String sheet, String role, List<Cell> cells) {}

  /** A reading to be tried. */
  public record ReadingTrial(Reading reading, long from, int count) {}

  /** Records as a reading gives them. */
  public record ReadingPreview(
      long rows, List<String> columns, List<PreviewRow> records, List<Warning> warnings) {}

  /** A record before any fill. */
  public record PreviewRow(long line, List<Cell> cells) {}

  /** Settings of a step, as the interface offers them. */
  public record StepHelp(
      String kind, String group, String title, String help, List<SettingHelp> settings) {}

  /** One setting of a step. */
  public record SettingHelp(String name, String type, boolean required, List<String> choices) {}

  /** A plan to be saved over a revision. */
  public record SavePlan(int revision, Plan plan) {}

  /** A plan to be made for a file. */
  public record NewPlan(long source, String connection, String table, @Nullable Boolean besides) {}

  /**
   * A column that could feed a field.
   *
   * @param fill what a draft would make of it
   * @param because why it could, in words
   * @param samples some of its values
   * @param passes rows whose value the field could take
   * @param rows all of them
   */
  public record Offer(
      String column, Fill fill, String because, List<String> samples, long passes, long rows) {}

  /** A fill to be tried. */
  public record FillTrial(Fill fill, int offset, int limit) {}

  /** A fill for which steps are to be tried, at a place or, under 0, at every place. */
  public record StepSearch(Fill fill, int at) {}

  /**
   * A formula to be tried.
   *
   * @param fill the fill that it is for, with the steps before it if it is a step's
   * @param inStep true if it may name the value so far
   * @param row index of the record that it is shown for
   */
  public record FormulaTrial(Fill fill, String formula, boolean inStep, long row) {}

  /**
   * What a formula gives.
   *
   * @param kind type of its values; null if it can't be used
   * @param value for the record in hand, as text; null if blank
   * @param problem what the record's value is refused for
   * @param message why the formula can't be used; null if it can
   * @param from first character at fault, from 0
   * @param to the character after the last one at fault
   */
  public record FormulaResult(
      @Nullable Kind kind,
      @Nullable String value,
      @Nullable Problem problem,
      @Nullable String message,
      int from,
      int to) {}

  /** A plan's field that uses a phrasebook. */
  public record BookUse(long plan, String name, String table, String field) {}

  /** A word of the source for which the application's values are wanted. */
  public record WordSearch(Fill fill, String word) {}

  /**
   * A value of the application that may be meant by a word.
   *
   * @param near true if it is probably the word spelt otherwise
   */
  public record Suggestion(String value, boolean near) {}

  /** A function of formulas, for those who write them. */
  public record FunctionHelp(
      String name,
      String group,
      String signature,
      String says,
      boolean ours,
      List<Function.Example> examples) {}
}
