package org.zestyporter.core.application;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class KeyTextTest {
  @ParameterizedTest
  @CsvSource(
      quoteCharacter = '"',
      value = {"\"Pier A, \\7;\"", "\"\\,\"", "\",\"", "\"\\\\\"", "\"Röhr, Ute\""})
  void keysAreReadAsTheyWereWritten(String value) {
    TableInfo one = table("dock");
    assertThat(KeyText.of(List.of(value))).isEqualTo(value);
    assertThat(one.key(value)).containsExactly(value);
    TableInfo two = table("dock", "no");
    List<Object> key = List.of(value, new BigDecimal(3));
    assertThat(two.key(KeyText.of(key))).isEqualTo(key);
    TableInfo turned = table("no", "dock");
    List<Object> other = List.of(new BigDecimal(3), value);
    assertThat(turned.key(KeyText.of(other))).isEqualTo(other);
  }

  @ParameterizedTest
  @CsvSource(
      quoteCharacter = '"',
      value = {"\"A\"", "\"A,1,2\"", "\"A\\,1\"", "\"A,x\""})
  void textsThatAreNoKeyOfTheTableAreNone(String text) {
    assertThat(table("dock", "no").key(text)).isNull();
  }

  private static TableInfo table(String... key) {
    return new TableInfo(
        null,
        "berth",
        null,
        List.of(FieldInfo.of("dock", FieldType.TEXT), FieldInfo.of("no", FieldType.WHOLE)),
        List.of(key),
        List.of());
  }
}
