package org.zestyporter.server.run;

import java.time.LocalDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.zestyporter.core.run.LedgerLayout;

@Mapper
interface RunMapper {

  @Select("SELECT * FROM execution WHERE id = #{id}")
  ExecutionRecord find(long id);

  @Select("SELECT * FROM execution WHERE kind <> 'rehearsal' ORDER BY id DESC LIMIT #{limit}")
  List<ExecutionRecord> runs(int limit);

  @Select(
      "SELECT * FROM execution WHERE plan_id = #{plan} AND kind = #{kind} ORDER BY id DESC LIMIT 1")
  ExecutionRecord last(@Param("plan") long plan, @Param("kind") String kind);

  @Select("SELECT id FROM execution WHERE state = #{state} ORDER BY id")
  List<Long> inState(String state);

  @Select(
      "SELECT id FROM execution WHERE plan_id = #{plan} ORDER BY rehearsal_id NULLS LAST, id DESC")
  List<Long> ofPlan(long plan);

  /** Later runs, by whatever plan, in their order. */
  @Select("SELECT id FROM execution WHERE kind = 'run' AND id > #{id} ORDER BY id")
  List<Long> runsAfter(long id);

  @Select("SELECT COUNT(*) FROM execution WHERE plan_id = #{plan} AND kind = #{kind}")
  int count(@Param("plan") long plan, @Param("kind") String kind);

  @Select(
      "SELECT COUNT(*) FROM execution WHERE plan_id = #{plan} AND state IN ('going', 'committing')")
  int countOpen(long plan);

  @Select(
      """
      SELECT last_number FROM FINAL TABLE (
        MERGE INTO run_number AS n USING (VALUES (CAST(#{year} AS INTEGER))) AS y (run_year)
        ON n.run_year = y.run_year
        WHEN MATCHED THEN UPDATE SET last_number = n.last_number + 1
        WHEN NOT MATCHED THEN INSERT (run_year, last_number) VALUES (y.run_year, 1))""")
  int nextNumber(int year);

  @Update("UPDATE execution SET number = #{number} WHERE id = #{id}")
  void number(@Param("id") long id, @Param("number") String number);

  @Select(
      """
      SELECT id FROM FINAL TABLE (
        INSERT INTO execution (kind, number, plan_id, revision, source_id, rehearsal_id, state,
          started_by, started_at, undoes_id)
        VALUES (#{kind}, #{number}, #{planId}, #{revision}, #{sourceId}, #{rehearsalId}, #{state},
          #{startedBy}, #{startedAt}, #{undoesId}))""")
  long insert(ExecutionRecord execution);

  @Update(
      """
      UPDATE execution SET state = #{state}, finished_at = #{at}, report_json = #{report},
        code = #{code}, message = #{message}, next_rows = NULL, next_report_json = NULL
      WHERE id = #{id}""")
  void finish(
      @Param("id") long id,
      @Param("state") String state,
      @Param("at") LocalDateTime at,
      @Param("report") String report,
      @Param("code") String code,
      @Param("message") String message);

  @Update(
      """
      UPDATE execution SET state = 'failed', code = 'interrupted', finished_at = #{at},
        message = 'The server stopped while it went on. Nothing was written.'
      WHERE id = #{id}""")
  void failInterrupted(@Param("id") long id, @Param("at") LocalDateTime at);

  /** The plan of the run that has a number; null if none has it. */
  @Select("SELECT plan_id FROM execution WHERE number = #{number}")
  @Nullable Long planOf(String number);

  @Update("UPDATE execution SET begun = begun + 1 WHERE id = #{id}")
  void beginAgain(long id);

  @Update(
      """
      UPDATE execution SET state = 'committing', next_report_json = #{report}, mark = #{mark},
        next_rows = #{rows}
      WHERE id = #{id}""")
  void committing(
      @Param("id") long id,
      @Param("rows") long rows,
      @Param("report") String report,
      @Param("mark") String mark);

