package org.zestyporter.core.step;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.formula.Names;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.LocaleSettings;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.core.value.Problem;
import org.zestyporter.core.value.ProblemCode;

class StepsTest {
  private static final LocaleSettings COMMA = new LocaleSettings(",", DateOrder.DAY_MONTH_YEAR);

  private static final Names NO_COLUMNS = Names.of(List.of(), COMMA);

  private static Object apply(Object value, StepKind kind, String... settings) {
    return apply(value, COMMA, kind, settings);
  }

  private static Object apply(
      Object value, LocaleSettings locale, StepKind kind, String... settings) {
    return Step.of(kind, settings).compile(Names.of(List.of(), locale)).apply(value, null);
  }

  @Test
  void trimAndCollapseKnowAllSpaces() {
    assertThat(apply("\u00A0 Wren \t", StepKind.TRIM)).isEqualTo("Wren");
    assertThat(apply("   ", StepKind.TRIM)).isNull();
    assertThat(apply("Grey \u00A0  Heron", StepKind.COLLAPSE_SPACES)).isEqualTo("Grey Heron");
  }

  @ParameterizedTest
  @CsvSource({
    "upper,straße 9,STRASSE 9",
    "lower,ÉLISE,élise",
    "title,o'dowd mcBAIN-smith,O'dowd Mcbain-Smith",
    "title,ЯХТА МЕЧТА,Яхта Мечта"
  })
  void caseIsChanged(String to, String text, String expected) {
    assertThat(apply(text, StepKind.CASE, "to", to)).isEqualTo(expected);
  }

  @Test
  void replaceTakesWholeValuesOnly() {
    assertThat(apply("KETCH RIG", StepKind.REPLACE, "from", "Ketch rig", "to", "ketch"))
        .isEqualTo("ketch");
    assertThat(apply("Ketch rigged", StepKind.REPLACE, "from", "Ketch rig", "to", "ketch"))
        .isEqualTo("Ketch rigged");
  }

  @Test
  void numbersOfAWorkbookAreNotReadASecondTime() {
    BigDecimal number = new BigDecimal("1.204");
    assertThat(apply(number, StepKind.READ_NUMBER)).isSameAs(number);
    assertThat(apply("1.204", StepKind.READ_NUMBER)).isEqualTo(new BigDecimal("1204"));
    assertThat(apply("1.204", StepKind.READ_NUMBER, "decimal", ".")).isEqualTo(number);
    assertThat(apply(LocalDate.EPOCH, StepKind.READ_NUMBER)).isInstanceOf(Problem.class);
  }

  @Test
  void datesFollowTheFileUnlessTheStepSaysOtherwise() {
    assertThat(apply("03/04/2026", StepKind.READ_DATE)).isEqualTo(LocalDate.of(2026, 4, 3));
    assertThat(apply("03/04/2026", StepKind.READ_DATE, "order", "month-day-year"))
        .isEqualTo(LocalDate.of(2026, 3, 4));
    assertThat(apply("03/04/26", StepKind.READ_DATE, "century", "20"))
        .isEqualTo(LocalDate.of(2026, 4, 3));
    assertThat(apply("3.4.2026 9:15", StepKind.READ_DATE))
        .isEqualTo(LocalDateTime.of(2026, 4, 3, 9, 15));
    assertThat(apply(LocalDate.EPOCH, StepKind.READ_DATE)).isEqualTo(LocalDate.EPOCH);
    assertThat(apply(BigDecimal.TEN, StepKind.READ_DATE))
        .isEqualTo(new Problem(ProblemCode.NOT_A_DATE, "10", "a number, not a date"));
  }

  @Test
  void arithmeticIsExactAndRoundsHalfAwayFromZero() {
    assertThat(apply(new BigDecimal("36.25"), StepKind.MULTIPLY, "by", "0.3048"))
        .isEqualTo(new BigDecimal("11.049000"));
    assertThat(apply(new BigDecimal("2.345"), StepKind.ROUND, "places", "2"))
        .isEqualTo(new BigDecimal("2.35"));
    assertThat(apply(new BigDecimal("-2.345"), StepKind.ROUND, "places", "2"))
        .isEqualTo(new BigDecimal("-2.35"));
    assertThat(apply("2,5", StepKind.MULTIPLY, "by", "2"))
        .isInstanceOfSatisfying(
            Problem.class, p -> assertThat(p.reason()).contains("read it as a number first"));
  }

  @Test
  void cutCountsCharactersAndNotHalves() {
    assertThat(apply("Wren 🚤🚤", StepKind.CUT, "length", "6"))
        .isEqualTo(
            new Noted("Wren 🚤", new Problem(ProblemCode.CUT, "Wren 🚤🚤", "cut to 6 characters")));
    assertThat(apply("Wren", StepKind.CUT, "length", "6")).isEqualTo("Wren");
  }

