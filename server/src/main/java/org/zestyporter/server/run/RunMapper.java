package org.zestyporter.server.run;

import java.time.LocalDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface RunMapper {

  @Select("SELECT * FROM execution WHERE id = #{id}")
  ExecutionRecord find(long id);

  @Select("SELECT * FROM execution WHERE kind = 'run' ORDER BY id DESC LIMIT #{limit}")
  List<ExecutionRecord> runs(int limit);

  @Select(
      "SELECT * FROM execution WHERE plan_id = #{plan} AND kind = #{kind} ORDER BY id DESC LIMIT 1")
  ExecutionRecord last(@Param("plan") long plan, @Param("kind") String kind);

  @Select("SELECT COUNT(*) FROM execution WHERE kind = 'run' AND number LIKE #{prefix}")
  int countNumbers(String prefix);

  @Select(
      """
      SELECT id FROM FINAL TABLE (
        INSERT INTO execution (kind, number, plan_id, revision, source_id, rehearsal_id, state,
          started_by, started_at)
        VALUES (#{kind}, #{number}, #{planId}, #{revision}, #{sourceId}, #{rehearsalId}, #{state},
          #{startedBy}, #{startedAt}))""")
  long insert(ExecutionRecord execution);

  @Update(
      """
      UPDATE execution SET state = #{state}, finished_at = #{at}, report_json = #{report},
        code = #{code}, message = #{message}
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
      WHERE state = 'going'""")
  int failInterrupted(LocalDateTime at);

  @Update("UPDATE execution SET state = 'committing', report_json = #{report} WHERE id = #{id}")
  void committing(@Param("id") long id, @Param("report") String report);

  @Update(
      """
      UPDATE execution SET state = 'failed', code = 'unsure', finished_at = #{at},
        message = 'The server stopped at the very moment of making the run lasting. Look whether \
      the records of its ledger are in the table: all of them are, or none.'
      WHERE state = 'committing'""")
  int failUnsure(LocalDateTime at);

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
        changed, unchanged, skipped, rejected, fates, entries)
      VALUES (#{executionId}, #{destination}, #{number}, #{firstLine}, #{lastLine}, #{added},
        #{changed}, #{unchanged}, #{skipped}, #{rejected}, #{fates}, #{entries})""")
  void insertChunk(ChunkRecord chunk);

  @Select(
      """
      SELECT execution_id, destination, number, first_line, last_line, added, changed, unchanged,
        skipped, rejected, fates, NULL AS entries
      FROM ledger_chunk WHERE execution_id = #{id} AND destination = #{destination}
      ORDER BY number""")
  List<ChunkRecord> chunks(@Param("id") long id, @Param("destination") int destination);

  @Select(
      "SELECT * FROM ledger_chunk WHERE execution_id = #{id} AND destination = #{destination}"
          + " AND number = #{number}")
  ChunkRecord chunk(
      @Param("id") long id, @Param("destination") int destination, @Param("number") int number);

  @Delete("DELETE FROM ledger_chunk WHERE execution_id = #{id}")
  void dropChunks(long id);

  /** Ledgers of older rehearsals of a plan; those that a run follows are kept. */
  @Delete(
      """
      DELETE FROM ledger_chunk WHERE execution_id IN (
        SELECT id FROM execution WHERE plan_id = #{plan} AND kind = 'rehearsal' AND id < #{newest}
          AND id NOT IN (SELECT rehearsal_id FROM execution WHERE rehearsal_id IS NOT NULL))""")
  void dropOlderRehearsals(@Param("plan") long plan, @Param("newest") long newest);
}
