package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.run.MemoryLedger;
import org.zestyporter.core.run.Runs;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** A file of Thailand, whose years are 543 ahead, for a table with English names. */
class BuddhistYearsTest {
  private static final String[] LINES = {
    "เลขที่สมาชิก;ชื่อ;นามสกุล;วันเกิด;วันที่สมัคร",
    "1;สมชาย;ใจดี;15/03/2530;1 ม.ค. 2560",
    "2;ปราณี;รักไทย;29/02/2543;30 มิ.ย. 2561",
    "3;วิชัย;ทองคำ;01/12/2499;12 ธันวาคม พ.ศ. 2562"
  };

  @TempDir Path folder;

  @Test
  void areReadAsTheyAreMeant() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute(
          "CREATE TABLE member (member_no INTEGER PRIMARY KEY, first_name VARCHAR(20),"
              + " last_name VARCHAR(20), birth_date DATE, joined_on DATE)");
      Destination drafted;
      try (SourceTable source = PlanDraftTest.file(folder, LINES)) {
        drafted =
            new PlanDraft(on.database(), source).draft(on.database().table("member")).destination();
      }
      assertThat(drafted.fills().get(3).steps())
          .containsExactly(Step.of(StepKind.READ_DATE, "calendar", "buddhist"));
      Runs.run(on, folder, drafted, new MemoryLedger(false), LINES);
      assertThat(on.rows("SELECT * FROM member ORDER BY member_no"))
          .containsExactly(
              "1;สมชาย;ใจดี;1987-03-15;2017-01-01;",
              "2;ปราณี;รักไทย;2000-02-29;2018-06-30;",
              "3;วิชัย;ทองคำ;1956-12-01;2019-12-12;");
    }
  }
}
