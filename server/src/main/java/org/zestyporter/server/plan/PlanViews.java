package org.zestyporter.server.plan;

import java.time.LocalDateTime;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.database.TableInfo;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.plan.Plan;
import org.zestyporter.core.plan.PlanCheck;
import org.zestyporter.core.plan.PlanDraft;
import org.zestyporter.core.source.Evidence;
import org.zestyporter.core.source.FileChange;
import org.zestyporter.core.source.Proposals;
import org.zestyporter.core.source.Reading;
import org.zestyporter.core.source.SheetInfo;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.source.Warning;
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
   */
  public record FieldTrouble(String field, int distinct, int troubled, long rows) {}

  /** Everything that the stops of a plan share. */
  public record PlanView(
      long id,
      int revision,
      String savedBy,
      LocalDateTime savedAt,
      Plan plan,
      SourceView source,
      TableInfo table,
      long tableRecords,
      List<PlanCheck.Matter> matters,
      List<PlanDraft.FillEvidence> evidence,
      List<FieldTrouble> troubles) {}

  /** What can be done with a file: a plan that fits it, or a new plan for a table. */
  public record Proposal(
      @Nullable Long plan, String name, String table, int columns, int of, String because) {}

  /** A row before and after its fills. */
  public record WindowRow(long row, long line, List<Cell> cells, List<FieldValue> values) {}

  /** What a fill gives for a row. */
  public record FieldValue(
      String field, @Nullable String value, @Nullable Problem problem, boolean softened) {}

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
  public record StepHelp(String kind, String title, String help, List<SettingHelp> settings) {}

  /** One setting of a step. */
  public record SettingHelp(String name, String type, boolean required, List<String> choices) {}

  /** A plan to be saved over a revision. */
  public record SavePlan(int revision, Plan plan) {}

  /** A plan to be made for a file. */
  public record NewPlan(long source, String connection, String table) {}

  /** A fill to be tried. */
  public record Trial(Fill fill, int offset, int limit) {}
}
