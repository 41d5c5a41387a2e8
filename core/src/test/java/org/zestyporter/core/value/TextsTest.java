package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.text.Normalizer;
import java.util.Locale;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.zestyporter.core.Seeds;

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
        "Ёлка | Елка",
        "الْعَرَبِيَّة | العربية",
        "שָׁלוֹם | שלום",
      })
  void accentsAndStrokesGo(String text, String bare) {
    assertThat(Texts.withoutAccents(text)).isEqualToIgnoringCase(bare);
  }

  /** Another letter of the alphabet, a vowel, a voiced sound: none of them is an accent. */
  @ParameterizedTest
  @ValueSource(
      strings = {"Андрей Київ", "राम रमा", "น้ำหนัก ชื่อ", "ガラス パン", "서울 한글", "ក្រុង", "தமிழ்"})
  void whatMakesAnotherLetterIsNoAccent(String text) {
    assertThat(Texts.withoutAccents(text)).isEqualTo(text);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {"rene\u0301 a\u0300 la | Rene\u0301 A\u0300 La", "हिंदी नाम | हिंदी नाम"})
  void aMarkBeginsNoWord(String text, String title) {
    assertThat(Texts.title(text)).isEqualTo(title);
  }

  @ParameterizedTest
  @CsvSource({"1,Grey", "2,Heron", "3,''", "-1,Heron", "-2,Grey", "-3,''", "0,''"})
  void wordsAreCountedFromBothEnds(int which, String word) {
    assertThat(Texts.word("  Grey \u00A0 Heron ", which)).isEqualTo(word);
  }

  @Property(tries = 500 * Seeds.MORE, seed = Seeds.SEED)
  void namesLoseAndGainNothingButCapitals(@ForAll @StringLength(max = 40) String text) {
    assertThat(folded(Texts.personalName(text))).isEqualTo(folded(text));
  }

  @ParameterizedTest
  @ValueSource(strings = {"aİ", "İA", "ŉa", "ǆ", "ΣΑΣ", "straße"})
  void lettersThatAreTwoInOtherCapitalsStay(String text) {
    assertThat(folded(Texts.personalName(text))).isEqualTo(folded(text));
  }

  @Test
  void sentencesBeginWithACapital() {
    assertThat(Texts.sentence("GREY HERON. TWO")).isEqualTo("Grey heron. two");
  }

  @ParameterizedTest
  @CsvSource({
    "ΒΟΛΟΣ, Βόλος",
    "ΡΟΪΔΗΣ Α., Ροΐδης Α.",
    "ΑΪΣΕ ΠΑΠΑΓΟΥ-ΜΠΛΗ, Αϊσέ Παπάγου-Μπλη",
    "ΟΔΥΣΣΕΥΣ, Ὀδυσσεύς",
    "ÉCOLE, école",
    "Σmall, σmall"
  })
  void capitalsAreTheSameAsSmallLetters(String capitals, String small) {
    assertThat(Texts.small(capitals)).isEqualTo(Texts.small(small));
    // by an accent that capitals keep, and by two dots, words are told apart
    assertThat(Texts.small("PÉCHÉ")).isNotEqualTo(Texts.small("PECHE"));
    assertThat(Texts.small("ΡΟΪΔΗΣ")).isNotEqualTo(Texts.small("ΡΟΙΔΗΣ"));
  }

  /** A text without regard to capitals, in which İ is an i with a dot. */
  private static String folded(String text) {
    return Normalizer.normalize(text, Normalizer.Form.NFD)
        .toUpperCase(Locale.ROOT)
        .toLowerCase(Locale.ROOT);
  }
}
