package org.zestyporter.core.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.YearMonth;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.zestyporter.core.value.DateOrder;
import org.zestyporter.core.value.OtherCalendar;
import org.zestyporter.core.value.ValueReader;

class ToldCalendarTest {
  private static OtherCalendar told(String beside, Stream<String> days) {
    return ToldCalendar.of(
        days.toList(),
        text -> ValueReader.date(text, DateOrder.YEAR_MONTH_DAY, null),
        DateOrder.YEAR_MONTH_DAY,
        beside);
  }

  /** Each day of some years as it would be written. */
  private static Stream<String> days(int from, int months, IntUnaryOperator last) {
    return IntStream.range(0, months)
        .boxed()
        .flatMap(
            m ->
                IntStream.rangeClosed(1, last.applyAsInt(m % 12 + 1))
                    .mapToObj(d -> "%d/%02d/%02d".formatted(from + m / 12, m % 12 + 1, d)));
  }

  /** By their letters and figures, and by the lengths of their months where there are many. */
  @Test
  void areToldByWhatOnlyTheyHave() {
    assertThat(told("تاریخ تولد", Stream.of("1362/02/12", "1350/03/10")))
        .isEqualTo(OtherCalendar.PERSIAN);
    assertThat(told("تاريخ الميلاد", Stream.of("1412/02/12", "1420/03/10")))
        .isEqualTo(OtherCalendar.HIJRI);
    assertThat(told("Date", Stream.of("12 Mordad 1402", "1 Mehr 1399")))
        .isEqualTo(OtherCalendar.PERSIAN);
    assertThat(told("Date", Stream.of("1 Ramadan 1445"))).isEqualTo(OtherCalendar.HIJRI);
    assertThat(told("Date", days(1390, 24, m -> m < 7 ? 31 : 29))).isEqualTo(OtherCalendar.PERSIAN);
    assertThat(told("Date", days(1440, 24, m -> 29))).isEqualTo(OtherCalendar.HIJRI);
  }

  @Test
  void daysOfAnArchiveAreOurs() {
    assertThat(told("Date", Stream.of("1362/02/12", "1350/03/10"))).isNull();
    assertThat(told("Date", days(1432, 24, m -> YearMonth.of(1433, m).lengthOfMonth()))).isNull();
    assertThat(told("Date", Stream.of("2024/02/12", "1350/03/10"))).isNull();
    assertThat(told("نام", Stream.of("علی", "رضا"))).isNull();
    assertThat(told("Date", Stream.of())).isNull();
  }
}
