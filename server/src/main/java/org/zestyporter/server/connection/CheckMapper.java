package org.zestyporter.server.connection;

import java.time.LocalDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface CheckMapper {

  /** A check as it is stored. */
  record CheckRecord(
      String tableName,
      String name,
      String formula,
      @Nullable String message,
      String savedBy,
      LocalDateTime savedAt) {}

  @Select(
      """
      SELECT table_name, name, formula, message, saved_by, saved_at FROM table_check
      WHERE connection = #{connection} ORDER BY table_name, id""")
  List<CheckRecord> of(String connection);

  @Insert(
      """
      MERGE INTO table_check (connection, table_name, name, formula, message, saved_by, saved_at)
      KEY (connection, table_name, name)
      VALUES (#{connection}, #{check.tableName}, #{check.name}, #{check.formula},
        #{check.message}, #{check.savedBy}, #{check.savedAt})""")
  void put(@Param("connection") String connection, @Param("check") CheckRecord check);

  @Delete(
      """
      DELETE FROM table_check
      WHERE connection = #{connection} AND table_name = #{table} AND name = #{name}""")
  void delete(
      @Param("connection") String connection,
      @Param("table") String table,
      @Param("name") String name);

  @Delete("DELETE FROM table_check WHERE connection = #{connection}")
  void deleteAll(String connection);
}