  /** The batch that was being committed stands, and the run goes on. */
  @Update(
      """
      UPDATE execution SET state = 'going', batches = batches + 1, batch_rows = next_rows,
        report_json = next_report_json, next_rows = NULL, next_report_json = NULL, mark = NULL
      WHERE id = #{id}""")
  void committed(long id);

  /** It ends between two batches; what stands of it stays. */
  @Update(
      """
      UPDATE execution SET state = #{state}, finished_at = #{at}, code = #{code},
        message = #{message}, next_rows = NULL, next_report_json = NULL, mark = NULL
      WHERE id = #{id}""")
  void cutOff(
      @Param("id") long id,
      @Param("state") String state,
      @Param("at") LocalDateTime at,
      @Param("code") String code,
      @Param("message") String message);

  /** It goes on after it was cut off; 0 if it is not cut off any more. */
  @Update(
      """
      UPDATE execution SET state = 'going', finished_at = NULL, code = NULL, message = NULL
      WHERE id = #{id} AND state IN ('paused', 'interrupted')""")
  int goOn(long id);

  /**
   * Takes away the chunks of batches that don't stand, and those that were open before the last.
   */
  @Delete(
      """
      DELETE FROM ledger_chunk WHERE execution_id = #{id}
        AND (batch > #{batches} OR is_open AND batch < #{batches})""")
  void dropChunksBeyond(@Param("id") long id, @Param("batches") int batches);

  /** Takes away what was open, since all is decided now. */
  @Delete("DELETE FROM ledger_chunk WHERE execution_id = #{id} AND is_open")
  void dropOpenChunks(long id);

  @Update("UPDATE execution SET message = #{message} WHERE id = #{id} AND state = 'committing'")
  void waiting(@Param("id") long id, @Param("message") String message);

  @Insert(
      """
      INSERT INTO ledger_destination (execution_id, destination, table_name, fields_json)
      VALUES (#{id}, #{destination}, #{table}, #{fields})""")
  void insertDestination(
      @Param("id") long id,
      @Param("destination") int destination,
      @Param("table") String table,
      @Param("fields") String fields);

  @Select(
      "SELECT fields_json FROM ledger_destination WHERE execution_id = #{id}"
          + " AND destination = #{destination}")
  String fields(@Param("id") long id, @Param("destination") int destination);

  @Insert(
      """
      INSERT INTO ledger_chunk (execution_id, destination, number, first_line, last_line, added,
        changed, unchanged, skipped, rejected, fates, entries, removed, batch, is_open)
      VALUES (#{executionId}, #{destination}, #{number}, #{firstLine}, #{lastLine}, #{added},
        #{changed}, #{unchanged}, #{skipped}, #{rejected}, #{fates}, #{entries}, #{removed},
        #{batch}, #{isOpen})""")
  void insertChunk(ChunkRecord chunk);

  @Select(
      """
      SELECT execution_id, destination, number, first_line, last_line, added, changed, unchanged,
        skipped, rejected, fates, NULL AS entries, removed, batch, is_open
      FROM ledger_chunk WHERE execution_id = #{id} AND destination = #{destination}
      ORDER BY number""")
  List<ChunkRecord> chunks(@Param("id") long id, @Param("destination") int destination);

  @Select(
      "SELECT * FROM ledger_chunk WHERE execution_id = #{id} AND destination = #{destination}"
          + " AND number = #{number} ORDER BY batch DESC LIMIT 1")
  ChunkRecord chunk(
      @Param("id") long id, @Param("destination") int destination, @Param("number") int number);

  /** The destinations that a ledger tells of, without those of linked records. */
  default List<Integer> destinations(long id) {
    return destinationsUnder(id, LedgerLayout.MADE);
  }

  @Select(
      "SELECT destination FROM ledger_destination WHERE execution_id = #{id}"
          + " AND destination < #{limit} ORDER BY destination")
  List<Integer> destinationsUnder(@Param("id") long id, @Param("limit") int limit);

