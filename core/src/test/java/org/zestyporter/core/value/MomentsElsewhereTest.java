package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Dates and times as they are written in many countries. */
class MomentsElsewhereTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "2026年11月3日|2026-11-03",
        "２０２６年１１月３日|2026-11-03",
        "令和8年11月3日|2026-11-03",
        "令和元年5月1日|2019-05-01",
        "平成31年4月30日|2019-04-30",
        "昭和55年3月14日|1980-03-14",
        "大正15年12月24日|1926-12-24",
        "R8.11.3|2026-11-03",
        "S55/3/14|1980-03-14",
        "民國115年11月3日|2026-11-03",
        "2026년 11월 3일|2026-11-03",
        "2026. 11. 3.|2026-11-03",
        "3. 11. 2026.|2026-11-03",
        "٣/١١/٢٠٢٦|2026-11-03",
        "3 de marzo de 2026|2026-03-03",
        "3 d’octubre de 2026|2026-10-03",
        "3rd of November 2026|2026-11-03",
        "November 3rd, 2026|2026-11-03",
        "1er mars 2026|2026-03-01",
        "2026. november 3.|2026-11-03",
        "2026-Nov-03|2026-11-03",
        "3-Nov-2026|2026-11-03",
        "03-NOV-2026|2026-11-03",
        "03/Nov/2026|2026-11-03",
        "3.Nov.2026|2026-11-03",
        "3. nov. 2026|2026-11-03",
        "03NOV2026|2026-11-03",
        "3-Nov, 2026|2026-11-03",
        "03-März-2026|2026-03-03",
        "3 ноября 2026 г.|2026-11-03",
        "03.11.2026 г.|2026-11-03",
        "2026 m. lapkričio 3 d.|2026-11-03",
        "2026. gada 3. novembris|2026-11-03",
        "2026. gada 3. novembrī|2026-11-03",
        "3. новембар 2026.|2026-11-03",
        "3 ноември 2026|2026-11-03",
        "3. nóvember 2026|2026-11-03",
        "3 nëntor 2026|2026-11-03",
        "3 ნოემბერი 2026|2026-11-03",
        "3 stycznia 2026 r.|2026-01-03",
        "\u200F03/11/2026\u200F|2026-11-03",
        "٠٣/١١/٢٠٢٦|2026-11-03",
        "3 نوفمبر 2026|2026-11-03",
        "3 בנובמבר 2026|2026-11-03"
      })
  void datesAreReadAsTheyAreWrittenElsewhere(String text, LocalDate expected) {
    assertThat(ValueReader.date(text, DateOrder.DAY_MONTH_YEAR, null)).isEqualTo(expected);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "平成40年2月3日|no such day",
        "令和8年2月30日|no such day",
        "天平8年2月3日|there is no era 天平",
        "8年2月3日|the year has not four figures",
        "2026年11月|no single day",
        "X8.11.3|no single day"
      })
  void aDateOfAnEraIsADayOfThatEra(String text, String reason) {
    assertThat(ValueReader.date(text, DateOrder.DAY_MONTH_YEAR, null))
        .isEqualTo(new Problem(ProblemCode.NOT_A_DATE, text, reason));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "2:30 PM|14:30",
        "12:05 AM|00:05",
        "12:00 pm|12:00",
        "9:00:15 a.m.|09:00:15",
        "5:45 p. m.|17:45",
        "午後2:30|14:30",
        "上午 9:05|09:05",
        "2:30 م|14:30",
        "9:05 ص|09:05",
        "오후 2시 30분|14:30",
        "14時30分|14:30",
        "14時30分5秒|14:30:05",
        "１４：３０|14:30",
        "14:30:15.25|14:30:15.25"
      })
  void timesAreReadOnBothClocks(String text, LocalTime expected) {
    assertThat(ValueReader.time(text)).isEqualTo(expected);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "14:30 PM",
        "24:00",
        "2:60",
        "2 PM 30",
        "午前2:30 pm",
        "2:3",
        "8:15:61",
        "noon",
        ":30"
      })
  void whatIsNoTimeIsAProblem(String text) {
    assertThat(ValueReader.time(text))
        .isEqualTo(new Problem(ProblemCode.NOT_A_TIME, text, "not a time of day"));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "11/3/2026 2:30 PM|2026-11-03T14:30",
        "11/3/2026, 2:30:09 pm|2026-11-03T14:30:09",
        "11/3/2026 12:05 AM|2026-11-03T00:05",
        "2026/11/03 午後2:30|2026-11-03T14:30",
        "2026年11月3日10時30分|2026-11-03T10:30",
        "2026年11月3日 午前0:30|2026-11-03T00:30",
        "2026. 11. 3. 오후 2:30|2026-11-03T14:30",
        "2026-11-03T14:30|2026-11-03T14:30",
        "Nov 3, 2026 2:30 PM|2026-11-03T14:30",
        "3 November 2026 14:30|2026-11-03T14:30",
        "03-Nov-2026 14:30|2026-11-03T14:30",
        "03-NOV-2026 2:30:05 PM|2026-11-03T14:30:05"
      })
  void aTimeMayStandBehindADate(String text, LocalDateTime expected) {
    assertThat(ValueReader.dateTime(text, DateOrder.MONTH_DAY_YEAR, null)).isEqualTo(expected);
  }
}
