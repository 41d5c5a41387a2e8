package org.zestyporter.core.source.parse;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Lists of boats and people as they were written before UTF-8, in the languages of many coasts. */
class EncodingsTest {
  @TempDir Path folder;

  /** Names, towns and titles of a language, and the encodings it was written in. */
  private record Words(String names, String towns, String titles, String encodings) {
    private static Words of(String names, String towns, String titles, String encodings) {
      return new Words(names, towns, titles, encodings);
    }
  }

  private static final Stream<Words> LANGUAGES =
      Stream.of(
          Words.of(
              "佐藤 健一|鈴木 美咲|高橋 翔太|田中 恵子|渡辺 誠|髙橋 さくら|山﨑 ひまり|斎藤 レン",
              "東京都|大阪府|京都市右京区|神奈川県横浜市|北海道札幌市",
              "番号|氏名|港|備考",
              "Shift_JIS"),
          Words.of(
              "佐藤健一|鈴木美咲|高橋翔太|田中恵子|渡辺誠|山本直人",
              "東京都|大阪府|京都市|横浜市|福岡県",
              "番号|氏名|住所|都市",
              "Shift_JIS EUC-JP"),
          Words.of(
              "ｻﾄｳ ｹﾝｲﾁ|ｽｽﾞｷ ﾐｻｷ|ﾀｶﾊｼ ｼｮｳﾀ", "ﾄｳｷｮｳ|ｵｵｻｶ|ﾖｺﾊﾏ", "ﾊﾞﾝｺﾞｳ|ｼﾒｲ|ﾐﾅﾄ|ﾋﾞｺｳ", "Shift_JIS"),
          Words.of("王伟|李娜|张敏|刘洋|陈静|杨磊|黄丽", "北京市海淀区|上海市|广州市天河区|杭州市|成都市", "编号|姓名|城市|备注", "GB18030"),
          Words.of("王小明|李淑芬|張志豪|劉雅婷|陳怡君|楊宗翰", "臺北市|新北市|臺中市西屯區|高雄市", "編號|姓名|城市|備註", "Big5"),
          Words.of("김민준|이서연|박지훈|최수빈|정예은|강도윤", "서울특별시|부산광역시|경기도 수원시", "번호|이름|도시|비고", "EUC-KR"),
          Words.of(
              "สมชาย ใจดี|สมหญิง รักไทย|วิชัย สุขใจ|ประเสริฐ มั่นคง",
              "กรุงเทพมหานคร|เชียงใหม่|ภูเก็ต",
              "รหัส|ชื่อ|เมือง|หมายเหตุ",
              "x-windows-874"),
          Words.of(
              "Иванов Пётр|Смирнова Анна|Кузнецов Олег|Соколов Юрий",
              "Москва|Казань|Нижний Новгород|Мурманск",
              "Номер|Имя|Порт|Примечание",
              "windows-1251 KOI8-R IBM866 ISO-8859-5"),
          Words.of(
              "Шевченко Іван|Коваленко Олена|Бондаренко Єва|Ткаченко Їжак",
              "Київ|Одеса|Херсон|Чернігів",
              "Номер|Назва|Місто|Примітка",
              "windows-1251 KOI8-U"),
          Words.of(
              "Παπαδόπουλος Γιώργος|Ιωάννου Μαρία|Νικολάου Ελένη|Δημητρίου Κώστας",
              "Αθήνα|Θεσσαλονίκη|Πάτρα|Ηράκλειο",
              "Αριθμός|Όνομα|Λιμάνι|Σχόλια",
              "windows-1253 ISO-8859-7"),
          Words.of(
              "כהן דוד|לוי שרה|מזרחי יוסף|פרץ רחל",
              "תל אביב|חיפה|אשדוד",
              "מספר|שם|נמל|הערות",
              "windows-1255"),
          Words.of(
              "محمد أحمد|فاطمة علي|خالد حسن|مريم يوسف",
              "القاهرة|الإسكندرية|دبي|بغداد",
              "الرقم|الاسم|الميناء|ملاحظات",
              "windows-1256"),
          Words.of(
              "Yılmaz Ayşe|Şahin Çağrı|Öztürk Gülşen|Işık Uğur",
              "İstanbul|İzmir|Diyarbakır",
              "Numara|Adı|Şehir|Açıklama",
              "windows-1254"),
          Words.of(
              "Kowalska Małgorzata|Wójcik Łukasz|Wiśniewski Paweł|Zając Grażyna",
              "Łódź|Gdańsk|Świnoujście",
              "Numer|Imię|Miasto|Uwagi",
              "windows-1250 ISO-8859-2 IBM852"),
          Words.of(
              "Kazlauskienė Živilė|Petrauskas Jūratė|Šimkus Ąžuolas",
              "Klaipėda|Šiauliai|Panevėžys",
              "Numeris|Vardas|Uostas|Pastabos",
              "windows-1257"),
          Words.of(
              "Müller Jörg|Schäfer Günther|Weiß Käthe|Köhler Lüder",
              "Lübeck|Köln|Düsseldorf",
              "Nummer|Name|Hafen|Größe",
              "windows-1252 x-MacRoman IBM850"),
          Words.of(
              "Lefèvre Hélène|Gérard François|Benoît Noël",
              "Besançon|Nîmes|Saint-Étienne",
              "Numéro|Prénom|Ville|Remarqués",
              "windows-1252 x-MacRoman IBM850"),
          Words.of(
              "João Conceição|Inês Simões|Antônio Guimarães",
              "São Paulo|Évora|Santarém",
              "Número|Nome|Cidade|Observações",
              "windows-1252 x-MacRoman"),
          Words.of(
              "Gëzim Çela|Ndriçim Kërçuku|Shpëtim Hoxha",
              "Tiranë|Durrës|Gjirokastër",
              "Numri|Emri|Datëlindja|Adresa e shtëpisë",
              "windows-1252"),
          Words.of(
              "Þórunn Guðmundsdóttir|Ásgeir Sæmundsson|Örn Ýr",
              "Reykjavík|Ísafjörður|Höfn",
              "Númer|Nafn|Höfn|Athugasemd",
              "windows-1252"));

