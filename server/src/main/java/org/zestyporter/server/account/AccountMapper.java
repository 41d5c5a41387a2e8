package org.zestyporter.server.account;

import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface AccountMapper {

  @Select("SELECT * FROM account WHERE name = #{name}")
  Account find(String name);

  @Select("SELECT COUNT(*) FROM account")
  int count();

  @Insert(
      """
      INSERT INTO account (name, shown_name, password_hash, created_at)
      VALUES (#{name}, #{shownName}, #{passwordHash}, #{createdAt})""")
  void insert(Account account);
}