  @ParameterizedTest
  @CsvSource({
    "MULTIPLY,by,much",
    "MULTIPLY,other,1",
    "ROUND,places,-1",
    "CASE,to,sideways",
    "READ_DATE,order,backwards",
    "CUT,length,"
  })
  void settingsThatCannotBeUsedAreNamed(StepKind kind, String name, String value) {
    Step step = value == null ? Step.of(kind) : Step.of(kind, name, value);
    assertThatThrownBy(() -> step.compile(NO_COLUMNS))
        .isInstanceOf(PorterException.class)
        .hasMessageContaining(kind.title());
  }

  /** Settings stand behind the kind as name=value, parted by ~; «blank» is null. */
  @ParameterizedTest(name = "{0} of {2} gives {3}")
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\'',
      value = {
        "REMOVE_CONTROLS || 'Grey\nHeron\u200B' | Grey Heron",
        "CASE | to=sentence | GREY HERON, ÉLAN | Grey heron, élan",
        "CASE | to=name | JAN VAN DER BERG | Jan van der Berg",
        "CASE | to=name | maria de la cruz-o'neill | Maria de la Cruz-O'Neill",
        "CASE | to=name | DeShawn MCKENZIE | DeShawn McKenzie",
        "CASE | to=name | VAN | Van",
        "REMOVE_ACCENTS || Ærø, Łódź, Straße, Zoë | Aero, Lodz, Strasse, Zoe",
        "PLAIN_SIGNS || T-۰۰۴۲, Ｂ－７, १२, ﾖｯﾄ ｶﾞﾗｽ | T-0042, B-7, 12, ヨット ガラス",
        "PAD | length=5~with=0 | 42 | 00042",
        "PAD | length=5~with=ab~side=right | xy | xyaba",
        "PAD | length=2~with=0 | 12345 | 12345",
        "TAKE_LEFT | count=2 | QH-0566 | QH",
        "TAKE_LEFT | count=0 | QH-0566 | «blank»",
        "TAKE_RIGHT | count=4 | QH-0566 | 0566",
        "TAKE_BETWEEN | after=(~before=) | Heron (sloop) red | sloop",
        "TAKE_BETWEEN | after=: | no sign here | no sign here",
        "TAKE_WORD | which=2 | ' Jan  van Berg ' | van",
        "TAKE_WORD | which=-1 | Jan van Berg | Berg",
        "TAKE_WORD | which=9 | Jan van Berg | «blank»",
        "TAKE_PATTERN | pattern=\\d+ | QH-0566 | 0566",
        "TAKE_PATTERN | pattern=([A-Z]+)-\\d+ | x QH-0566 | QH",
        "TAKE_PATTERN | pattern=\\d+ | none | «blank»",
        "SPLIT | at=/~which=2 | a / b / c | b",
        "SPLIT | at=/~which=-1 | a / b / c | c",
        "REPLACE | from=n/a | N/A | «blank»",
        "REPLACE_WORDS | from=str.~to=street | Mill STR. 5 | Mill street 5",
        "REPLACE_PATTERN | pattern=(\\w+) (\\d+)~to=$2 $1 | Mill 5 | 5 Mill",
        "BLANK_WHEN | words=tbc | ' TBC ' | «blank»",
        "BLANK_WHEN | words=n/a | tbc | tbc",
        "READ_MONEY | currency=EUR | € 1.204,50 | 1204.50",
        "READ_PERCENT || 12,5 % | 0.125",
        "READ_PERCENT | as=points | 12,5 % | 12.5",
        "READ_MEASURE | in=ft | 32' 6\" | 32.5",
        "READ_MEASURE | in=ft | 28,5 | 28.5",
        "READ_MEASURE | in=m | 5 ft 3 in | 1.6002",
        "READ_MEASURE | in=ft | 7 1/2 ft | 7.5",
        "READ_MEASURE | in=min | 1 h 30 min | 90",
        "READ_MEASURE | in=kg | 1,2 t | 1200",
        "READ_DATE | pattern=dd mmm yyyy | 03 nov 2026 | 2026-11-03",
        "READ_DATE | pattern=yyyymmddhhmm | 202611031405 | 2026-11-03T14:05:00",
        "READ_DATE | order=month-day-year | 11/3/2026 | 2026-11-03",
        "READ_TIME || 9.30 pm | 21:30",
        "READ_TIME || 0930 | 09:30",
        "READ_TIME || 12 am | 00:00",
        "READ_BOOLEAN | yes=afloat~no=ashore | Ashore | false",
        "FORMAT | format=0000 | 42 | 42",
        "PHONE | country=GB | 020 7946 0018 | +44 20 7946 0018",
        "PHONE | country=Germany~form=plain | 0049 30 123456 | +4930123456",
        "EMAIL || 'Moe <M.Okafor@Tidewell.example>;' | m.okafor@tidewell.example",
        "EMAIL || mailto: x@y.example | x@y.example",
        "COUNTRY || Niederlande | NL",
        "COUNTRY | form=three-letter | uk | GBR",
        "COUNTRY | form=number | Österreich | 040",
        "LANGUAGE || Deutsch | de",
        "LANGUAGE | form=three-letter | French | fra",
        "CURRENCY || euro | EUR",
        "CURRENCY || £ | GBP",
      })
  void stepsDoWhatTheirHelpSays(StepKind kind, String settings, String value, String gives) {
    String[] with =
        settings == null
            ? new String[0]
            : java.util.Arrays.stream(settings.split("~"))
                .flatMap(p -> java.util.stream.Stream.of(p.split("=", 2)))
                .toArray(String[]::new);
    Object result = apply(value, kind, with);
    assertThat(result instanceof Problem).as(String.valueOf(result)).isFalse();
    assertThat(result == null ? "«blank»" : org.zestyporter.core.value.Values.text(result))
        .isEqualTo(gives);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\'',
      value = {
        "READ_MONEY | currency | EUR | $ 12 | WRONG_TYPE",
        "READ_PERCENT | as | points | much % | NOT_A_NUMBER",
        "READ_MEASURE | in | ft | tbc | NOT_A_NUMBER",
        "READ_MEASURE | in | ft | 5 kg | NOT_A_NUMBER",
        "READ_DATE | pattern | dd.mm.yyyy | 31.02.2026 | NOT_A_DATE",
        "READ_TIME | x | x | 25:00 | NOT_A_TIME",
        "READ_TIME | x | x | 13 pm | NOT_A_TIME",
        "PHONE | country | GB | 12 | NOT_A_PHONE_NUMBER",
        "PHONE | country | GB | call me | NOT_A_PHONE_NUMBER",
        "EMAIL | x | x | moe.tidewell.example | NOT_AN_EMAIL",
        "EMAIL | x | x | a@b@c.example | NOT_AN_EMAIL",
        "COUNTRY | x | x | Atlantis | NOT_A_CODE",
        "CURRENCY | x | x | kr | NOT_A_CODE",
        "SHIFT_DATE | by=1~unit | days | soon | NOT_A_DATE",
      })
  void whatStepsCannotTakeIsAProblem(
      StepKind kind, String name, String setting, String value, ProblemCode code) {
    String[] with =
        name.equals("by=1~unit")
            ? new String[] {"by", "1", "unit", setting}
            : new String[] {name, setting};
    Object result = apply(value, kind, with);
    assertThat(result).isInstanceOf(Problem.class);
    assertThat(((Problem) result).code()).isEqualTo(code);
    assertThat(((Problem) result).value()).isEqualTo(value);
  }

  @Test
  void numbersAndDatesAreComputedWith() {
    BigDecimal number = new BigDecimal("2.345");
    assertThat(apply(number, StepKind.ADD, "number", "-0.345")).isEqualTo(new BigDecimal("2.000"));
    assertThat(apply(number, StepKind.ROUND, "places", "2", "how", "down"))
        .isEqualTo(new BigDecimal("2.34"));
    assertThat((BigDecimal) apply(number, StepKind.CONVERT_UNIT, "from", "ft", "to", "m"))
        .isEqualByComparingTo("0.714756");
    assertThat(
            (BigDecimal) apply(new BigDecimal(20), StepKind.CONVERT_UNIT, "from", "C", "to", "F"))
        .isEqualByComparingTo("68");
    LocalDate day = LocalDate.of(2026, 1, 31);
    assertThat(apply(day, StepKind.SHIFT_DATE, "by", "1", "unit", "months"))
        .isEqualTo(LocalDate.of(2026, 2, 28));
    assertThat(apply(day, StepKind.PERIOD_EDGE, "which", "first", "of", "year"))
        .isEqualTo(LocalDate.of(2026, 1, 1));
    assertThat(apply(day.atTime(9, 5), StepKind.PERIOD_EDGE, "which", "last", "of", "month"))
        .isEqualTo(day.atTime(9, 5));
    assertThat(apply(day, StepKind.FORMAT, "format", "d mmm yy")).isEqualTo("31 Jan 26");
    assertThat(apply(new BigDecimal("7"), StepKind.FORMAT, "format", "000")).isEqualTo("007");
  }

  @Test
  void severalWordsMayMeanBlank() {
    assertThat(apply("-", StepKind.BLANK_WHEN, "words", "n/a|-|tbc")).isNull();
    assertThat(apply("tbd", StepKind.BLANK_WHEN, "words", "n/a|-|tbc")).isEqualTo("tbd");
  }

  @Test
  void blanksAreFilledByTheStepsThatAreForThem() {
    StepFunction standard = Step.of(StepKind.DEFAULT, "value", "x").compile(NO_COLUMNS);
    assertThat(standard.takesBlank()).isTrue();
    assertThat(standard.apply(null, null)).isEqualTo("x");
    assertThat(standard.apply("y", null)).isEqualTo("y");
    assertThat(Step.of(StepKind.TRIM).compile(NO_COLUMNS).takesBlank()).isFalse();
  }

  /** Knows one book, in which KETCH RIG is a ketch and NONE is blank. */
  private static final Names KINDS =
      new Names() {
        @Override
        public List<String> columns() {
          return List.of();
        }

        @Override
        public LocaleSettings locale() {
          return COMMA;
        }

        @Override
        public UnaryOperator<String> phrasebook(String name) {
          return name.equals("Kinds") ? Map.of("KETCH RIG", "ketch", "NONE", "")::get : null;
        }
      };

  private static Object translate(String word, String... otherwise) {
    Map<String, String> with = new HashMap<>(Map.of("book", "Kinds"));
    if (otherwise.length > 0) {
      with.put("otherwise", otherwise[0]);
    }
    return new Step(StepKind.TRANSLATE, with, false).compile(KINDS).apply(word, null);
  }

  @Test
  void phrasebooksTranslateAndSayWhatTheyDoNotKnow() {
    assertThat(translate("KETCH RIG")).isEqualTo("ketch");
    assertThat(translate("NONE")).isNull();
    assertThat(translate("yawl")).isEqualTo("yawl");
    assertThat(translate("yawl", "blank")).isNull();
    assertThat(((Problem) translate("yawl", "ask")).code()).isEqualTo(ProblemCode.UNKNOWN_WORD);
    assertThat(((Problem) translate("yawl", "reject")).code()).isEqualTo(ProblemCode.NOT_AVAILABLE);
    assertThatThrownBy(() -> Step.of(StepKind.TRANSLATE, "book", "Gone").compile(KINDS))
        .hasMessage("There is no phrasebook “Gone”.");
  }

  /** A formula in a step sees the value so far, and the columns that it reads beside it. */
  @Test
  void formulasSeeTheValueAndOtherColumns() {
    Names names = Names.of(List.of("Kind"), COMMA);
    StepFunction step =
        Step.of(StepKind.FORMULA, "formula", "UPPER([value]) & LEN([Kind])").compile(names);
    assertThat(step.columns()).containsExactly(0);
    assertThat(step.perRow()).isFalse();
    assertThat(Step.of(StepKind.JOIN, "column", "Kind").compile(names).columns())
        .containsExactly(0);
    assertThatThrownBy(() -> Step.of(StepKind.JOIN, "column", "Gone").compile(names))
        .hasMessageContaining("“Gone”");
  }

  /** What is proposed must be usable, whatever the field and its values are. */
  @ParameterizedTest
  @EnumSource
  void allThatIsWorthTryingCanBeUsed(StepKind kind) {
    for (FieldType type : FieldType.values()) {
      FieldInfo field = FieldInfo.of("length_m", type);
      for (List<String> values : List.of(List.<String>of(), List.of("12 / 14 ft", "n/a"))) {
        Occasion occasion =
            new Occasion(field, "Length (ft)", values, List.of("Kinds"), List.of("Kind"));
        for (Step step : kind.worthTrying(occasion)) {
          boolean other = kind.readsOtherColumns();
          step.compile(other ? Names.of(List.of("Kind"), COMMA) : KINDS);
        }
      }
    }
  }

  @Test
  void whatAllTroubledValuesBeginOrEndWithIsTriedToBeRemoved() {
    assertThat(replacements("〒396-5138", "〒877-5008")).contains("〒");
    assertThat(replacements("No. 12", "No. 17")).contains("No. ");
    assertThat(replacements("12 (approx.)", "9 (approx.)")).contains(" (approx.)");
    assertThat(replacements("Sailing", "Sailor")).doesNotContain("Sail");
    assertThat(replacements("396-5138")).containsExactly("396-5138");
  }

  private static List<String> replacements(String... values) {
    FieldInfo field = FieldInfo.of("postcode", FieldType.TEXT);
    Occasion occasion = new Occasion(field, "Code", List.of(values), List.of(), List.of());
    return StepKind.REPLACE_WORDS.worthTrying(occasion).stream()
        .map(step -> step.setting("from"))
        .toList();
  }

  /** The class of a step goes by the word that plans use. */
  @ParameterizedTest
  @EnumSource
  void classesGoByTheWord(StepKind kind) {
    assertThat(kind.operation().getClass().getSimpleName().toLowerCase(Locale.ROOT))
        .isEqualTo(kind.word().replace("-", ""));
  }
}