  /** All that a ledger tells of, as the layouts' JSON. */
  @Select(
      "SELECT fields_json FROM ledger_destination WHERE execution_id = #{id} ORDER BY destination")
  List<String> layouts(long id);

  /** Undos of a run that stand or are going, the newest first. */
  @Select(
      """
      SELECT * FROM execution
      WHERE undoes_id = #{id} AND state IN ('going', 'committing', 'done') ORDER BY id DESC""")
  List<ExecutionRecord> undosOf(long id);

  /** Takes away what looks like outcomes of rows. */
  default void dropLedger(long id) {
    dropChunks(id);
    dropDestinations(id);
  }

  /** Takes an execution away with all that is of it. */
  default void drop(long id) {
    dropLedger(id);
    unfollow(id);
    dropExecution(id);
  }

  @Delete("DELETE FROM ledger_chunk WHERE execution_id = #{id}")
  void dropChunks(long id);

  @Delete("DELETE FROM ledger_destination WHERE execution_id = #{id}")
  void dropDestinations(long id);

  @Update(
      """
      UPDATE execution SET rehearsal_id = NULLIF(rehearsal_id, #{id}),
        undoes_id = NULLIF(undoes_id, #{id})
      WHERE rehearsal_id = #{id} OR undoes_id = #{id}""")
  void unfollow(long id);

  @Delete("DELETE FROM execution WHERE id = #{id}")
  void dropExecution(long id);

  /** The last rehearsal of the same plan that was done before another; null if there is none. */
  @Select(
      """
      SELECT * FROM execution WHERE plan_id = #{planId} AND kind = 'rehearsal' AND id < #{id}
        AND state = 'done' ORDER BY id DESC LIMIT 1""")
  @Nullable ExecutionRecord doneBefore(ExecutionRecord rehearsal);

  /**
   * Older rehearsals of a plan; those that a run follows are kept, and the one before, with which
   * the newest is compared.
   */
  @Select(
      """
      SELECT id FROM execution WHERE plan_id = #{plan} AND kind = 'rehearsal' AND id < #{newest}
        AND state NOT IN ('going', 'committing')
        AND id <> COALESCE((SELECT MAX(id) FROM execution WHERE plan_id = #{plan}
          AND kind = 'rehearsal' AND state = 'done' AND id < #{newest}), 0)
        AND id NOT IN (SELECT rehearsal_id FROM execution WHERE rehearsal_id IS NOT NULL)""")
  List<Long> olderRehearsals(@Param("plan") long plan, @Param("newest") long newest);

  /** Runs and undos that ended before a time and have a ledger that nothing needs now. */
  @Select(
      """
      SELECT e.id FROM execution e
      WHERE e.kind <> 'rehearsal' AND e.state NOT IN ('going', 'committing')
        AND e.finished_at < #{before}
        AND EXISTS (SELECT 1 FROM ledger_destination d WHERE d.execution_id = e.id)
        AND NOT EXISTS (SELECT 1 FROM execution u
          WHERE u.undoes_id = e.id AND u.state IN ('going', 'committing'))""")
  List<Long> ledgersBefore(LocalDateTime before);

  /** What the ledger of a run takes. */
  record LedgerSize(long id, long bytes) {}

  /** What the ledgers of ended runs and undos take that nothing needs now, the newest first. */
  @Select(
      """
      SELECT e.id AS id, SUM(OCTET_LENGTH(c.entries)) AS bytes FROM execution e
      JOIN ledger_chunk c ON c.execution_id = e.id
      WHERE e.kind <> 'rehearsal' AND e.state NOT IN ('going', 'committing')
        AND NOT EXISTS (SELECT 1 FROM execution u
          WHERE u.undoes_id = e.id AND u.state IN ('going', 'committing'))
      GROUP BY e.id ORDER BY e.id DESC""")
  List<LedgerSize> ledgerSizes();
}
