package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WordsTest {
  /** What other words that mean the same agree by. */
  private static final int MOST = 86;

  private static int agreement(String title, String field) {
    return Words.agreement(Words.of(title), Words.of(field));
  }

  @ParameterizedTest
  @CsvSource({
    "رقم الهاتف,phone",
    "تاريخ الميلاد,birth_date",
    "اسم العميل,customer_name",
    "السعر,unit_price",
    "الكمية,كمية",
    "ملاحظات,notes",
    "תאריך לידה,birth_date",
    "שם הלקוח,customer_name",
    "הכתובת,כתובת",
    "הערות,remarks",
    "Ημερομηνία γέννησης,birth_date",
    "Τηλέφωνο,phone",
    "Születési dátum,birth_date",
    "Irányítószám,postcode",
    "Megjegyzés,notes",
    "Syntymäaika,birth_date",
    "Postinumero,postcode",
    "Asiakkaan nimi,customer_name",
    "Data nașterii,birth_date",
    "Cod poștal,postcode",
    "氏名,name",
    "生年月日,birth_date",
    "郵便番号,postcode",
    "電話番号,phone",
    "メールアドレス,email",
    "会員番号,member_no",
    "都道府県,region",
    "備考,remarks",
    "数量,quantity",
    "姓名,name",
    "出生日期,date_of_birth",
    "客户名称,customer_name",
    "联系电话,phone",
    "單價,price",
    "備註,notes",
    "이름,name",
    "생년월일,birth_date",
    "전화번호,phone",
    "회원번호,member_id",
    "비고,note",
    "Фамилия,last_name",
    "Дата рождения,birth_date",
    "Номер телефона,phone",
    "Электронная почта,email",
    "Kundennr,customer_id",
    "E-postadress,email",
    "Vorname,firstname",
    "Почтовый индекс,postcode",
    "Индекс,postal_code",
    "Примечание,remarks",
    "Дата народження,birth_date",
    "Data urodzenia,birth_date",
    "Kod pocztowy,postcode",
    "Ilość,quantity",
    "Właściciel,owner",
    "Data de nascimento,birth_date",
    "Observações,notes",
    "Quantidade,quantity",
    "Datum narození,birth_date",
    "Poznámka,note",
    "Doğum tarihi,birth_date",
    "Müşteri adı,customer_name",
    "Födelsedatum,birth_date",
    "Förnamn,first_name",
    "Antal,quantity"
  })
  void titlesOfManyLanguagesFindTheirFields(String title, String field) {
    assertThat(agreement(title, field)).isGreaterThanOrEqualTo(55);
  }

  /** Tables are mostly called by the plural of what a title says. */
  @ParameterizedTest
  @CsvSource({
    "comandă,comenzi", "kupac,kupci", "order,ordrar", "asiakas,asiakkaat", "person,people",
    "city,cities", "company,companies", "factură,facturi", "klient,klienci", "заказ,заказы",
    "rendelés,rendelések", "sipariş,siparişler", "Bestellung,bestellungen", "pedido,pedidos"
  })
  void oneOfThemIsWhatTheyAreCalled(String one, String many) {
    assertThat(agreement(one, many)).isGreaterThanOrEqualTo(60);
  }

  /** A currency is what an amount is in, and counts only where it tells two fields apart. */
  @Test
  void currenciesCountOnlyIfBothSayOne() {
    assertThat(agreement("Monthly fee (kr)", "monthly_fee")).isGreaterThanOrEqualTo(MOST);
    assertThat(agreement("Сумма, руб.", "amount")).isGreaterThanOrEqualTo(MOST);
    assertThat(agreement("Cena [zł]", "price")).isGreaterThanOrEqualTo(MOST);
    assertThat(agreement("مبلغ (ریال)", "amount")).isGreaterThanOrEqualTo(MOST);
    assertThat(agreement("Preis EUR", "price_eur"))
        .isGreaterThan(agreement("Preis EUR", "price_usd"));
    assertThat(agreement("Lön", "salary")).isGreaterThanOrEqualTo(MOST);
  }

  /** A thousand titles, by the list {@code titles.txt}. */
  @Test
  void titlesOfFurtherLanguagesFindTheirFields() {
    List<String> missed = new ArrayList<>();
    for (String line : WordLists.lines(WordsTest.class, "titles.txt")) {
      String field = line.substring(0, line.indexOf(':'));
      for (String title : line.substring(line.indexOf(':') + 1).split(",")) {
        if (agreement(title.strip(), field) < 50) {
          missed.add(title.strip() + " for " + field);
        }
      }
    }
    assertThat(missed).isEmpty();
  }

  @ParameterizedTest
  @CsvSource({
    "氏名,birth_date",
    "電話番号,postcode",
    "出生日期,name",
    "Дата рождения,phone",
    "Ilość,price",
    "日本語,date",
    "Номер,data",
    "राम,रमा",
    "น้ำหนัก,name",
    "Broj telefona,quantity",
    "Сумма,sort",
    "Created by,city"
  })
  void othersDont(String title, String field) {
    assertThat(agreement(title, field)).isLessThan(40);
  }

  /** However a title is spelt in Latin letters, also where nobody knows the word. */
  @ParameterizedTest
  @CsvSource({
    "Прізвище,prizvyshche",
    "Ім'я,imia",
    "Имя,imya",
    "Имя,imja",
    "Отчество,otchestvo",
    "Дата народження,data_narodzhennia",
    "Лікар,likar_id",
    "Щебень,scheben",
    "Крушение,krushenie",
    "Ячейка,yacheyka",
    "Объём груза,obem_gruza",
    "Επώνυμο,eponymo",
    "ΑΦΜ,afm",
    "Θυρίδα,thyrida",
    "Οδός,odos",
    "Κουπόνι,kouponi",
    "Χρονολόγιο,hronologio"
  })
  void titlesInOtherLettersAreHeardInLatinOnes(String title, String field) {
    assertThat(agreement(title, field)).isGreaterThan(79);
  }

  /** Likewise where the file is written in another language than the table. */
  @ParameterizedTest
  @CsvSource({"Surname,prizvyshche", "Nachname,familiya", "Phone,tilefono", "Quantity,kolichestvo"})
  void whatIsSpeltInLatinLettersMeansWhatItDoes(String title, String field) {
    assertThat(agreement(title, field)).isGreaterThan(79);
  }

  @Test
  void wideAndNarrowSignsAreTheSame() {
    assertThat(agreement("ﾌﾘｶﾞﾅ", "フリガナ")).isEqualTo(100);
    assertThat(agreement("Ｎａｍｅ", "name")).isEqualTo(100);
  }

  /** A database that takes only plain letters writes them so, in one of two ways. */
  @ParameterizedTest
  @CsvSource({
    "Staður,stadur",
    "Słuch,sluch",
    "Bøger,boger",
    "Bøger,boeger",
    "Sınıf,sinif",
    "Größe,groesse",
    "Đường,duong",
    "Þáttur,thattur"
  })
  void lettersWithStrokesAreAmongTheirPlainOnes(String title, String field) {
    assertThat(agreement(title, field)).isGreaterThanOrEqualTo(70);
  }

  @Test
  void titlesWithoutSpacesArePartedIntoKnownWords() {
    assertThat(Words.of("会員番号")).isEqualTo(List.of("会員"));
    assertThat(Words.of("配送先住所")).isEqualTo(List.of("配送先", "住所"));
    assertThat(Words.of("日本語")).isEqualTo(List.of("日本語"));
  }
}
