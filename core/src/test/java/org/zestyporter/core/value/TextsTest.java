package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TextsTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "MARIA DE LA CRUZ | Maria de la Cruz",
        "jan van der berg | Jan van der Berg",
        "VAN DER BERG, JAN | van der Berg, Jan",
        "o'neill | O'Neill",
        "o’neill-smith | O’Neill-Smith",
        "McKenzie | McKenzie",
        "MCKENZIE | McKenzie",
        "mcgregor | McGregor",
        "MC | Mc",
        "DeShawn | DeShawn",
        "LUDWIG VON BEETHOVEN | Ludwig von Beethoven",
        "von | Von",
        "ÅSA ÖSTBERG | Åsa Östberg",
        "j.r. hartley | J.R. Hartley",
        "jean-luc d'arc | Jean-Luc D'Arc",
        "ИВАН ПЕТРОВ | Иван Петров",
      })
  void personalNamesKeepTheirParticlesAndInnerCapitals(String text, String name) {
    assertThat(Texts.personalName(text)).isEqualTo(name);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "Ærøskøbing | AEroskobing",
        "Łódź | Lodz",
        "Straße | Strasse",
        "Zoë Ångström | Zoe Angstrom",
        "İstanbul ı | Istanbul i",
        "plain | plain",
        "Мечта | Мечта",
      })
  void accentsAndStrokesGo(String text, String bare) {
    assertThat(Texts.withoutAccents(text)).isEqualToIgnoringCase(bare);
  }

  @ParameterizedTest
  @CsvSource({"1,Grey", "2,Heron", "3,''", "-1,Heron", "-2,Grey", "-3,''", "0,''"})
  void wordsAreCountedFromBothEnds(int which, String word) {
    assertThat(Texts.word("  Grey \u00A0 Heron ", which)).isEqualTo(word);
  }

  @Property(tries = 500)
  void namesLoseAndGainNothingButCapitals(@ForAll @StringLength(max = 40) String text) {
    assertThat(Texts.personalName(text).toLowerCase(java.util.Locale.ROOT).length())
        .isEqualTo(Texts.personalName(text).length());
    assertThat(Texts.sentence("GREY HERON. TWO")).isEqualTo("Grey heron. two");
  }
}
