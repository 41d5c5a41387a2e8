package org.zestyporter.server.connection;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface ConnectionMapper {

  @Select("SELECT * FROM connection ORDER BY created_at DESC, id DESC")
  List<ConnectionRecord> newest();

  @Select("SELECT * FROM connection ORDER BY name")
  List<ConnectionRecord> all();

  @Select("SELECT * FROM connection WHERE name = #{name}")
  ConnectionRecord find(String name);

  @Insert(
      """
      INSERT INTO connection (name, shown_name, url, db_user, secret, created_at, settings_json)
      VALUES (#{name}, #{shownName}, #{url}, #{dbUser}, #{secret}, #{createdAt},
        #{settingsJson})""")
  void insert(ConnectionRecord connection);

  @Update(
      """
      UPDATE connection SET shown_name = #{shownName}, url = #{url}, db_user = #{user},
        secret = #{secret}, settings_json = #{settings} WHERE name = #{name}""")
  void update(
      String name, String shownName, String url, String user, byte[] secret, String settings);

  @Delete("DELETE FROM connection WHERE name = #{name}")
  void delete(String name);
}
