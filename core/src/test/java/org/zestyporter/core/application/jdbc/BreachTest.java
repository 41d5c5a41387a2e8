package org.zestyporter.core.application.jdbc;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.math.BigDecimal;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.zestyporter.core.application.TableInfo;
import org.zestyporter.core.application.WriteSession;
import org.zestyporter.core.application.WriteSession.Refusal;

/** What a database refuses is told in plain words, with the field and value where it tells them. */
class BreachTest {
  private static Refusal refused(Databases.Fresh on, Object... values) {
    TableInfo boat = on.database().table("boat");
    return refused(on, boat, List.of("id", "reg", "kind_id", "berths", "draught", "note"), values);
  }

  private static Refusal refused(
      Databases.Fresh on, TableInfo boat, List<String> names, Object... values) {
    List<Integer> fields = names.stream().map(f -> boat.fields().indexOf(boat.find(f))).toList();
    try (WriteSession session = on.database().begin()) {
      WriteSession.Change change = new WriteSession.Change(7, null, fields, Arrays.asList(values));
      return catchThrowableOfType(
              WriteSession.RefusedException.class,
              () -> session.write(boat, List.of(change), false))
          .refusal();
    }
  }

  private static BigDecimal n(int number) {
    return BigDecimal.valueOf(number);
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void eachReasonIsInPlainWords(Databases.Fresh on) throws SQLException {
    try (on) {
      on.execute(
          "CREATE TABLE kind (id INTEGER PRIMARY KEY)",
          "CREATE TABLE boat (id INTEGER PRIMARY KEY, reg VARCHAR(10) NOT NULL UNIQUE,"
              + " kind_id INTEGER, berths INTEGER CHECK (berths < 10), draught NUMERIC(6,2),"
              + " note VARCHAR(20),"
              + " CONSTRAINT dry_feet CHECK (draught <> 3), CONSTRAINT two CHECK (note <> reg),"
              + " CONSTRAINT of_kind FOREIGN KEY (kind_id) REFERENCES kind (id))",
          "INSERT INTO kind VALUES (1)",
          "INSERT INTO boat VALUES (1, 'QH-1', 1, 4, 2, 'x')");
      assertThat(refused(on, n(2), "QH-1", n(1), n(4), n(2), "x").reason())
          .isEqualTo("another record has it already, and it must be unique");
      Refusal taken = refused(on, n(2), "QH-1", n(1), n(4), n(2), "x");
      assertThat(taken.field()).isEqualTo("reg");
      if (!on.name().equals("SQLite")) {
        assertThat(taken.value()).isEqualTo("QH-1");
      }
      Refusal blank = refused(on, n(2), null, n(1), n(4), n(2), "x");
      assertThat(blank.told()).isEqualTo("reg: a value is required");

      Refusal link = refused(on, n(2), "QH-2", n(99), n(4), n(2), "x");
      assertThat(link.reason()).isEqualTo("it points at a record that is not there");
      if (!on.name().equals("SQLite")) {
        assertThat(link.field()).isEqualTo("kind_id");
      }
      Refusal odd = refused(on, n(2), "QH-2", n(1), n(4), n(3), "x");
      assertThat(odd.field()).isEqualTo("draught");
      assertThat(odd.reason())
          .startsWith("it breaks the table's rule ")
          .contains("draught")
          .contains("3");
      Refusal two = refused(on, n(2), "same", n(1), n(4), n(2), "same");
      assertThat(two.field()).as("it is about two fields").isNull();
      assertThat(two.reason()).contains("note").contains("reg");
      if (!on.name().equals("SQLite")) {
        Refusal early = refused(on, n(2), "QH-2", n(1), n(4), n(2), "a note that is far too long");
        assertThat(early.reason()).isEqualTo("it is longer than the field has room for");
        Refusal wide = refused(on, n(2), "QH-2", n(1), n(4), n(99_999), "x");
        assertThat(wide.reason()).isEqualTo("it is beyond what the field can keep");
      }
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void namesOfAnyScriptAreTold(Databases.Fresh on) throws SQLException {
    try (on) {
      on.execute(
          on.quoted("CREATE TABLE <أنواع> (<رقم> INTEGER PRIMARY KEY)"),
          on.quoted(
              "CREATE TABLE <سفن> (<رقم> INTEGER PRIMARY KEY, <رمز السفينة> VARCHAR(10) NOT NULL"
                  + " UNIQUE, <نوع> INTEGER, <أسرة> INTEGER, <حالة> VARCHAR(9),"
                  + " CONSTRAINT <سعة> CHECK (<أسرة> < 10),"
                  + " CONSTRAINT <قائمة> CHECK (<حالة> IN ('راسية', 'مبحرة')),"
                  + " CONSTRAINT <إلى> FOREIGN KEY (<نوع>) REFERENCES <أنواع> (<رقم>))"),
          on.quoted("INSERT INTO <سفن> VALUES (1, 'ق-1', NULL, 4, NULL)"));
      TableInfo boat = on.database().table("سفن");
      List<String> names = List.of("رقم", "رمز السفينة", "نوع", "أسرة", "حالة");
      assertThat(boat.ownRules()).as("rules that only the database knows").isEmpty();
      assertThat(boat.find("حالة").choices()).containsExactly("راسية", "مبحرة");

      Refusal taken = refused(on, boat, names, n(2), "ق-1", null, n(4), null);
      assertThat(taken.reason()).isEqualTo("another record has it already, and it must be unique");
      assertThat(taken.field()).isEqualTo("رمز السفينة");
      Refusal blank = refused(on, boat, names, n(2), null, null, n(4), null);
      assertThat(blank.told()).isEqualTo("رمز السفينة: a value is required");
      Refusal link = refused(on, boat, names, n(2), "ق-2", n(9), n(4), null);
      assertThat(link.reason()).isEqualTo("it points at a record that is not there");
      if (!on.name().equals("SQLite")) {
        assertThat(link.field()).isEqualTo("نوع");
      }
      Refusal full = refused(on, boat, names, n(2), "ق-2", null, n(40), null);
      assertThat(full.field()).isEqualTo("أسرة");
      assertThat(full.reason()).contains("أسرة").contains("10");
    }
  }

  @ParameterizedTest
  @MethodSource("org.zestyporter.core.application.jdbc.Databases#all")
  void aTriggerSpeaksForItself(Databases.Fresh on) throws SQLException {
    try (on) {
      on.execute(
          "CREATE TABLE boat (id INTEGER PRIMARY KEY, reg VARCHAR(10), kind_id INTEGER,"
              + " berths INTEGER, draught INTEGER, note VARCHAR(20))");
      switch (on.name()) {
        case "PostgreSQL" ->
            on.execute(
                "CREATE FUNCTION closed() RETURNS trigger LANGUAGE plpgsql AS"
                    + " $$BEGIN RAISE EXCEPTION 'the list is closed'"
                    + " USING DETAIL = 'since May', HINT = 'ask the harbour'; END$$",
                "CREATE TRIGGER closed BEFORE INSERT ON boat FOR EACH ROW"
                    + " EXECUTE FUNCTION closed()");
        case "MariaDB" ->
            on.execute(
                "CREATE TRIGGER closed BEFORE INSERT ON boat FOR EACH ROW"
                    + " SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the list is closed'");
        case "SQLite" ->
            on.execute(
                "CREATE TRIGGER closed BEFORE INSERT ON boat"
                    + " BEGIN SELECT RAISE(ABORT, 'the list is closed'); END");
        default -> {
          return;
        }
      }
      assertThat(refused(on, n(1), "a", null, null, null, null).told())
          .isEqualTo(
              "the list is closed"
                  + (on.name().equals("PostgreSQL") ? ": since May: ask the harbour" : ""));
    }
  }
}
