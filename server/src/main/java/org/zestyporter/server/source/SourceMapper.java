package org.zestyporter.server.source;

import java.time.LocalDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface SourceMapper {

  @Select("SELECT NEXT VALUE FOR source_number")
  long nextId();

  @Select("SELECT * FROM source WHERE id = #{id}")
  SourceRecord find(long id);

  @Select("SELECT * FROM source WHERE dropped_at IS NULL ORDER BY id DESC")
  List<SourceRecord> all();

  /** The file is gone; its name stays for the runs that name it. */
  @Update("UPDATE source SET dropped_at = #{at} WHERE id = #{id}")
  void gone(@Param("id") long id, @Param("at") LocalDateTime at);

  @Insert(
      """
      INSERT INTO source (id, name, bytes, sha256, row_count, columns_json, uploaded_by, uploaded_at)
      VALUES (#{id}, #{name}, #{bytes}, #{sha256}, #{rowCount}, #{columnsJson}, #{uploadedBy},
        #{uploadedAt})""")
  void insert(SourceRecord source);

  @Update("UPDATE source SET row_count = #{rowCount}, columns_json = #{columns} WHERE id = #{id}")
  void describe(
      @Param("id") long id, @Param("rowCount") long rowCount, @Param("columns") String columns);

  @Delete("DELETE FROM source WHERE id = #{id}")
  void drop(long id);
}
