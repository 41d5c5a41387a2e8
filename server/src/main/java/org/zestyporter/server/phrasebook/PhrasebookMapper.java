package org.zestyporter.server.phrasebook;

import java.time.LocalDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface PhrasebookMapper {

  @Select("SELECT * FROM phrasebook ORDER BY LOWER(name)")
  List<BookRecord> all();

  @Select("SELECT * FROM phrasebook WHERE id = #{id}")
  BookRecord find(long id);

  @Select("SELECT * FROM phrasebook WHERE name = #{name}")
  BookRecord named(String name);

  @Select(
      """
      SELECT id FROM FINAL TABLE (
        INSERT INTO phrasebook (name, connection, about_table, about_field, saved_by, saved_at)
        VALUES (#{name}, #{connection}, #{aboutTable}, #{aboutField}, #{savedBy}, #{savedAt}))""")
  long insert(BookRecord book);

  @Update("UPDATE phrasebook SET saved_by = #{who}, saved_at = #{at} WHERE id = #{id}")
  void touch(@Param("id") long id, @Param("who") String who, @Param("at") LocalDateTime at);

  @Delete("DELETE FROM phrasebook WHERE id = #{id}")
  void delete(long id);

  @Select("SELECT * FROM phrase WHERE book_id = #{id} ORDER BY LOWER(source_word)")
  List<PhraseRecord> phrases(long id);

  @Select("SELECT * FROM phrase")
  List<PhraseRecord> everyPhrase();

  @Insert(
      """
      MERGE INTO phrase AS p
      USING (VALUES (CAST(#{bookId} AS BIGINT), CAST(#{prepared} AS VARCHAR))) AS n (book_id, prepared)
      ON p.book_id = n.book_id AND p.prepared = n.prepared
      WHEN MATCHED THEN UPDATE SET source_word = #{sourceWord}, target = #{target},
        learnt_by = #{learntBy}, learnt_at = #{learntAt}
      WHEN NOT MATCHED THEN INSERT (book_id, prepared, source_word, target, learnt_by, learnt_at)
        VALUES (#{bookId}, #{prepared}, #{sourceWord}, #{target}, #{learntBy}, #{learntAt})""")
  void put(PhraseRecord phrase);

  @Delete("DELETE FROM phrase WHERE book_id = #{id} AND prepared = #{prepared}")
  int forget(@Param("id") long id, @Param("prepared") String prepared);

  @Update(
      """
      UPDATE phrase SET used = used + #{rows}, last_used = #{at}
      WHERE book_id = #{id} AND prepared = #{prepared}""")
  void used(
      @Param("id") long id,
      @Param("prepared") String prepared,
      @Param("rows") long rows,
      @Param("at") LocalDateTime at);
}
