package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AlikeTest {
  private static final List<String> KINDS =
      List.of("cutter", "dinghy", "ketch", "motor", "narrowboat", "schooner", "sloop");

  @ParameterizedTest
  @CsvSource({
    "Ketch rig,ketch",
    "KETSCH,ketch",
    "schoner,schooner",
    "narrow boat,narrowboat",
    "Slööp,sloop"
  })
  void aWordIsFoundThoughItIsSpeltOtherwise(String word, String meant) {
    assertThat(Alike.ranked(word, KINDS, 3).get(0)).isEqualTo(meant);
    assertThat(Alike.isNear(word, meant)).isTrue();
  }

  /** Of many who have a name in common, who is meant is told by the slips. */
  @ParameterizedTest
  @CsvSource({
    "Lire Elizondo,Leire Elizondo",
    "Nrea Mendizabal,Nerea Mendizabal",
    "An Goikoetxea,Ane Goikoetxea",
    "'Mendizabal, Nerae',Nerea Mendizabal",
    "Jon Zubizarrta,Jon Zubizarreta",
    "Unai Goikoetxea,Unai Goikoetxea",
    "Berth 13a,Berth 13",
    "Wile,Will"
  })
  void theOneWithFewestSlipsIsLikeliest(String word, String meant) {
    List<String> people =
        List.of(
            "Ane Goikoetxea",
            "Ane Mendizabal",
            "Berth 12a",
            "Berth 13",
            "Iker Elizondo",
            "Jon Zubizarreta",
            "Leire Elizondo",
            "Nerea Mendizabal",
            "Unai Goikoetxea",
            "Unai Zubizarreta",
            "Will");
    assertThat(Alike.ranked(word, people, 3).get(0)).isEqualTo(meant);
    assertThat(Alike.isNear(word, meant)).isTrue();
  }

  /** Files of one script come to applications of the other. */
  @ParameterizedTest
  @CsvSource({
    "Боје,Boje",
    "БОЈЕ И ЛАКОВИ,Boje i lakovi",
    "Ужице,Užice",
    "Чекић,Čekić",
    "Nizza,Ница",
    "Севлиево,Sevlievo",
    "Αθήνα,Athina",
    "Thessaloniki,Θεσσαλονίκη"
  })
  void aWordIsFoundByItsSoundInAnotherScript(String word, String meant) {
    List<String> places =
        List.of(
            "Alat",
            "Boje i lakovi",
            "Boje",
            "Užice",
            "Čekić",
            "Ница",
            "Sevlievo",
            "Athina",
            "Θεσσαλονίκη",
            "Niš");
    assertThat(Alike.ranked(word, places, 3).get(0)).isEqualTo(meant);
    assertThat(Alike.isNear(word, meant)).isTrue();
    assertThat(Alike.isNear(word, "Alat")).isFalse();
  }

  /** A list in which a word stood twice would mean the one by chance. */
  @Test
  void aWordMeansOneThing() {
    assertThat(SameWords.are("Frau", "W")).isTrue();
    assertThat(SameWords.are("не замужем", "Ledig")).isTrue();
    assertThat(SameWords.are("замужем", "Ledig")).isFalse();
    assertThat(SameWords.are("Frau", "Herr")).isFalse();
    assertThat(SameWords.are("rot", "rot")).isFalse();
  }

  /** In another language, however it is spelt there. */
  @Test
  void aWordIsFoundByWhatItMeans() {
    List<String> states = List.of("divorced", "married", "single", "widowed");
    assertThat(Alike.ranked("ledig", states, 2).get(0)).isEqualTo("single");
    assertThat(Alike.ranked("متأهل", states, 2).get(0)).isEqualTo("married");
    assertThat(Alike.isNear("Verwitwet", "widowed")).isTrue();
    assertThat(Alike.isNear("Verwitwet", "married")).isFalse();
  }

  /** Names that differ by a number alone are names of two. */
  @Test
  void figuresHaveToAgree() {
    assertThat(Alike.isNear("Harbour 13 Ltd", "Harbour 1 Ltd")).isFalse();
    assertThat(Alike.isNear("P-0062", "P-0061")).isFalse();
    assertThat(Alike.isNear("Harbor 13 Ltd", "Harbour 13 Ltd")).isTrue();
    assertThat(Alike.isNear("Harbour", "Harbour 1")).isTrue();
    assertThat(Alike.ranked("Pier 12", List.of("Pier 1", "Pier 2", "Pear 12"), 3).get(0))
        .isEqualTo("Pear 12");
  }

  @Test
  void vowelsThatAreMarksBelongToTheirWords() {
    assertThat(Alike.fold("राम, कुमार")).isEqualTo("राम कुमार");
    assertThat(Alike.fold("น้ำ-หนัก")).isEqualTo("น้ำ หนัก");
  }

  /** One letter of a syllable is a slip; a name has three syllables, and eight letters. */
  @Test
  void koreanIsComparedLetterByLetter() {
    Spelling name = Spelling.of("김철수");
    assertThat(Spelling.slips(name, Spelling.of("김철소"))).isEqualTo(1);
    assertThat(Spelling.slips(name, Spelling.of("박영희"))).isLessThan(0);
    assertThat(Alike.isNear("서울특별시", "서울특벌시")).isTrue();
  }

  @ParameterizedTest
  @CsvSource({"houseboat,sloop", "tbc,ketch", "motor,dinghy"})
  void whatIsFarOffIsNotNear(String word, String other) {
    assertThat(Alike.isNear(word, other)).isFalse();
  }

  @ParameterizedTest
  @CsvSource({"6ème A,6A", "Female,F", "Left Hand,LH"})
  void aValueMayBeTheFirstSignsOfWords(String word, String meant) {
    List<String> values = List.of("5A", "6A", "6B", "F", "LH", "M", "RH", "X");
    assertThat(Alike.ranked(word, values, 3).get(0)).isEqualTo(meant);
    assertThat(values.stream().filter(v -> Alike.isNear(word, v))).containsExactly(meant);
  }
}
