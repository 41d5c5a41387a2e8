package org.zestyporter.server.plan;

import java.time.LocalDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface PlanMapper {

  @Select("SELECT * FROM plan WHERE id = #{id}")
  PlanRecord find(long id);

  @Select("SELECT * FROM plan ORDER BY opened_at DESC, id DESC")
  List<PlanRecord> all();

  @Select(
      """
      SELECT id FROM FINAL TABLE (
        INSERT INTO plan (name, source_id, revision, document, evidence_json, drafted_json, columns_json,
          saved_by, saved_at, opened_at)
        VALUES (#{name}, #{sourceId}, #{revision}, #{document}, #{evidenceJson}, #{draftedJson},
          #{columnsJson},
          #{savedBy}, #{savedAt}, #{openedAt}))""")
  long insert(PlanRecord plan);

  @Insert(
      """
      INSERT INTO plan_revision (plan_id, revision, document, saved_by, saved_at)
      VALUES (#{id}, #{revision}, #{document}, #{savedBy}, #{savedAt})""")
  void insertRevision(PlanRecord plan);

  /** Saves a later revision; changes nothing if somebody has saved since. */
  @Update(
      """
      UPDATE plan SET name = #{name}, revision = #{revision}, document = #{document},
        evidence_json = #{evidenceJson}, drafted_json = #{draftedJson},
        saved_by = #{savedBy}, saved_at = #{savedAt}
      WHERE id = #{id} AND revision = #{revision} - 1""")
  int save(PlanRecord plan);

  @Update(
      "UPDATE plan SET source_id = #{source}, columns_json = #{columns}, opened_at = #{at}"
          + " WHERE id = #{id}")
  void useSource(
      @Param("id") long id,
      @Param("source") long source,
      @Param("columns") String columns,
      @Param("at") LocalDateTime at);

  @Update("UPDATE plan SET opened_at = #{at} WHERE id = #{id}")
  void opened(@Param("id") long id, @Param("at") LocalDateTime at);

  @Select("SELECT document FROM plan_revision WHERE plan_id = #{id} AND revision = #{revision}")
  String document(@Param("id") long id, @Param("revision") int revision);

  @Select("SELECT name FROM plan WHERE source_id = #{source} ORDER BY name")
  List<String> reading(long source);

  @Delete("DELETE FROM plan_revision WHERE plan_id = #{id}")
  void dropRevisions(long id);

  @Delete("DELETE FROM plan WHERE id = #{id}")
  void drop(long id);
}