  static Stream<Arguments> files() {
    return LANGUAGES.flatMap(
        words ->
            Stream.of(words.encodings().split(" "))
                .flatMap(
                    e ->
                        Stream.of(
                            Arguments.of(words, e, 12, true),
                            Arguments.of(words, e, 12, false),
                            Arguments.of(words, e, 400, true),
                            Arguments.of(words, e, 400, false))));
  }

  @ParameterizedTest(name = "{1}, {2} rows, own titles: {3}, {0}")
  @MethodSource("files")
  void isToldByItsWords(Words words, String encoding, int rows, boolean titles) throws IOException {
    String text = list(words, rows, titles);
    Charset charset = TextFiles.charset(encoding);
    byte[] bytes = text.getBytes(charset);
    assertThat(new String(bytes, charset)).as("can be written so").isEqualTo(text);

    String found = Encodings.find(write(bytes), Long.MAX_VALUE).value();

    // several encodings have the same letters in the same places
    assertThat(new String(bytes, TextFiles.charset(found))).as("read as " + found).isEqualTo(text);
  }

  /** Few signs beside the plain ones, as in most English files. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "windows-1252|It’s a boat~Don’t moor here~The owner’s keys",
        "windows-1252|“Quoted” text – and more…~Price €5",
        "windows-1252|temperature 5° and 3½ m²~§ 5",
        "windows-1252|© Quill® ™",
        "windows-1252|naïve café~It’s~O’Brien – “x”",
        "windows-1252|5 £~£7",
        "windows-1252|• bullet~• two",
        "windows-1252|2×4 µm ± 3",
        "windows-1252|1 – 2~3 – 4",
        "windows-1252|SEÑOR~AÑO~NIÑO~PEÑA",
        "windows-1252|MÜLLER~GRÖSSE~KÖLN~ÄRZTE",
        "ISO-8859-15|5 €~Œuvre cœur",
        "x-MacRoman|It’s a boat~Don’t moor here~café “x”",
        "IBM437|Größe ½ °~Müller",
        "windows-1251|ИВАНОВ~МОСКВА~ПЕТРОВ~КАЗАНЬ"
      })
  void fewSignsAreEnough(String encoding, String values) throws IOException {
    String text = "id,note\n1," + values.replace("~", "\n1,") + "\n";
    byte[] bytes = text.getBytes(TextFiles.charset(encoding));

    String found = Encodings.find(write(bytes), Long.MAX_VALUE).value();

    assertThat(new String(bytes, TextFiles.charset(found))).as("read as " + found).isEqualTo(text);
  }

  private static String list(Words words, int rows, boolean ownTitles) {
    Random random = new Random(rows);
    String[] names = words.names().split("\\|");
    String[] towns = words.towns().split("\\|");
    String titles = ownTitles ? words.titles().replace('|', ',') : "id,name,town,remark";
    StringBuilder text = new StringBuilder(titles).append("\r\n");
    for (int i = 0; i < rows; i++) {
      text.append("K").append(1000 + i).append(',');
      text.append(names[random.nextInt(names.length)]).append(',');
      text.append(towns[random.nextInt(towns.length)]).append(",seen 2026\r\n");
    }
    return text.toString();
  }

  private Path write(byte[] bytes) throws IOException {
    return Files.write(folder.resolve("list.csv"), bytes);
  }

  @Test
  void longLinesOfSignsOfSeveralBytesAreNotCutWithinOne() throws IOException {
    String line = "番号," + "東京都千代田区の港に着いた船の名前。".repeat(40) + "\n";
    byte[] bytes = line.repeat(30).getBytes(TextFiles.charset("Shift_JIS"));

    assertThat(Encodings.find(write(bytes), Long.MAX_VALUE).value()).isEqualTo("Shift_JIS");
  }

  @Test
  void namesOfEastAsianEncodingsMeanWhatWindowsWritesUnderThem() {
    assertThat(TextFiles.charset("Shift_JIS")).isEqualTo(Charset.forName("windows-31j"));
    assertThat(TextFiles.charset("GBK")).isEqualTo(Charset.forName("GB18030"));
    assertThat(TextFiles.nameOf("Shift_JIS")).isEqualTo("Shift_JIS");
    assertThat(TextFiles.nameOf("latin1")).isEqualTo("ISO-8859-1");
  }
}
