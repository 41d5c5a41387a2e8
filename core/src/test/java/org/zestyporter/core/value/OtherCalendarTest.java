package org.zestyporter.core.value;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalDateTime;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class OtherCalendarTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "BUDDHIST | 15/03/2567 | 2024-03-15",
        "BUDDHIST | 2567-03-15 | 2024-03-15",
        "BUDDHIST | 29/02/2543 | 2000-02-29",
        "BUDDHIST | 1 ม.ค. 2560 | 2017-01-01",
        "BUDDHIST | 28 มีนาคม พ.ศ. 2560 | 2017-03-28",
        "BUDDHIST | ๑๕/๐๓/๒๕๖๗ | 2024-03-15",
        "MINGUO | 113/05/01 | 2024-05-01",
        "MINGUO | 1130229 | 2024-02-29",
        "MINGUO | 0890115 | 2000-01-15",
        "HIJRI | 1445/09/01 | 2024-03-11",
        "HIJRI | 30/12/1443 | 2022-07-29",
        "HIJRI | 1 Ramadan 1445 | 2024-03-11",
        "HIJRI | 1 رمضان 1445هـ | 2024-03-11",
        "HIJRI | ١٤٤٥/٠٩/٠١ هـ | 2024-03-11",
        "PERSIAN | 1402/05/12 | 2023-08-03",
        "PERSIAN | ۱۴۰۲/۰۵/۱۲ | 2023-08-03",
        "PERSIAN | 12/05/1402 | 2023-08-03",
        "PERSIAN | 1399-12-30 | 2021-03-20",
        "PERSIAN | ۱۲ مرداد ۱۴۰۲ | 2023-08-03",
        "PERSIAN | پنج‌شنبه، ۱۲ مرداد ماه ۱۴۰۲ | 2023-08-03",
        "PERSIAN | 1402 مرداد 12 | 2023-08-03",
        "PERSIAN | 1 Farvardin 1403 | 2024-03-20",
        "PERSIAN | ۳۱ شهريور ۱۳۵۹ ه.ش | 1980-09-22"
      })
  void daysAreThoseOfOurs(OtherCalendar calendar, String text, LocalDate day) {
    assertThat(calendar.read(text, DateOrder.DAY_MONTH_YEAR)).isEqualTo(day);
  }

  @Test
  void timesStay() {
    assertThat(OtherCalendar.BUDDHIST.read("15/03/2567 14:30", DateOrder.DAY_MONTH_YEAR))
        .isEqualTo(LocalDateTime.of(2024, 3, 15, 14, 30));
    assertThat(OtherCalendar.HIJRI.read("1445/09/01 08:05:09", DateOrder.DAY_MONTH_YEAR))
        .isEqualTo(LocalDateTime.of(2024, 3, 11, 8, 5, 9));
  }

  /** What is no day of the calendar is told, with what was written. */
  @ParameterizedTest
  @CsvSource({
    "BUDDHIST,30/02/2567",
    "BUDDHIST,15/03/2024",
    "BUDDHIST,15/03/67",
    "BUDDHIST,soon",
    "BUDDHIST,''",
    "MINGUO,113/13/01",
    "MINGUO,5/1",
    "HIJRI,1445/02/31",
    "HIJRI,1 March 1445",
    "HIJRI,31 Ramadan 1445",
    "HIJRI,9999/01/01",
    "PERSIAN,1402/07/31",
    "PERSIAN,1402/12/30",
    "PERSIAN,2023/08/03",
    "PERSIAN,12 Ramadan 1402",
    "PERSIAN,12 مرداد"
  })
  void othersAreRefused(OtherCalendar calendar, String text) {
    assertThat(calendar.read(text, DateOrder.DAY_MONTH_YEAR))
        .isInstanceOfSatisfying(
            Problem.class, problem -> assertThat(problem.value()).isEqualTo(text));
  }

  /** A cell with a day is meant so if its year can be nothing else. */
  @Test
  void daysOfCellsAreMeantSoOnlyWhereTheyMustBe() {
    assertThat(OtherCalendar.BUDDHIST.meant(LocalDate.of(2567, 3, 15)))
        .isEqualTo(LocalDate.of(2024, 3, 15));
    assertThat(OtherCalendar.BUDDHIST.meant(LocalDate.of(2024, 3, 15)))
        .isEqualTo(LocalDate.of(2024, 3, 15));
    assertThat(OtherCalendar.HIJRI.meant(LocalDate.of(2567, 3, 15)))
        .isEqualTo(LocalDate.of(2567, 3, 15));
  }
}
