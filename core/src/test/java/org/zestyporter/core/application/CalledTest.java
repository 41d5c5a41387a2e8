package org.zestyporter.core.application;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.SQLException;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.jdbc.Databases;

class CalledTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "pesel VARCHAR(11) UNIQUE, imie VARCHAR(9), nazwisko VARCHAR(9)|imie nazwisko",
        "first_name VARCHAR(9), last_name VARCHAR(9), email VARCHAR(9) UNIQUE|first_name last_name",
        "nom VARCHAR(9), prenom VARCHAR(9), mel VARCHAR(9) UNIQUE|prenom nom",
        "jmeno VARCHAR(9), prijmeni VARCHAR(9), ico VARCHAR(9) UNIQUE|jmeno prijmeni",
        "name VARCHAR(9), nombre VARCHAR(9), apellidos VARCHAR(9), nif VARCHAR(9) UNIQUE|nif name",
        "code VARCHAR(3) UNIQUE, name VARCHAR(9)|code name",
        "kod VARCHAR(3) UNIQUE, nazwa VARCHAR(9), uwagi VARCHAR(9)|kod nazwa",
        "remarks VARCHAR(9), name VARCHAR(9)|name",
        "a VARCHAR(9) UNIQUE, b VARCHAR(9) UNIQUE, c VARCHAR(9) UNIQUE|a b",
        "town VARCHAR(9), street VARCHAR(9)|town",
        "n INTEGER|"
      })
  void recordsAreCalledByTheFieldsThatNameThem(String fields, String expected) throws SQLException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute("CREATE TABLE t (id INTEGER PRIMARY KEY, " + fields + ")");
      assertThat(Called.of(on.database().table("t")))
          .extracting(FieldInfo::name)
          .containsExactly(expected == null ? new String[0] : expected.split(" "));
    }
  }

  @ParameterizedTest
  @CsvSource({
    "'imya VARCHAR(9), familiya VARCHAR(9), otchestvo VARCHAR(9)', otchestvo",
    "'first_name VARCHAR(9), last_name VARCHAR(9), middle_name VARCHAR(9)', middle_name",
    "'imya_otchestvo VARCHAR(9), familiya VARCHAR(9)',",
    "'first_name VARCHAR(9), last_name VARCHAR(9)',"
  })
  void aThirdNameIsNoneOfTheTwo(String fields, String expected) throws SQLException {
    try (Databases.Fresh on = Databases.h2()) {
      on.execute("CREATE TABLE t (id INTEGER PRIMARY KEY, " + fields + ")");
      FieldInfo middle = Called.middle(on.database().table("t"));
      assertThat(middle == null ? null : middle.name()).isEqualTo(expected);
    }
  }
}
