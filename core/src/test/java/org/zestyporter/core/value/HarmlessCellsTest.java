package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.Chars;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.Seeds;

class HarmlessCellsTest {

  @ParameterizedTest
  @ValueSource(
      strings = {"=1+1", "+cmd", "-2+3", "@SUM(A1)", "\tx", "\rx", "'=1", "''=1", "-", "=", "-5a"})
  void whatASpreadsheetMayRunIsMadeAText(String text) {
    assertThat(HarmlessCells.guard(text)).isEqualTo("'" + text);
    assertThat(HarmlessCells.unguard(HarmlessCells.guard(text))).isEqualTo(text);
  }

  @ParameterizedTest
  @ValueSource(strings = {"-5", "+49", "-1.204,50", "plain", "'tis", "", "a=b", "5-3"})
  void everythingElseStays(String text) {
    assertThat(HarmlessCells.guard(text)).isEqualTo(text);
    assertThat(HarmlessCells.unguard(text)).isEqualTo(text);
  }

  @Property(tries = 500 * Seeds.MORE, seed = Seeds.SEED)
  void everyTextComesBack(
      @ForAll @StringLength(max = 6) @Chars({'\'', '=', '-', '+', '@', '\t', '\r', '5', 'a'})
          String text) {
    assertThat(HarmlessCells.unguard(HarmlessCells.guard(text))).isEqualTo(text);
  }
}
