package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zestyporter.core.application.FieldInfo;
import org.zestyporter.core.application.FieldType;
import org.zestyporter.core.application.TableInfo;

/** Names are compared as a person would. */
class LikenessTest {
  /** From here on a draft pairs a column with a field. */
  private static final int ENOUGH = 50;

  private static FieldInfo field(String name, String comment) {
    return FieldInfo.of(name, FieldType.TEXT).withComment(comment);
  }

  private static TableInfo table(String name, FieldInfo field) {
    return new TableInfo(null, name, null, List.of(field), List.of(), List.of());
  }

  private static Likeness of(String column, String field, String comment, String table) {
    FieldInfo info = field(field, comment);
    return Likeness.of(table(table, info), info, column);
  }

  @ParameterizedTest
  @CsvSource({
    "FAMILY NAME,family_name",
    "familyName,family_name",
    "name (family),family_name",
    "Surname,last_name",
    "E-Mail,email",
    "e mail,email",
    "Tel.,phone",
    "Zip,postcode",
    "Town,city",
    "Boat name,name",
    "size.length,length_m",
    "Arrives,arrived_on",
    "Remarks,notes",
    "Beam (ft),beam_m",
    "Born,DateOfBirth",
    "No. of guests,NumberOfGuests",
    "VAT no.,VATNumber",
    "Unit,UnitOfMeasure",
  })
  void theseMeanTheSame(String column, String field) {
    assertThat(of(column, field, null, "vessel").score()).as(column).isGreaterThanOrEqualTo(ENOUGH);
  }

  @ParameterizedTest
  @CsvSource({
    "Geburtsdatum,birth_date",
    "Date de naissance,dob",
    "Fecha de nacimiento,birth_date",
    "Telefonnummer,phone",
    "Straße,street",
    "Prénom,first_name",
    "Cognome,last_name",
    "Código postal,postcode",
    "Kundennummer,customer_no",
    "Rechnungsdatum,invoice_date",
    "Opmerkingen,remark",
    "Menge,qty",
    "Liegeplatz,berth_id",
    "Tiefe,depth_m",
    "cust_nm,customer_name",
    "dpth,depth",
    "wthr,weather",
    "Vorname,first_name",
    "name,nachname",
    "kWh,kwh",
    "eMail,email",
    "readOn,read_on",
    "Auftragsdatum,AUFDAT",
    "Auftragswert,WERT",
    "Liefertermin,LIEFDAT",
    "Rechnungs-Datum,RECHDAT",
    "Invoice date,INVDT",
    "Order date,ORDDATE",
    "Customer name,CUSTNM",
    "shipment weight,shpwgt",
  })
  void soDoTheseInOtherWordsAndLanguages(String column, String field) {
    assertThat(of(column, field, null, "thing").score()).as(column).isGreaterThanOrEqualTo(ENOUGH);
  }

  @ParameterizedTest
  @CsvSource({
    "Prénom,last_name",
    "Straße,state",
    "Ort,order_no",
    "Ende,begin_on",
    "Menge,price",
    "st,street_lamp",
    "Red mark,remark",
    "Cost department,codep",
    "Date of order,ORDDATE2",
  })
  void theseDoNotEither(String column, String field) {
    assertThat(of(column, field, null, "thing").score()).as(column).isLessThan(ENOUGH);
  }

  @ParameterizedTest
  @CsvSource({
    "Colour,length_m",
    "Postal street,postcode",
    "Berth,beam_m",
    "Owner,berth_id",
    "Printed,price",
    "First name,family_name_of_birth",
  })
  void theseDoNot(String column, String field) {
    assertThat(of(column, field, null, "vessel").score()).as(column).isLessThan(ENOUGH);
  }

  @ParameterizedTest
  @CsvSource({
    "LOA (ft),length_m,'length over all, in metres',short for",
    "Girth,beam_m,'greatest girth, in metres',the field is described as",
  })
  void commentsOfTheDatabaseHelp(String column, String field, String comment, String because) {
    Likeness found = of(column, field, comment, "vessel");
    assertThat(found.because()).startsWith(because);
    assertThat(found.score()).isGreaterThan(of(column, field, null, "vessel").score());
  }

  @ParameterizedTest
  @CsvSource({"Contract,true", "contracts,false", "Contract no,true", "Berth,false"})
  void aColumnMayBeCalledWhatTheTableHolds(String column, boolean is) {
    FieldInfo number = field("number", null);
    assertThat(Likeness.isTheTable(table("berth_contract", number), column)).isEqualTo(is);
  }

  @ParameterizedTest
  @CsvSource({
    "Sklypo Nr.,sklypas,true",
    "Savininko kodas,sklypas,false",
    "Sklep,sklypas,false",
    "Produto,produtos,true",
    "Boat,shop.boats,true",
    "Boot,boote,true",
    "Nr. comandă,comenzi,true",
    "Bestellnr.,orders,true",
    "Kundennummer,orders,false",
    "Produtos,produto,false"
  })
  void aTableMayBeCalledByThePlural(String column, String table, boolean is) {
    assertThat(Likeness.isTheTable(table(table, field("number", null)), column)).isEqualTo(is);
  }

  /** That it is a date is said by the type of a field, so a title need not say it. */
  @Test
  void datesNeedNotBeCalledSo() {
    FieldInfo born = field("birth_date", null).withType(FieldType.DATE);
    assertThat(Likeness.of(table("person", born), born, "Born").score())
        .isGreaterThan(80)
        .isGreaterThan(of("Born", "birth_date", null, "person").score());
    assertThat(Likeness.of(table("person", born), born, "Date").score()).isLessThan(80);
  }
}
