package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.jdbc.Databases;
import org.zestyporter.core.plan.Destination;
import org.zestyporter.core.plan.Fill;
import org.zestyporter.core.run.MemoryLedger;
import org.zestyporter.core.run.Runs;
import org.zestyporter.core.source.SourceTable;
import org.zestyporter.core.step.Step;
import org.zestyporter.core.step.StepKind;

/** A file of Iran, with its calendar and figures, for a table with English names. */
class PersianDraftTest {
  private static final String[] LINES = {
    "شماره عضویت;نام;نام خانوادگی;نام پدر;تاریخ تولد;تاریخ عضویت;جنسیت;حق عضویت ماهانه (ریال);فعال;شعبه",
    "T-۰۰۱;نرگس;رضايي;رضا;۱۳۶۲/۱۲/۲۷;۲۷ فروردین ۱۴۰۳;زن;۵۷۰٬۰۰۰ ریال;خیر;شعبه يزد",
    "T-۰۰۲;کیوان;حسینی;علی;۱۳۵۰/۰۳/۱۰;۱۸ تیر ۱۴۰۰;مرد;۸۲۰٬۰۰۰ ریال;بلی;شعبه شیراز",
    "T-۰۰۳;یاسمن;محمدی;رضا;۱۳۴۳/۰۵/۳۱;۱۲ اسفند ۱۳۹۵;زن;۶۴۰٬۰۰۰ ریال;بله;شعبه‌یزد"
  };

  @TempDir Path folder;

  private static void schema(Databases.Fresh on) throws SQLException {
    on.execute(
        "CREATE TABLE branch (id INTEGER PRIMARY KEY, name VARCHAR(40) NOT NULL UNIQUE)",
        "CREATE TABLE member (membership_no VARCHAR(9) PRIMARY KEY, first_name VARCHAR(40) NOT NULL,"
            + " last_name VARCHAR(40) NOT NULL, father_name VARCHAR(40), birth_date DATE,"
            + " joined_on DATE, gender VARCHAR(6) CHECK (gender IN ('male', 'female')),"
            + " monthly_fee DECIMAL(12, 0), is_active BOOLEAN,"
            + " branch_id INTEGER REFERENCES branch (id))",
        "INSERT INTO branch VALUES (1, 'شعبه یزد'), (2, 'شعبه شیراز')");
  }

  private Destination draft(Databases.Fresh on) throws IOException, SQLException {
    try (SourceTable source = PlanDraftTest.file(folder, LINES)) {
      return new PlanDraft(on.database(), source)
          .draft(on.database().table("member"))
          .destination();
    }
  }

  private static Fill fill(Destination of, String field) {
    return of.fills().stream().filter(f -> f.field().equals(field)).findFirst().orElseThrow();
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void goesInAsItIsMeant(Databases.Fresh on) throws SQLException, IOException {
    try (on) {
      schema(on);
      Destination drafted = draft(on);
      assertThat(fill(drafted, "birth_date").steps())
          .containsExactly(Step.of(StepKind.READ_DATE, "calendar", "persian"));
      assertThat(fill(drafted, "membership_no").steps())
          .containsExactly(Step.of(StepKind.TRIM), Step.of(StepKind.PLAIN_SIGNS));
      Runs.run(on, folder, drafted, new MemoryLedger(false), LINES);
      assertThat(
              on.rows(
                  "SELECT membership_no, father_name, birth_date, joined_on, gender, monthly_fee,"
                      + " branch_id FROM member ORDER BY membership_no"))
          .containsExactly(
              "T-001;رضا;1984-03-17;2024-04-15;female;570000;1;",
              "T-002;علی;1971-05-31;2021-07-09;male;820000;2;",
              "T-003;رضا;1964-08-22;2017-03-02;female;640000;1;");
      // what is there is found again
      assertThat(
              Runs.run(on, folder, drafted, new MemoryLedger(false), LINES)
                  .destinations()
                  .get(0)
                  .unchanged())
          .isEqualTo(3);
    }
  }

  /** An application whose codes are written so keeps them. */
  @Test
  void figuresStayWhereTheApplicationWritesThem() throws SQLException, IOException {
    try (Databases.Fresh on = Databases.h2()) {
      schema(on);
      on.execute(
          "INSERT INTO member (membership_no, first_name, last_name) VALUES ('T-۰۰۲', 'کیوان', 'حسینی')");
      assertThat(fill(draft(on), "membership_no").steps())
          .doesNotContain(Step.of(StepKind.PLAIN_SIGNS));
    }
  }
}
